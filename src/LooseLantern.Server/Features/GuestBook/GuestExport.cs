using System.Globalization;
using LooseLantern.Formats.Tables;
using LooseLantern.Formats.VCards;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.GuestBook;

/// <summary>Guests as files for other programs; what is written comes in again as it was.</summary>
public sealed class GuestExport(LanternDb db, GuestFinding finding, GuestLists lists)
{
    private static readonly string[] Head =
    [
        "Name",
        "Email",
        "Other emails",
        "Organisation",
        "Phone",
        "Time zone",
        "Language",
        "Keeper",
    ];

    /// <summary>CSV, with the workspace's own fields and what was booked.</summary>
    public async Task<string> TableAsync(GuestFilter filter, CancellationToken ct)
    {
        var (guests, fields) = (await GuestsAsync(filter, ct), await FieldsAsync(ct));
        var keepers = await db.Users.ToDictionaryAsync(person => person.Id, person => person.Email ?? person.Name, ct);
        var rows = (await lists.RowsAsync(guests.ConvertAll(guest => guest.Id), ct)).ToDictionary(row => row.Id);
        return TableWriting.Write(
            guests
                // Whoever went meanwhile is left out.
                .Where(guest => rows.ContainsKey(guest.Id))
                .Select(guest =>
                {
                    var emails = EmailsOf(guest);
                    var row = rows[guest.Id];
                    return (IEnumerable<string>)
                        [
                            guest.Name,
                            emails.FirstOrDefault(""),
                            string.Join(' ', emails.Skip(1)),
                            guest.Organisation,
                            guest.Phone,
                            guest.Zone ?? "",
                            guest.Language ?? "",
                            guest.KeeperId is { } keeper ? keepers.GetValueOrDefault(keeper, "") : "",
                            .. fields.Select(field => guest.Fields.GetValueOrDefault(field.Id, "")),
                            Written(guest.MadeAt),
                            row.Bookings.ToString(CultureInfo.InvariantCulture),
                            Written(row.Last),
                            Written(row.Next),
                        ];
                })
                .Prepend([
                    .. Head,
                    .. fields.Select(field => field.Name),
                    "Known since",
                    "Bookings",
                    "Last appointment",
                    "Next appointment",
                ])
        );
    }

    /// <summary>vCard 4.0; the workspace's own fields stand in the note.</summary>
    public async Task<string> CardsAsync(GuestFilter filter, CancellationToken ct)
    {
        var (guests, fields) = (await GuestsAsync(filter, ct), await FieldsAsync(ct));
        return VCardWriting.Write(
            guests.Select(guest =>
                (
                    guest.Id,
                    new VCard(
                        0,
                        guest.Name,
                        EmailsOf(guest),
                        guest.Organisation,
                        guest.Phone,
                        guest.Zone ?? "",
                        guest.Language ?? "",
                        string.Join(
                            '\n',
                            fields
                                .Where(field => guest.Fields.ContainsKey(field.Id))
                                .Select(field => $"{field.Name}: {guest.Fields[field.Id]}")
                        )
                    )
                )
            )
        );
    }

    private async Task<List<Guest>> GuestsAsync(GuestFilter filter, CancellationToken ct)
    {
        var found = await finding.OfAsync(filter, ct);
        // What was typed is in the values alone.
        var sql = "SELECT g.* FROM " + found.From;
        return await db
            .Guests.FromSqlRaw(
                sql,
                [.. found.Values.Select(value => new Npgsql.NpgsqlParameter(value.Key, value.Value))]
            )
            .AsNoTracking()
            .Include(guest => guest.Emails)
            .OrderBy(guest => guest.NameKey)
            .ThenBy(guest => guest.Id)
            .AsSplitQuery()
            .ToListAsync(ct);
    }

    private Task<IReadOnlyList<GuestField>> FieldsAsync(CancellationToken ct) =>
        db.Workspaces.AsNoTracking().Select(row => row.GuestFields).SingleAsync(ct);

    private static List<string> EmailsOf(Guest guest) =>
        [.. guest.Emails.OrderBy(email => email.Place).ThenBy(email => email.Key).Select(email => email.Email)];

    private static string Written(Instant? at) =>
        at?.ToString("uuuu-MM-dd'T'HH:mm:ss'Z'", CultureInfo.InvariantCulture) ?? "";
}
