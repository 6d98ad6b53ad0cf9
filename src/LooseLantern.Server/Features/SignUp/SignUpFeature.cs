namespace LooseLantern.Server.Features.SignUp;

/// <summary>What making a workspace needs.</summary>
public static class SignUpFeature
{
    public static IServiceCollection AddSignUp(this IServiceCollection services) => services.AddScoped<SigningUp>();
}
