namespace LooseLantern.Server.Features.Letters;

/// <summary>What letters to guests need.</summary>
public static class LettersFeature
{
    public static IServiceCollection AddLetters(this IServiceCollection services) =>
        services
            .AddScoped<LetterEditing>()
            .AddScoped<LetterOffering>()
            .AddScoped<LetterWriting>()
            .AddScoped<LetterSending>();
}
