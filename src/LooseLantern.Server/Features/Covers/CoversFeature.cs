namespace LooseLantern.Server.Features.Covers;

/// <summary>What finding cover for hosts who can't come needs.</summary>
public static class CoversFeature
{
    public static IServiceCollection AddCovers(this IServiceCollection services) =>
        services
            .AddScoped<CoverFacts>()
            .AddScoped<CoverPlanning>()
            .AddScoped<CoverOffering>()
            .AddScoped<CoverLetters>()
            .AddScoped<CoverPost>()
            .AddScoped<CoverChecking>()
            .AddScoped<CoverCommitting>();
}
