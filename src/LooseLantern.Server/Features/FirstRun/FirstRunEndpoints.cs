using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Features.SignIn;
using LooseLantern.Server.Hosting;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.FirstRun;

/// <summary>What a new workspace is led through, in this order.</summary>
public enum FirstStep
{
    Zone,
    Hours,
    Calendar,
    Page,
}

/// <param name="Done">Whether it was gone through, or its work stands already.</param>
public sealed record FirstStepView(FirstStep Step, bool Done);

/// <param name="Ended">Whether it was put away; it can be taken up again.</param>
public sealed record FirstRunView(bool Ended, IReadOnlyList<FirstStepView> Steps);

/// <summary>
/// The first run. Each step can be left and taken up again; what is done tells itself from what stands.
/// </summary>
public static class FirstRunEndpoints
{
    public static void MapFirstRun(this IEndpointRouteBuilder api)
    {
        var run = api.MapGroup("/first-run").WithTags("First run").RequireAuthorization(Roles.Owner);

        run.MapGet("/", ViewAsync).WithName("getFirstRun");

        run.MapPost("/steps/{step}", async (string step, Actor actor, LanternDb db, CancellationToken ct) =>
            {
                if (!Enum.TryParse<FirstStep>(step, ignoreCase: true, out var known) || !Enum.IsDefined(known))
                    throw Refusal.NotFound("step");
                var workspace = await db.Workspaces.SingleAsync(ct);
                if (!workspace.FirstSteps.Contains(known.ToString()))
                    workspace.FirstSteps = [.. workspace.FirstSteps, known.ToString()];
                await db.SaveChangesAsync(ct);
                return await ViewAsync(actor, db, ct);
            })
            .WithName("finishFirstStep")
            .ProducesProblem(404);

        run.MapPost("/end", async Task<NoContent> (LanternDb db, IClock clock, CancellationToken ct) =>
            {
                (await db.Workspaces.SingleAsync(ct)).FirstRunEndedAt = clock.GetCurrentInstant();
                await db.SaveChangesAsync(ct);
                return TypedResults.NoContent();
            })
            .WithName("endFirstRun");
    }

    private static async Task<FirstRunView> ViewAsync(Actor actor, LanternDb db, CancellationToken ct)
    {
        var workspace = await db.Workspaces.AsNoTracking().SingleAsync(ct);
        var hasCalendar = await db.Calendars.AnyAsync(
            calendar => calendar.HostId == actor.Required.HostId && calendar.Kind != CalendarKind.BuiltIn,
            ct
        );
        var hasPage = await db.DeskPages.AnyAsync(page => page.State == PageState.Published, ct);
        return new FirstRunView(
            workspace.FirstRunEndedAt is not null,
            [
                .. Enum.GetValues<FirstStep>()
                    .Select(step => new FirstStepView(
                        step,
                        workspace.FirstSteps.Contains(step.ToString())
                            || (step == FirstStep.Calendar && hasCalendar)
                            || (step == FirstStep.Page && hasPage)
                    )),
            ]
        );
    }
}
