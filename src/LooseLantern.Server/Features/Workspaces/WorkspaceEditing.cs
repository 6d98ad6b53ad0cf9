using FluentValidation;
using LooseLantern.Server.Data;
using LooseLantern.Server.Features.Hours;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;

namespace LooseLantern.Server.Features.Workspaces;

/// <summary>Changes what holds for the whole workspace.</summary>
public sealed class WorkspaceEditing(LanternDb db)
{
    private static readonly Rules Checks = new();

    /// <returns>The form with what it left as it was.</returns>
    public async Task<WorkspaceForm> ChangeAsync(WorkspaceForm form, CancellationToken ct)
    {
        Checks.Check(form);
        var workspace = await db.Workspaces.SingleAsync(ct);
        (workspace.Name, workspace.Zone) = (form.Name.Trim(), form.Zone);
        workspace.ClosesAfterHours = form.ClosesAfterHours ?? workspace.ClosesAfterHours;
        workspace.MostOpen = form.MostOpen ?? workspace.MostOpen;
        workspace.UndoMinutes = form.UndoMinutes ?? workspace.UndoMinutes;
        if (form.Kinds is { } kinds)
            workspace.Kinds = [.. kinds.Select(kind => kind.Trim())];
        await db.SaveChangesAsync(ct);
        return form with { Kinds = workspace.Kinds };
    }

    private sealed class Rules : AbstractValidator<WorkspaceForm>
    {
        public Rules()
        {
            RuleFor(form => form.Name).Must(Words.FitOneLine).WithMend("organisation");
            RuleFor(form => form.ClosesAfterHours).InclusiveBetween(1, 30 * 24).WithMend("closes-after");
            RuleFor(form => form.MostOpen).InclusiveBetween(1, 1000).WithMend("open-bookings-everywhere");
            RuleFor(form => form.UndoMinutes).InclusiveBetween(0, 10).WithMend("undo-minutes");
            RuleFor(form => form.Kinds)
                .Must(kinds =>
                    kinds is null
                    || (
                        kinds.Count <= 50
                        && kinds.All(Words.FitOneLine)
                        && kinds.Select(kind => kind.Trim()).Distinct(StringComparer.OrdinalIgnoreCase).Count()
                            == kinds.Count
                    )
                )
                .WithMend("kinds");
            RuleFor(form => form.Zone).Must(Zones.IsKnown).WithMend("zone");
        }
    }
}
