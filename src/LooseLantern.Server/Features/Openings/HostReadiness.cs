using LooseLantern.Core;
using LooseLantern.Server.Data;
using LooseLantern.Server.Features.Calendars;
using LooseLantern.Server.Features.Calendars.Looking;
using LooseLantern.Server.Tenancy;
using NodaTime;

namespace LooseLantern.Server.Features.Openings;

/// <summary>
/// Sees to it, before somebody takes time and never while locks are held, that what is asked under the locks is at
/// hand: the calendars of whose time it is looked at lately, and read as far as is asked, and their hours kept in
/// memory. Nearly always all is, which is found out by one question.
/// </summary>
public sealed class HostReadiness(
    LanternDb db,
    Tenant tenant,
    CalendarLooking looking,
    CalendarUnrolling unrolling,
    KeptHours keptHours,
    IClock clock
)
{
    private ReadinessAsked? _ahead;

    /// <summary>
    /// Asks, in a round trip that the caller makes anyway, what <see cref="PrepareAsync"/> would ask of the same.
    /// </summary>
    public void AskAhead(RoundTrip trip, Guid workspace, IReadOnlyCollection<Guid> hostIds, Span range) =>
        _ahead = Ask(trip, workspace, hostIds, range);

    public async Task PrepareAsync(IReadOnlyCollection<Guid> hostIds, Span range, CancellationToken ct)
    {
        var asked = _ahead;
        // Once: what is asked later may be otherwise by then.
        _ahead = null;
        if (asked is null || asked.Range != range || !asked.HostIds.SequenceEqual(hostIds))
        {
            var trip = new RoundTrip(db);
            asked = Ask(trip, tenant.WorkspaceId!.Value, hostIds, range);
            await trip.RunAsync(ct);
        }

        await keptHours.OfAsync(db, asked.Hours.Rows, ct);
        if (!asked.IsLacking.Row)
            return;
        await looking.FreshenAsync(hostIds, ct);
        await unrolling.CoverAsync(hostIds, range, ct);
    }

    private sealed record ReadinessAsked(
        IReadOnlyCollection<Guid> HostIds,
        Span Range,
        Asked<bool> IsLacking,
        Asked<(Guid Id, int Version)> Hours
    );

    private ReadinessAsked Ask(RoundTrip trip, Guid workspace, IReadOnlyCollection<Guid> hostIds, Span range) =>
        new(
            hostIds,
            range,
            trip.Ask(
                $"""
                SELECT EXISTS (
                    SELECT 1 FROM calendar_hosts f JOIN calendars c ON c.id = f.calendar_id
                    WHERE f.workspace_id = {workspace} AND f.host_id = ANY({hostIds.ToArray()}) AND (
                        NOT c.read_range @> {range.ToRange()}
                        OR (c.kind = 'Account' AND c.unreachable_since IS NULL AND c.looked_at < {CalendarLooking.Late(
                    clock.GetCurrentInstant()
                )})))
                """,
                row => row.GetBoolean(0)
            ),
            trip.Ask(
                $"""
                SELECT DISTINCT r.id, r.version FROM hosts h JOIN hours r ON r.id = h.hours_id
                WHERE h.workspace_id = {workspace} AND h.id = ANY({hostIds.ToArray()})
                """,
                row => (row.GetGuid(0), row.GetInt32(1))
            )
        );
}
