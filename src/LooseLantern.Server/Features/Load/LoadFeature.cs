namespace LooseLantern.Server.Features.Load;

/// <summary>What hosts’ load needs.</summary>
public static class LoadFeature
{
    public static IServiceCollection AddLoad(this IServiceCollection services) => services.AddScoped<LoadReckoning>();
}
