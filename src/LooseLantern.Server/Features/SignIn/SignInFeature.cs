namespace LooseLantern.Server.Features.SignIn;

/// <summary>What signing in needs.</summary>
public static class SignInFeature
{
    public static IServiceCollection AddSignIn(this IServiceCollection services) =>
        services
            .AddSingleton<PasswordWork>()
            .AddSingleton<KnownBrowser>()
            .AddSingleton<ResetQueue>()
            .AddHostedService(provider => provider.GetRequiredService<ResetQueue>())
            .AddScoped<SignInTries>()
            .AddScoped<SignInSessions>()
            .AddScoped<SecondFactor>()
            .AddScoped<PasswordResetting>();
}
