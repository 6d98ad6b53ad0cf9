using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using Microsoft.EntityFrameworkCore;

namespace LooseLantern.Server.Features.GuestBook.Importing;

/// <summary>What becomes of a guest who is known already.</summary>
public enum KnownGuests
{
    /// <summary>Only what is blank is filled in.</summary>
    Fill,

    /// <summary>What the file says counts; where it says nothing, what is known stays.</summary>
    Replace,

    /// <summary>Nothing.</summary>
    Leave,
}

public enum RowOutcome
{
    New,
    Changed,
    Unchanged,

    /// <summary>Several guests are meant by it, or one by several rows; it is told as a fault.</summary>
    Unclear,
}

/// <param name="Guest">Who is known already; null for somebody new.</param>
/// <param name="After">What is known of them from then on.</param>
/// <param name="NewEmails">Those that are not anybody's yet.</param>
public sealed record PlannedRow(
    ReadGuest Read,
    RowOutcome Outcome,
    Guest? Guest,
    GuestFacts After,
    IReadOnlyList<string> NewEmails
);

/// <summary>Says what a file's guests would do to those who are known, without doing it.</summary>
public sealed class ImportPlanning(LanternDb db)
{
    public async Task<List<PlannedRow>> PlanAsync(List<ReadGuest> read, KnownGuests known, CancellationToken ct)
    {
        var keys = read.SelectMany(row => row.Emails).Select(GuestEmail.KeyOf).Distinct().ToArray();
        var names = read.Where(row => row.Emails.Count == 0)
            .Select(row => NameKey(row.Facts.Name))
            .Distinct()
            .ToArray();
        var owners = await db
            .GuestEmails.AsNoTracking()
            .Where(email => keys.Contains(email.Key))
            .ToDictionaryAsync(email => email.Key, email => email.GuestId, ct);
        var ids = owners.Values.Distinct().ToArray();
        var guests = await db
            .Guests.AsNoTracking()
            .Include(guest => guest.Emails)
            .Where(guest =>
                guest.MergedInto == null
                && (ids.Contains(guest.Id) || (names.Contains(guest.NameKey) && guest.Emails.Count == 0))
            )
            .AsSplitQuery()
            .ToListAsync(ct);
        var byId = guests.ToDictionary(guest => guest.Id);
        var byName = guests.Where(guest => guest.Emails.Count == 0).ToLookup(guest => guest.NameKey);
        var plan = read.ConvertAll(row => Planned(row, owners, byId, byName, known));
        // Of two rows about one guest nobody could say which counts.
        var seen = new HashSet<Guid>();
        return plan.ConvertAll(row =>
            row.Guest is null || seen.Add(row.Guest.Id) ? row : row with { Outcome = RowOutcome.Unclear }
        );
    }

    private static PlannedRow Planned(
        ReadGuest row,
        Dictionary<string, Guid> owners,
        Dictionary<Guid, Guest> byId,
        ILookup<string, Guest> byName,
        KnownGuests known
    )
    {
        var found = row
            .Emails.Select(email => owners.GetValueOrDefault(GuestEmail.KeyOf(email)))
            .Where(id => id != Guid.Empty)
            .Distinct()
            .ToList();
        if (found.Count > 1)
            return new PlannedRow(row, RowOutcome.Unclear, null, row.Facts, []);
        var guest =
            // Who was merged just now is told by the key of the email, as it is written.
            found.Count == 1
                ? byId.GetValueOrDefault(found[0])
            : row.Emails.Count > 0 ? null
            : byName[NameKey(row.Facts.Name)]
                .FirstOrDefault(one =>
                    one.Organisation.Equals(row.Facts.Organisation, StringComparison.OrdinalIgnoreCase)
                    && (one.Phone == row.Facts.Phone || row.Facts.Phone.Length == 0 || one.Phone.Length == 0)
                );
        if (guest is null)
            return new PlannedRow(row, RowOutcome.New, null, row.Facts, row.Emails);
        var before = GuestMerging.FactsOf(guest);
        var after = known switch
        {
            KnownGuests.Fill => Over(row.Facts, before),
            KnownGuests.Replace => Over(before, row.Facts),
            _ => before,
        };
        var emails =
            known == KnownGuests.Leave
                ? []
                : row.Emails.Where(email => guest.Emails.All(own => own.Key != GuestEmail.KeyOf(email))).ToList();
        var isSame =
            emails.Count == 0 && (row.Note.Length == 0 || known == KnownGuests.Leave) && AreSame(before, after);
        return new PlannedRow(row, isSame ? RowOutcome.Unchanged : RowOutcome.Changed, guest, after, emails);
    }

    /// <summary>The facts of the second, where it has them; else those of the first.</summary>
    private static GuestFacts Over(GuestFacts first, GuestFacts second)
    {
        var fields = new Dictionary<Guid, string>(first.Fields);
        foreach (var (id, value) in second.Fields)
            fields[id] = value;
        return new GuestFacts(
            second.Name.Length > 0 ? second.Name : first.Name,
            second.Organisation.Length > 0 ? second.Organisation : first.Organisation,
            second.Phone.Length > 0 ? second.Phone : first.Phone,
            second.Zone ?? first.Zone,
            second.Language ?? first.Language,
            second.Clock ?? first.Clock,
            second.KeeperId ?? first.KeeperId,
            fields
        );
    }

    private static bool AreSame(GuestFacts one, GuestFacts other) =>
        one with { Fields = other.Fields } == other
        && one.Fields.Count == other.Fields.Count
        && !one.Fields.Except(other.Fields).Any();

    private static string NameKey(string name) => name.Trim().ToLowerInvariant();
}
