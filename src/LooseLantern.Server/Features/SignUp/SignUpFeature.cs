using LooseLantern.Server.Hosting;

namespace LooseLantern.Server.Features.SignUp;

/// <summary>What making a workspace needs.</summary>
public static class SignUpFeature
{
    public static IServiceCollection AddSignUp(this IServiceCollection services)
    {
        services.AddScoped<SigningUp>().AddScoped<SignUpLinks>().AddScoped<SignUpMail>();
        return DesignTime.IsBuilding ? services : services.AddHostedService<SignUpSender>();
    }
}
