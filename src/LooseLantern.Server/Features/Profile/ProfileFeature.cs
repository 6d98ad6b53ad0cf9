namespace LooseLantern.Server.Features.Profile;

/// <summary>What people’s own settings needs.</summary>
public static class ProfileFeature
{
    public static IServiceCollection AddProfile(this IServiceCollection services) => services.AddScoped<Portraits>();
}
