namespace LooseLantern.Server.Features.Openings;

/// <summary>What openings needs.</summary>
public static class OpeningsFeature
{
    public static IServiceCollection AddOpenings(this IServiceCollection services) =>
        services.AddScoped<OpeningsInputs>().AddScoped<HostReadiness>().AddSingleton<KeptHours>();
}
