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
    public async Task PrepareAsync(IReadOnlyCollection<Guid> hostIds, Span range, CancellationToken ct)
    {
        var trip = new RoundTrip(db);
        var isLacking = trip.Ask(
            $"""
            SELECT EXISTS (
                SELECT 1 FROM calendar_hosts f JOIN calendars c ON c.id = f.calendar_id
                WHERE f.workspace_id = {tenant.WorkspaceId!.Value} AND f.host_id = ANY({hostIds.ToArray()}) AND (
                    NOT c.read_range @> {range.ToRange()}
                    OR (c.kind = 'Account' AND c.unreachable_since IS NULL AND c.looked_at < {CalendarLooking.Late(
                clock.GetCurrentInstant()
            )})))
            """,
            row => row.GetBoolean(0)
        );
        var hours = trip.Ask(
            $"""
            SELECT DISTINCT r.id, r.version FROM hosts h JOIN hours r ON r.id = h.hours_id
            WHERE h.workspace_id = {tenant.WorkspaceId!.Value} AND h.id = ANY({hostIds.ToArray()})
            """,
            row => (row.GetGuid(0), row.GetInt32(1))
        );
        await trip.RunAsync(ct);
        await keptHours.OfAsync(db, hours.Rows, ct);
        if (!isLacking.Row)
            return;
        await looking.FreshenAsync(hostIds, ct);
        await unrolling.CoverAsync(hostIds, range, ct);
    }
}
