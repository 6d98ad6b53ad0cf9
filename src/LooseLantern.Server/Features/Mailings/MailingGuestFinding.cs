using System.Text;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.GuestBook;
using LooseLantern.Server.Features.GuestBook.Importing;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Mailings;

/// <summary>Whom a mailing goes to: those of a choice of guests, or of a list that is pasted.</summary>
public sealed class MailingGuestFinding(LanternDb db, GuestFinding finding, IClock clock)
{
    /// <summary>To how many one mailing goes at the most.</summary>
    public const int Most = 200;

    private const int MostPasted = 100_000;

    /// <summary>The guests of a choice who can be written to, by name.</summary>
    /// <exception cref="Refusal">400 for a condition that asks for what is not there.</exception>
    public async Task<MailingGuests> OfAsync(GuestFilter filter, CancellationToken ct)
    {
        var (found, trip) = (await finding.OfAsync(filter, ct), new RoundTrip(db));
        var total = trip.Ask($"SELECT count(*)::int FROM {found.From}", found.Values, row => row.GetInt32(0));
        const string Email =
            "(SELECT e.email FROM guest_emails e WHERE e.guest_id = g.id ORDER BY e.place, e.key LIMIT 1)";
        var without = trip.Ask(
            $"SELECT count(*)::int FROM {found.From} AND NOT EXISTS (SELECT 1 FROM guest_emails e WHERE e.guest_id = g.id)",
            found.Values,
            row => row.GetInt32(0)
        );
        var guests = trip.Ask(
            $"""
            SELECT g.name, {Email}, coalesce(g.zone, ''), coalesce(g.language, '') FROM {found.From}
                AND EXISTS (SELECT 1 FROM guest_emails e WHERE e.guest_id = g.id)
            ORDER BY g.name_key, g.id LIMIT {Most}
            """,
            found.Values,
            row => new MailingGuest(row.GetString(0), row.GetString(1), row.GetString(2), row.GetString(3))
        );
        await trip.RunAsync(ct);
        return new MailingGuests(total.Rows[0], without.Rows[0], guests.Rows, []);
    }

    /// <summary>
    /// The guests of a list with a name, an email and perhaps a zone in each line, as a table, a file or a mail program
    /// gives them.
    /// </summary>
    /// <exception cref="Refusal">400 where it can't be read as a list.</exception>
    public async Task<MailingGuests> PastedAsync(string text, CancellationToken ct)
    {
        if (text.Trim().Length == 0)
            throw Refusal.Invalid("text", "mailing-paste");
        if (text.Length > MostPasted)
            throw Refusal.Invalid("text", Phrase.Of("too-long", ("most", MostPasted)));
        var table = ImportReading.Open(Encoding.UTF8.GetBytes(AsTable(text)), "utf-8", null).Table;
        var samples = table
            .Head.Select(
                (_, i) => (IReadOnlyList<string>)[.. table.Rows.Select(row => row.Cells[i]).Where(cell => cell != "")]
            )
            .ToList();
        var choices = ImportColumns.Guess(table.Head, samples, [], []).ToList();
        for (var i = 0; i < choices.Count; i++)
        {
            // A column without a name whose cells are cities or zones.
            if (
                choices[i] == ColumnChoice.Nothing
                && table.Head[i].Length == 0
                && choices.All(one => one.Meaning != ColumnMeaning.Zone)
                && samples[i].Count > 0
            )
                choices[i] = new ColumnChoice(ColumnMeaning.Zone);
        }

        var (read, faults) = ImportReading.Read(table, choices, new ImportSetting([], []));
        foreach (var guest in read.Where(guest => guest.Emails.Count == 0))
            faults.Add(new ImportFault(guest.Row, "", guest.Facts.Name, Phrases.Mend("email")));
        var guests = read.Where(guest => guest.Emails.Count > 0)
            .Select(guest => new MailingGuest(
                guest.Facts.Name,
                guest.Emails[0],
                guest.Facts.Zone ?? "",
                guest.Facts.Language ?? ""
            ))
            .ToList();
        return new MailingGuests(table.Rows.Count, 0, [.. guests.Take(Most)], [.. faults.OrderBy(fault => fault.Row)]);
    }

    /// <summary>What is known of those who are known, each by the email that they are written to by.</summary>
    public async Task<IReadOnlyDictionary<string, KnownForMailing>> KnownAsync(
        IReadOnlyCollection<string> keys,
        CancellationToken ct
    )
    {
        var now = clock.GetCurrentInstant();
        var found = await db
            .GuestEmails.AsNoTracking()
            .Where(row => keys.Contains(row.Key))
            .Join(db.Guests, row => row.GuestId, guest => guest.Id, (row, guest) => new { row.Key, Guest = guest })
            .ToListAsync(ct);
        var ids = found.ConvertAll(row => row.Guest.Id);
        var offers = (
            await db
                .LinkGuests.Where(row => ids.Contains(row.GuestId))
                .Join(db.Links, row => row.LinkId, link => link.Id, (row, link) => new { row.GuestId, Link = link })
                .Where(row => row.Link.TakesMore && row.Link.EndsAt > now && row.Link.OutAt != null)
                .Select(row => row.GuestId)
                .ToListAsync(ct)
        )
            .CountBy(id => id)
            .ToDictionary();
        return found.ToDictionary(
            row => row.Key,
            row => new KnownForMailing(row.Guest, offers.GetValueOrDefault(row.Guest.Id))
        );
    }

    /// <summary>Mail programs write "Name &lt;email&gt;", several on a line.</summary>
    private static string AsTable(string text)
    {
        if (!text.Contains('<', StringComparison.Ordinal))
            return text;
        var lines = text.ReplaceLineEndings("\n")
            .Split(['\n', ';'], StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)
            .SelectMany(line => line.Split('>', StringSplitOptions.RemoveEmptyEntries))
            .Select(one => one.Trim(' ', ',', ';'))
            .Where(one => one.Length > 0)
            .Select(one =>
                one.Split('<') is [var name, var email]
                    ? $"\"{name.Trim().Trim('"').Replace("\"", "\"\"")}\",{email}"
                    : one
            );
        return string.Join('\n', lines);
    }
}

/// <param name="OffersOut">How many links of theirs are out.</param>
public sealed record KnownForMailing(Guest Guest, int OffersOut);
