namespace LooseLantern.Server.Features.Flagged;

/// <summary>What calling off flagged bookings needs.</summary>
public static class FlaggedFeature
{
    public static IServiceCollection AddFlagged(this IServiceCollection services) =>
        services.AddScoped<FlaggedFinding>().AddScoped<CallOffWriting>();
}
