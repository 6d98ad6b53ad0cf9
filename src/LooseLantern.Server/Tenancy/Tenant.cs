namespace LooseLantern.Server.Tenancy;

/// <summary>
/// A row that belongs to one workspace. Queries see only rows of the workspace at hand, and only those can be saved.
/// </summary>
public interface IBelongsToWorkspace
{
    Guid WorkspaceId { get; }
}

/// <summary>
/// The workspace of the request at hand: of who is signed in, or of the desk, page or link that a guest opened.
/// </summary>
public sealed class Tenant
{
    /// <summary>Null until something has told which workspace it is; then no workspace's rows are seen.</summary>
    public Guid? WorkspaceId { get; private set; }

    /// <exception cref="InvalidOperationException">When the request is in another workspace already.</exception>
    public void Enter(Guid workspaceId)
    {
        if (WorkspaceId is { } current && current != workspaceId)
            throw new InvalidOperationException("One request never works in two workspaces.");
        WorkspaceId = workspaceId;
    }
}
