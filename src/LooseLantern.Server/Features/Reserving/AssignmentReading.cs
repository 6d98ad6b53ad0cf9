using LooseLantern.Core.LineUps;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Openings;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using NpgsqlTypes;

namespace LooseLantern.Server.Features.Reserving;

/// <summary>For whom hosts are chosen.</summary>
/// <param name="Moving">The session that the guest's booking is moved out of; null for a new booking.</param>
public sealed record Meeting(string GuestEmail, Session? Moving = null);

/// <summary>
/// Loads what choosing hosts for a booking needs to know besides who is free, in a fixed number of queries.
/// </summary>
public sealed class AssignmentReading(LanternDb db)
{
    /// <param name="page">With its seats loaded; it need not be saved.</param>
    public async Task<AssignmentFacts> FactsAsync(
        Page page,
        Instant start,
        Meeting meeting,
        Instant now,
        CancellationToken ct
    )
    {
        var ids = page.Seats.SelectMany(seat => seat.Hosts).Select(seat => seat.HostId).Distinct().ToList();
        var weights = await db
            .Hosts.AsNoTracking()
            .Where(host => ids.Contains(host.Id))
            .ToDictionaryAsync(host => host.Id, host => host.Weight, ct);
        var near = new NpgsqlRange<Instant>(
            start - Assignment.LoadReach,
            lowerBoundIsInclusive: true,
            start + Assignment.LoadReach,
            upperBoundIsInclusive: true
        );
        var moving = meeting.Moving?.Id;
        var ofPage = db.Sessions.AsNoTracking().Where(session => session.PageId == page.Id);
        var sessions = (
            await ofPage
                .Where(session => session.Time.Overlaps(near) && session.Id != moving)
                .SelectMany(session =>
                    session
                        .Hosts.Where(host => ids.Contains(host.HostId))
                        .Select(host => new { host.HostId, session.Time })
                )
                .ToListAsync(ct)
        ).ToLookup(row => row.HostId, row => row.Time.LowerBound);
        var last = await ofPage
            .SelectMany(session => session.Hosts)
            .Where(host => ids.Contains(host.HostId))
            .GroupBy(host => host.HostId)
            .Select(group => new { Host = group.Key, At = group.Max(host => host.AssignedAt) })
            .ToDictionaryAsync(row => row.Host, row => row.At, ct);

        return new AssignmentFacts(
            now,
            [
                .. page
                    .Seats.OrderBy(seat => seat.Position)
                    .Select(seat => new SeatFacts(
                        seat.Fill,
                        seat.Hosts.ToDictionary(host => OpeningsInputs.Id(host.HostId), host => host.Since)
                    )),
            ],
            ids.ToDictionary(OpeningsInputs.Id, host => new HostLoad(
                weights[host],
                [.. sessions[host]],
                last.TryGetValue(host, out var at) ? at : null
            )),
            page.KeepsHosts ? await KeptAsync(ofPage, meeting, ct) : new HashSet<string>()
        );
    }

    private static async Task<IReadOnlySet<string>> KeptAsync(
        IQueryable<Session> ofPage,
        Meeting meeting,
        CancellationToken ct
    ) =>
        meeting.Moving is { } session
            ? session.Hosts.Select(host => OpeningsInputs.Id(host.HostId)).ToHashSet()
            : await LastMetAsync(ofPage, meeting.GuestEmail, ct);

    /// <summary>
    /// The hosts of the latest session of the page by whoever books, for themselves or another, told by the email.
    /// </summary>
    private static async Task<IReadOnlySet<string>> LastMetAsync(
        IQueryable<Session> ofPage,
        string email,
        CancellationToken ct
    )
    {
        // Who has no address is known by nobody's.
        if (email.Length == 0)
            return new HashSet<string>();
        var latest = await ofPage
            .Where(session =>
                session.Bookings.Any(booking =>
                    EF.Functions.ILike(booking.GuestEmail, EscapeLike(email), "\\")
                    || EF.Functions.ILike(booking.BookerEmail, EscapeLike(email), "\\")
                )
            )
            .OrderByDescending(session => session.Time.LowerBound)
            .Select(session => session.Hosts.Select(host => host.HostId).ToList())
            .FirstOrDefaultAsync(ct);
        return (latest ?? []).Select(OpeningsInputs.Id).ToHashSet();
    }

    private static string EscapeLike(string text) => text.Replace("\\", "\\\\").Replace("%", "\\%").Replace("_", "\\_");
}
