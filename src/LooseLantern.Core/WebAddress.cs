using System.Text.RegularExpressions;

namespace LooseLantern.Core;

/// <summary>Addresses of web pages as people type them.</summary>
public static partial class WebAddress
{
    public const int MostLength = 500;

    /// <summary>
    /// The whole address (RFC 3986), with https where no scheme is typed: "wren.example/boats" is
    /// "https://wren.example/boats". Null for what is none, or is of another scheme than http and https.
    /// </summary>
    /// <param name="most">Characters at the most.</param>
    public static string? Whole(string? typed, int most = MostLength)
    {
        if (typed is null)
            return null;
        var text = typed.Trim();
        if (WithoutScheme().IsMatch(text))
            text = $"https://{text}";
        return
            text.Length <= most && Uri.TryCreate(text, UriKind.Absolute, out var uri) && uri.Scheme is "http" or "https"
            ? text
            : null;
    }

    /// <summary>A host name with a dot in it, and what may follow one.</summary>
    [GeneratedRegex(@"^[\p{L}\p{N}]([\p{L}\p{N}-]*\.)+\p{L}{2,}(:\d{1,5})?([/?#]\S*)?$", RegexOptions.CultureInvariant)]
    private static partial Regex WithoutScheme();
}
