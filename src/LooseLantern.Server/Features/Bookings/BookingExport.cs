using System.Globalization;
using LooseLantern.Formats.ICalendar.Writing;
using LooseLantern.Formats.Tables;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Calendars.Writing;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Bookings;

/// <summary>Bookings of a list for other programs, in UTF-8.</summary>
public sealed class BookingExport(BookingLists lists, LanternDb db, SessionTexts texts)
{
    /// <summary>How many bookings a file has at the most.</summary>
    public const int Most = 50_000;

    /// <summary>The same of a calendar file, since calendars that read it take minutes for more.</summary>
    public const int MostEvents = 5_000;

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

    /// <summary>In the order of the list; times are on the clock of the page. No cell is taken for a formula.</summary>
    public async Task<string> TableAsync(BookingFilter filter, CancellationToken ct) =>
        TableWriting.Write((await RowsAsync(filter, Most, ct)).Select(CellsOf).Prepend(Head));

    /// <summary>iCalendar (RFC 5545), one event a session, whoever of it was chosen.</summary>
    /// <exception cref="Refusal">400 for cancelled bookings, which take nobody's time.</exception>
    public async Task<string> CalendarAsync(BookingFilter filter, CancellationToken ct)
    {
        if (filter.When == WhichBookings.Cancelled)
            throw Refusal.Invalid("when", "calendar-of-cancelled");
        var workspace = await db.Workspaces.Select(row => row.Name).SingleAsync(ct);
        var sessions = (await RowsAsync(filter, MostEvents, ct)).Select(row => row.SessionId).Distinct().ToList();
        return SessionFile.WriteFeed($"Bookings of {workspace}", await texts.SessionsAsync(sessions, ct));
    }

    private async Task<List<BookingRow>> RowsAsync(BookingFilter filter, int most, CancellationToken ct)
    {
        var (rows, after) = (new List<BookingRow>(), (string?)null);
        do
        {
            var run = await lists.ReadAsync(filter, new ListPlace(after, null, InOneRun), ct);
            rows.AddRange(run.Rows);
            after = run.After;
        } while (after is not null && rows.Count < most);
        return [.. rows.Take(most)];
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
            : row.Outcome == BookingOutcome.Happened ? "happened"
            : row.Outcome == BookingOutcome.Missed ? "missed"
            : "stands",
            string.Join("; ", row.Flags),
        ];

    private static string On(Instant at, string zone) =>
        at.InZone(DateTimeZoneProviders.Tzdb[zone])
            .LocalDateTime.ToString("uuuu-MM-dd HH:mm", CultureInfo.InvariantCulture);
}
