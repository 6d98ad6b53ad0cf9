namespace LooseLantern.Server.Features.SignIn;

/// <summary>What signing in needs.</summary>
public static class SignInFeature
{
    public static IServiceCollection AddSignIn(this IServiceCollection services) =>
        services
            .AddSingleton<PasswordWork>()
            .AddSingleton<KnownBrowser>()
            .AddSingleton<LinkQueue>()
            .AddHostedService(provider => provider.GetRequiredService<LinkQueue>())
            .AddScoped<SignInTries>()
            .AddScoped<SignInSessions>()
            .AddScoped<SecondFactor>()
            .AddScoped<AddressProving>()
            .AddScoped<PasswordResetting>();
}
