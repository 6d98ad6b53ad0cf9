namespace LooseLantern.Server.Features.ActingFor;

/// <summary>What who acts for whom needs.</summary>
public static class ActingForFeature
{
    public static IServiceCollection AddActingFor(this IServiceCollection services) =>
        services.AddScoped<Actor>().AddScoped<Allowances>();
}
