using System.Text.Json;
using System.Text.RegularExpressions;

namespace LooseLantern.Server.Hosting;

/// <summary>What a guest's screen loads beside what every screen does, from the root of the site.</summary>
public sealed record ScreenLoads(IReadOnlyList<string> Scripts, IReadOnlyList<string> Styles);

/// <summary>The front end's list of files: first.json, written as it is built (web/finish.mjs).</summary>
/// <param name="Script">Draws the first view.</param>
/// <param name="Screens">By the names of guests' screens.</param>
public sealed record ScreenList(
    string Script,
    IReadOnlyList<string> Fonts,
    IReadOnlyDictionary<string, ScreenLoads> Screens
);

/// <summary>
/// The page that starts the front end, in three parts: up to where more stands in its head, up to where more stands in
/// its body, and the rest.
/// </summary>
/// <param name="Scripts">What every screen loads.</param>
public sealed record ScreenTemplate(
    string Head,
    string Body,
    string Rest,
    IReadOnlyList<string> Scripts,
    ScreenList? Files
);

/// <summary>The built page of the front end, read again only when it was built anew.</summary>
public sealed partial class ScreenFiles(IWebHostEnvironment environment)
{
    private const string InHead = "<!--first:head-->";
    private const string InBody = "<!--first:body-->";

    private (DateTimeOffset Of, ScreenTemplate Template)? _known;

    /// <exception cref="Refusal">404 where no front end is built.</exception>
    public ScreenTemplate Read()
    {
        var index = environment.WebRootFileProvider.GetFileInfo("index.html");
        if (!index.Exists)
            throw Refusal.NotFound("page");
        if (_known is { } known && known.Of == index.LastModified)
            return known.Template;
        var html = TextOf(index);
        // They are named behind what is seen first, so that they are not fetched before it.
        var scripts = Preload().Matches(html).Select(match => match.Groups[1].Value).ToList();
        html = Preload().Replace(html, "");
        var (head, body) = (Place(html, InHead), Place(html, InBody));
        var files = environment.WebRootFileProvider.GetFileInfo("first.json");
        var template = new ScreenTemplate(
            html[..head],
            html[(head + InHead.Length)..body],
            html[(body + InBody.Length)..],
            scripts,
            files.Exists ? JsonSerializer.Deserialize<ScreenList>(TextOf(files), JsonSerializerOptions.Web) : null
        );
        _known = (index.LastModified, template);
        return template;
    }

    private static int Place(string html, string mark) =>
        html.IndexOf(mark, StringComparison.Ordinal) is >= 0 and var at
            ? at
            : throw new InvalidOperationException($"index.html has no {mark}: it is not the one of web/src/app.html.");

    [GeneratedRegex(@"\s*<link href=""([^""]+)"" rel=""modulepreload"">")]
    private static partial Regex Preload();

    private static string TextOf(Microsoft.Extensions.FileProviders.IFileInfo file)
    {
        using var reader = new StreamReader(file.CreateReadStream());
        return reader.ReadToEnd();
    }
}
