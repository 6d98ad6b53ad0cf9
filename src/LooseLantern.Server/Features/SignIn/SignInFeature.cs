namespace LooseLantern.Server.Features.SignIn;

/// <summary>What signing in needs.</summary>
public static class SignInFeature
{
    public static IServiceCollection AddSignIn(this IServiceCollection services) =>
        services.AddScoped<SignInSessions>().AddScoped<SecondFactor>().AddScoped<PasswordResetting>();
}
