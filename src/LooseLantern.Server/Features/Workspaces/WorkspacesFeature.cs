namespace LooseLantern.Server.Features.Workspaces;

/// <summary>What the workspace’s own settings needs.</summary>
public static class WorkspacesFeature
{
    public static IServiceCollection AddWorkspaces(this IServiceCollection services) =>
        services.AddScoped<WorkspaceEditing>();
}
