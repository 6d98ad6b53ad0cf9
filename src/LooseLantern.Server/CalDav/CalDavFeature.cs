namespace LooseLantern.Server.CalDav;

/// <summary>What calendar servers needs.</summary>
public static class CalDavFeature
{
    public static IServiceCollection AddCalDav(this IServiceCollection services) =>
        services.AddSingleton<CalDavDiscovery>();
}
