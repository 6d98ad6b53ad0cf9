namespace LooseLantern.Server.Features.Board;

/// <summary>What the board needs.</summary>
public static class BoardFeature
{
    public static IServiceCollection AddBoard(this IServiceCollection services) =>
        services.AddScoped<BoardDrawing>().AddScoped<BoardBlocks>();
}
