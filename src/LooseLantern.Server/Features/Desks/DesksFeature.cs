namespace LooseLantern.Server.Features.Desks;

/// <summary>What desks and pictures needs.</summary>
public static class DesksFeature
{
    public static IServiceCollection AddDesks(this IServiceCollection services) =>
        services.AddScoped<DeskMaking>().AddScoped<Pictures>().AddScoped<DeskEditing>().AddScoped<HostNameProving>();
}
