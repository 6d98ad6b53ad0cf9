namespace LooseLantern.Server.Features.Supply;

/// <summary>What supply, dark time and relaxations needs.</summary>
public static class SupplyFeature
{
    public static IServiceCollection AddSupply(this IServiceCollection services) =>
        services.AddScoped<SupplyReckoning>().AddScoped<DarkReckoning>().AddScoped<RelaxationReckoning>();
}
