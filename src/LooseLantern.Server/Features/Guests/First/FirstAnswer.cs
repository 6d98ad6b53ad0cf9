namespace LooseLantern.Server.Features.Guests.First;

/// <summary>
/// What a guest's screen is answered with at the first request, beside the app itself: what previews and search say of
/// it, what is read of it without scripts, and what the app would ask for next.
/// </summary>
/// <param name="Screen">Which of the front end's screens it is, as its list of files (first.json) names them.</param>
/// <param name="Language">Tag of the language it is written in.</param>
public sealed record FirstAnswer(string Screen, string Language)
{
    /// <summary>Empty where nothing is told: of what is one person's alone.</summary>
    public string Title { get; init; } = "";

    public string Description { get; init; } = "";

    /// <summary>Of whom it is.</summary>
    public string Workspace { get; init; } = "";

    /// <summary>From the root of the site; null for none.</summary>
    public string? Picture { get; init; }

    /// <summary>From the root of the site; null where searches are not to find it.</summary>
    public string? Canonical { get; init; }

    /// <summary>HTML, for whoever runs no scripts.</summary>
    public string Words { get; init; } = "";

    /// <summary>JSON in UTF-8, with no &lt; in it; null where the app asks by itself.</summary>
    public byte[]? Data { get; init; }

    /// <summary>Whether a first view is drawn of it before the app comes.</summary>
    public bool IsDrawn { get; init; }

    /// <summary>Where it is now, from the root of the site; null where it is here.</summary>
    public string? MovedTo { get; init; }

    public bool IsMissing { get; init; }

    /// <summary>Whether it is one person's alone, and no copy of it is to be kept.</summary>
    public bool IsPrivate { get; init; }
}
