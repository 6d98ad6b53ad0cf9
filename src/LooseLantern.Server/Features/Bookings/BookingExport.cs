using System.Globalization;
using LooseLantern.Formats.Tables;
using LooseLantern.Server.Data;
using NodaTime;

namespace LooseLantern.Server.Features.Bookings;

/// <summary>Bookings of a list as a table for other programs, in UTF-8; no cell is taken for a formula.</summary>
public sealed class BookingExport(BookingLists lists)
{
    /// <summary>How many bookings a file has at the most.</summary>
    public const int Most = 50_000;

    private const int InOneRun = 1_000;

    private static readonly string[] Head =
    [
        "Start",
        "End",
        "Time zone",
        "Starts (UTC)",
        "Page",
        "Hosts",
        "Guest",
        "Email",
        "People",
        "Booked by",
        "Their email",
        "Booked at",
        "Stands",
        "Flags",
    ];

    /// <summary>In the order of the list; times are on the clock of the page.</summary>
    public async Task<string> TableAsync(WhichBookings which, string? search, CancellationToken ct)
    {
        var (rows, after) = (new List<BookingRow>(), (string?)null);
        do
        {
            var run = await lists.ReadAsync(which, search, new ListPlace(after, null, InOneRun), ct);
            rows.AddRange(run.Rows);
            after = run.After;
        } while (after is not null && rows.Count < Most);
        return TableWriting.Write(rows.Take(Most).Select(CellsOf).Prepend(Head));
    }

    private static IEnumerable<string> CellsOf(BookingRow row) =>
        [
            On(row.Start, row.Zone),
            On(row.End, row.Zone),
            row.Zone,
            // The hour that comes twice as clocks go back is one by this.
            row.Start.ToString("uuuu-MM-dd'T'HH:mm:ss'Z'", CultureInfo.InvariantCulture),
            row.Page,
            string.Join(", ", row.Hosts),
            row.GuestName,
            row.GuestEmail,
            row.Party.ToString(CultureInfo.InvariantCulture),
            row.BookerName,
            row.BookerEmail,
            On(row.BookedAt, row.Zone),
            row.CancelledAt is not null ? "cancelled"
            : row.WaitsUntil is not null ? "asked for"
            : "stands",
            string.Join("; ", row.Flags),
        ];

    private static string On(Instant at, string zone) =>
        at.InZone(DateTimeZoneProviders.Tzdb[zone])
            .LocalDateTime.ToString("uuuu-MM-dd HH:mm", CultureInfo.InvariantCulture);
}
