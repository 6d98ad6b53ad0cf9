namespace LooseLantern.Server.Features.Hours;

/// <summary>What hours needs.</summary>
public static class HoursFeature
{
    public static IServiceCollection AddHours(this IServiceCollection services) =>
        services.AddScoped<HoursEditing>().AddScoped<HoursEffects>().AddScoped<HoursFiles>();
}
