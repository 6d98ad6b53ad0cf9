namespace LooseLantern.Server.Features.SignIn;

/// <summary>What a browser says of itself, in words that help to tell one's own devices apart.</summary>
public static class Device
{
    // In this order, since several say the names of others beside their own.
    private static readonly (string Token, string Name)[] Browsers =
    [
        ("Edg/", "Edge"),
        ("OPR/", "Opera"),
        ("Firefox/", "Firefox"),
        ("Chrome/", "Chrome"),
        ("Safari/", "Safari"),
    ];

    private static readonly (string Token, string Name)[] Systems =
    [
        ("iPhone", "iPhone"),
        ("iPad", "iPad"),
        ("Android", "Android"),
        ("Windows", "Windows"),
        ("Mac OS X", "Mac"),
        ("Linux", "Linux"),
    ];

    public static string InWords(string userAgent)
    {
        var browser = Array.Find(Browsers, known => userAgent.Contains(known.Token, StringComparison.Ordinal)).Name;
        var system = Array.Find(Systems, known => userAgent.Contains(known.Token, StringComparison.Ordinal)).Name;
        return (browser, system) switch
        {
            (null, null) => "a program",
            (null, _) => system,
            (_, null) => browser,
            _ => $"{browser} on {system}",
        };
    }
}
