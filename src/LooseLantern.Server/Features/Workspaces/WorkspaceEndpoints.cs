using FluentValidation;
using LooseLantern.Server.Data;
using LooseLantern.Server.Features.Hours;
using LooseLantern.Server.Features.SignIn;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;

namespace LooseLantern.Server.Features.Workspaces;

/// <param name="Zone">IANA id of the zone its new pages and boards start from.</param>
/// <param name="Kinds">What sorts of appointments pages are, by name; null to leave that as it is.</param>
/// <param name="ClosesAfterHours">For how many hours the last known state of a calendar counts while it can't be reached; null to leave that as it is.</param>
public sealed record WorkspaceForm(string Name, string Zone, int? ClosesAfterHours = null, IReadOnlyList<string>? Kinds = null);

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
                if (form.Kinds is { } kinds) workspace.Kinds = [.. kinds.Select(kind => kind.Trim())];
                await db.SaveChangesAsync(ct);
                return form with { Kinds = workspace.Kinds };
            })
            .WithName("changeWorkspace").WithTags("Workspace").RequireAuthorization(Roles.Owner).ProducesValidationProblem();

    private sealed class Rules : AbstractValidator<WorkspaceForm>
    {
        public Rules()
        {
            RuleFor(form => form.Name).Must(Words.FitOneLine).WithMessage("Name your organisation, in up to 120 characters.");
            RuleFor(form => form.ClosesAfterHours).InclusiveBetween(1, 30 * 24).WithMessage("Choose 1 to 720 hours.");
            RuleFor(form => form.Kinds).Must(kinds => kinds is null || (kinds.Count <= 50 && kinds.All(Words.FitOneLine) && kinds.Select(kind => kind.Trim()).Distinct(StringComparer.OrdinalIgnoreCase).Count() == kinds.Count))
                .WithMessage("Name up to 50 kinds, each once and in up to 120 characters.");
            RuleFor(form => form.Zone).Must(Zones.IsKnown).WithMessage("Choose a time zone from the list.");
        }
    }
}
