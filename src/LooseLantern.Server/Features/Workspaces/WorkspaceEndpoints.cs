using FluentValidation;
using LooseLantern.Server.Data;
using LooseLantern.Server.Features.Hours;
using LooseLantern.Server.Features.SignIn;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;

namespace LooseLantern.Server.Features.Workspaces;

/// <param name="Zone">IANA id of the zone its new pages and boards start from.</param>
/// <param name="ClosesAfterHours">For how many hours the last known state of a calendar counts while it can't be reached; null to leave that as it is.</param>
public sealed record WorkspaceForm(string Name, string Zone, int? ClosesAfterHours = null);

public static class WorkspaceEndpoints
{
    private static readonly Rules Checks = new();

    public static void MapWorkspace(this IEndpointRouteBuilder api) =>
        api.MapPut("/workspace", async (WorkspaceForm form, LanternDb db, CancellationToken ct) =>
            {
                Checks.Check(form);
                var workspace = await db.Workspaces.SingleAsync(ct);
                (workspace.Name, workspace.Zone) = (form.Name.Trim(), form.Zone);
                workspace.ClosesAfterHours = form.ClosesAfterHours ?? workspace.ClosesAfterHours;
                await db.SaveChangesAsync(ct);
                return form;
            })
            .WithName("changeWorkspace").WithTags("Workspace").RequireAuthorization(Roles.Owner).ProducesValidationProblem();

    private sealed class Rules : AbstractValidator<WorkspaceForm>
    {
        public Rules()
        {
            RuleFor(form => form.Name).Must(Words.FitOneLine).WithMessage("Name your organisation, in up to 120 characters.");
            RuleFor(form => form.ClosesAfterHours).InclusiveBetween(1, 30 * 24).WithMessage("Choose 1 to 720 hours.");
            RuleFor(form => form.Zone).Must(Zones.IsKnown).WithMessage("Choose a time zone from the list.");
        }
    }
}
