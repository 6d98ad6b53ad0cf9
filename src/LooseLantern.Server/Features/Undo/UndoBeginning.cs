using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using NodaTime.Text;

namespace LooseLantern.Server.Features.Undo;

/// <summary>How many presses are in one: what changes many things at once can be taken back for longer.</summary>
public enum UndoSpan
{
    /// <summary>The workspace's own minutes.</summary>
    One,

    /// <summary>Ten minutes, or the workspace's own where those are more; not at all where they are none.</summary>
    Several,
}

/// <summary>Begins what can be taken back.</summary>
public sealed class UndoBeginning(LanternDb db, Actor actor, IClock clock)
{
    public const int MinutesOfSeveral = 10;

    /// <summary>Bears until when the answered request can be taken back.</summary>
    public const string Header = "X-Lantern-Undo-Until";

    public async Task BeginAsync(UndoSpan span, CancellationToken ct)
    {
        var workspace = await db.Workspaces.Select(row => new { row.Id, row.UndoMinutes }).SingleAsync(ct);
        if (actor.Person is not { } person || workspace.UndoMinutes == 0)
            return;
        var minutes =
            span == UndoSpan.Several ? Math.Max(MinutesOfSeveral, workspace.UndoMinutes) : workspace.UndoMinutes;
        var now = clock.GetCurrentInstant();
        db.Begin(
            new UndoAct
            {
                WorkspaceId = workspace.Id,
                PersonId = person.Id,
                At = now,
                Until = now + Duration.FromMinutes(minutes),
            }
        );
    }

    /// <summary>Until when what was begun can be taken back; null where it changed nothing.</summary>
    public async Task<Instant?> UntilAsync(CancellationToken ct) =>
        db.Act is { } act && await db.UndoRows.AnyAsync(row => row.ActId == act.Id, ct) ? act.Until : null;
}

public static class UndoFilter
{
    /// <summary>
    /// What the route does to bookings, links and pages can be taken back as long as its mail waits; until when is said
    /// by a header.
    /// </summary>
    public static RouteHandlerBuilder CanBeUndone(this RouteHandlerBuilder route, UndoSpan span = UndoSpan.One) =>
        route.AddEndpointFilter(
            async (context, next) =>
            {
                var http = context.HttpContext;
                var beginning = http.RequestServices.GetRequiredService<UndoBeginning>();
                await beginning.BeginAsync(span, http.RequestAborted);
                var result = await next(context);
                if (await beginning.UntilAsync(http.RequestAborted) is { } until)
                    http.Response.Headers[UndoBeginning.Header] = InstantPattern.ExtendedIso.Format(until);
                return result;
            }
        );
}
