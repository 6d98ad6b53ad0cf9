using System.Text.RegularExpressions;

namespace LooseLantern.Server.Features.Desks;

/// <summary>Addresses of desks and pages, as they stand in a path: small letters, digits and single hyphens.</summary>
public static partial class Address
{
    public const int MostCharacters = 60;

    public const string Mend = "web-address";

    // The product's own paths; a desk of that name could never be opened.
    private static readonly HashSet<string> Kept =
    [
        "answer",
        "api",
        "app",
        "assets",
        "booking",
        "desk",
        "docs",
        "embed",
        "fonts",
        "forgot",
        "health",
        "help",
        "join",
        "openapi",
        "reset",
        "sign-in",
        "sign-out",
        "start",
        "times",
        "work",
    ];

    public static bool IsWellFormed(string? address) =>
        address is { Length: >= 2 and <= MostCharacters } && Pattern().IsMatch(address);

    public static bool IsFreeForDesks(string address) => !Kept.Contains(address);

    [GeneratedRegex("^[a-z0-9]+(-[a-z0-9]+)*$")]
    private static partial Regex Pattern();
}
