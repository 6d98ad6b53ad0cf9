using LooseLantern.Server.Hosting;

namespace LooseLantern.Server.Features.Live;

/// <summary>What telling screens of changes needs, and what it does beside requests.</summary>
public static class LiveFeature
{
    public static IServiceCollection AddLive(this IServiceCollection services)
    {
        services.AddSingleton<LiveChanges>();
        // What only describes the program serves nobody.
        return DesignTime.IsBuilding
            ? services
            : services.AddHostedService(provider => provider.GetRequiredService<LiveChanges>());
    }
}
