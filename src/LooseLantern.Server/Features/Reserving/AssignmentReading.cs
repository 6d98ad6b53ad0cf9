using LooseLantern.Core.LineUps;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Openings;
using NodaTime;
using NpgsqlTypes;

namespace LooseLantern.Server.Features.Reserving;

/// <summary>For whom hosts are chosen.</summary>
/// <param name="Moving">The session that the guest's booking is moved out of; null for a new booking.</param>
public sealed record Meeting(string GuestEmail, Session? Moving = null);

/// <summary>
/// What choosing hosts for bookings needs to know besides who is free, asked in a round trip that others may share: the
/// same number of statements for one start and for many.
/// </summary>
public sealed class AssignmentAsked
{
    private readonly Page _page;
    private readonly Meeting _meeting;
    private readonly Asked<(Guid Id, int Weight, Instant? Last)>? _hosts;
    private readonly Asked<(Guid Host, Instant Start, Instant End)>? _sessions;
    private readonly Asked<Guid>? _lastMet;

    /// <param name="page">With its seats; it need not be saved.</param>
    /// <param name="starts">That hosts may be chosen for.</param>
    /// <param name="isShown">Whether somebody is to read whose turn it is, and not only who is chosen.</param>
    public AssignmentAsked(
        RoundTrip trip,
        Page page,
        IReadOnlyCollection<Instant> starts,
        Meeting meeting,
        bool isShown = false
    )
    {
        (_page, _meeting) = (page, meeting);
        // Where nobody is to be chosen nothing is asked.
        if (!isShown && page.Seats.TrueForAll(seat => seat.Hosts.Count == 1))
            return;
        var hosts = page.Seats.SelectMany(seat => seat.Hosts).Select(seat => seat.HostId).Distinct().ToArray();
        _hosts = trip.Ask(
            $"""
            SELECT h.id, h.weight,
                -- From the latest back: OFFSET keeps all sessions of the page from being gathered first.
                (SELECT i.assigned_at FROM session_hosts i WHERE i.host_id = h.id AND EXISTS (
                        SELECT 1 FROM sessions s WHERE s.id = i.session_id AND s.page_id = {page.Id} AND s.cancelled_at IS NULL OFFSET 0)
                    ORDER BY i.assigned_at DESC LIMIT 1)
            FROM hosts h WHERE h.workspace_id = {page.WorkspaceId} AND h.id = ANY({hosts})
            """,
            row => (row.GetGuid(0), row.GetInt32(1), row.IsDBNull(2) ? (Instant?)null : row.GetFieldValue<Instant>(2))
        );
        if (starts.Count > 0)
        {
            var near = new NpgsqlRange<Instant>(
                starts.Min() - Assignment.LoadReach,
                lowerBoundIsInclusive: true,
                starts.Max() + Assignment.LoadReach,
                upperBoundIsInclusive: true
            );
            _sessions = trip.Ask(
                $"""
                SELECT i.host_id, lower(s.time), upper(s.time) FROM sessions s JOIN session_hosts i ON i.session_id = s.id
                WHERE s.workspace_id = {page.WorkspaceId} AND s.page_id = {page.Id} AND s.time && {near}
                    AND s.cancelled_at IS NULL AND s.id <> {meeting.Moving?.Id
                    ?? Guid.Empty} AND i.host_id = ANY({hosts})
                """,
                row => (row.GetGuid(0), row.GetFieldValue<Instant>(1), row.GetFieldValue<Instant>(2))
            );
        }

        // Who has no address is known by nobody's.
        if (page.KeepsHosts && meeting is { Moving: null, GuestEmail.Length: > 0 })
        {
            var email = meeting.GuestEmail.ToUpperInvariant();
            _lastMet = trip.Ask(
                $"""
                SELECT host_id FROM session_hosts WHERE session_id = (
                    SELECT s.id FROM bookings b JOIN sessions s ON s.id = b.session_id
                    WHERE b.workspace_id = {page.WorkspaceId} AND s.page_id = {page.Id} AND b.cancelled_at IS NULL AND s.cancelled_at IS NULL
                        AND (upper(b.guest_email) = {email} OR (b.booker_email <> '' AND upper(b.booker_email) = {email}))
                    ORDER BY lower(s.time) DESC LIMIT 1)
                """,
                row => row.GetGuid(0)
            );
        }
    }

    /// <summary>What is so for one of the starts, once the round trip was made.</summary>
    /// <param name="now">When it is booked.</param>
    public AssignmentFacts Facts(Instant start, Instant now)
    {
        var (from, to) = (start - Assignment.LoadReach, start + Assignment.LoadReach);
        var sessions = (_sessions?.Rows ?? [])
            .Where(row => row.Start <= to && row.End > from)
            .ToLookup(row => row.Host, row => row.Start);
        return new AssignmentFacts(
            now,
            [
                .. _page
                    .Seats.OrderBy(seat => seat.Position)
                    .Select(seat => new SeatFacts(
                        seat.Fill,
                        seat.Hosts.ToDictionary(host => OpeningsInputs.Id(host.HostId), host => host.Since)
                    )),
            ],
            (_hosts?.Rows ?? []).ToDictionary(
                host => OpeningsInputs.Id(host.Id),
                host => new HostLoad(host.Weight, [.. sessions[host.Id]], host.Last)
            ),
            Kept()
        );
    }

    /// <summary>
    /// The hosts of the session that is moved, or of the latest of the page by whoever books, for themselves or
    /// another, told by the email; nobody where the page does not keep hosts.
    /// </summary>
    private HashSet<string> Kept() =>
        !_page.KeepsHosts ? []
        : _meeting.Moving is { } session ? [.. session.Hosts.Select(host => OpeningsInputs.Id(host.HostId))]
        : [.. (_lastMet?.Rows ?? []).Select(OpeningsInputs.Id)];
}
