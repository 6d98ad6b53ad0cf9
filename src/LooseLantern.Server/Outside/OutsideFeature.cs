namespace LooseLantern.Server.Outside;

/// <summary>What asking other servers needs.</summary>
public static class OutsideFeature
{
    public static IServiceCollection AddOutside(this IServiceCollection services) =>
        services.AddSingleton<InsideAddresses>().AddSingleton<OutsideHttp>().AddSingleton<ServiceRecords>();
}
