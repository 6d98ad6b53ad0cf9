using LooseLantern.Server.Features.SignIn;

namespace LooseLantern.Server.Features.Workspaces;

/// <param name="Zone">IANA id of the zone its new pages and boards start from.</param>
/// <param name="Kinds">What sorts of appointments pages are, by name; null to leave that as it is.</param>
/// <param name="ClosesAfterHours">For how many hours the last known state of a calendar counts while it can't be
/// reached; null to leave that as it is.</param>
/// <param name="MostOpen">How many bookings to come one guest may have on all pages; null to leave that as it
/// is.</param>
/// <param name="UndoMinutes">For how many minutes mail of what the team does waits, and that can be taken back; 0 for
/// not at all, null to leave that as it is.</param>
public sealed record WorkspaceForm(
    string Name,
    string Zone,
    int? ClosesAfterHours = null,
    IReadOnlyList<string>? Kinds = null,
    int? MostOpen = null,
    int? UndoMinutes = null
);

public static class WorkspaceEndpoints
{
    public static void MapWorkspace(this IEndpointRouteBuilder api) =>
        api.MapPut("/workspace", async (WorkspaceForm form, WorkspaceEditing editing, CancellationToken ct) =>
                await editing.ChangeAsync(form, ct)
            )
            .WithName("changeWorkspace")
            .WithTags("Workspace")
            .RequireAuthorization(Roles.Owner)
            .ProducesValidationProblem();
}
