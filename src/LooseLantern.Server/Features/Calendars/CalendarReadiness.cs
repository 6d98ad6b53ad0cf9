using LooseLantern.Core;
using LooseLantern.Server.Data;
using LooseLantern.Server.Features.Calendars.Looking;
using LooseLantern.Server.Tenancy;
using NodaTime;

namespace LooseLantern.Server.Features.Calendars;

/// <summary>
/// Sees to it, before somebody takes time and never while locks are held, that the calendars of whose time it is are
/// known: looked at lately, and read as far as is asked. Nearly always they are, which is found out by one question.
/// </summary>
public sealed class CalendarReadiness(
    LanternDb db,
    Tenant tenant,
    CalendarLooking looking,
    CalendarUnrolling unrolling,
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
        await trip.RunAsync(ct);
        if (!isLacking.Row)
            return;
        await looking.FreshenAsync(hostIds, ct);
        await unrolling.CoverAsync(hostIds, range, ct);
    }
}
