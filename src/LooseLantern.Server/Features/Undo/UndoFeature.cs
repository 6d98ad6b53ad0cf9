namespace LooseLantern.Server.Features.Undo;

/// <summary>What taking back needs.</summary>
public static class UndoFeature
{
    public static IServiceCollection AddUndo(this IServiceCollection services, IConfiguration configuration) =>
        services
            .AddSingleton(UndoSettings.Of(configuration))
            .AddScoped<UndoBeginning>()
            .AddScoped<UndoLists>()
            .AddScoped<Undoing>();
}
