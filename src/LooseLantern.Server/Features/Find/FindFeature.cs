namespace LooseLantern.Server.Features.Find;

/// <summary>What finding anything by words needs.</summary>
public static class FindFeature
{
    public static IServiceCollection AddFind(this IServiceCollection services) => services.AddScoped<FindAnswers>();
}
