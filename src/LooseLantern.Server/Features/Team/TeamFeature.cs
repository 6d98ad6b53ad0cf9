namespace LooseLantern.Server.Features.Team;

/// <summary>What the team and its invitations needs.</summary>
public static class TeamFeature
{
    public static IServiceCollection AddTeam(this IServiceCollection services) =>
        services
            .AddScoped<HostEditing>()
            .AddScoped<PeopleEditing>()
            .AddScoped<Inviting>()
            .AddScoped<Leaving>()
            .AddScoped<TeamBuilding>();
}
