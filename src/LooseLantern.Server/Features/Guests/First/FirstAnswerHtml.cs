using System.Text;
using LooseLantern.Server.Hosting;

namespace LooseLantern.Server.Features.Guests.First;

/// <summary>
/// Writes a first answer into the page that starts the front end: what previews and searches read, with Open Graph's
/// properties; what the screen loads, so that the browser fetches all of it at once; and what it shows.
/// </summary>
public sealed class FirstAnswerHtml(ScreenFiles files, PublicAddress site)
{
    private const string English = "<html lang=\"en\">";

    private const string NeedsScripts = "Loose Lantern needs JavaScript.";

    public string Of(FirstAnswer answer)
    {
        var template = files.Read();
        var html = new StringBuilder(template.Head.Length + template.Rest.Length + (answer.Data?.Length ?? 0) + 8_000);
        html.Append(template.Head.Replace(English, $"<html lang=\"{answer.Language}\">", StringComparison.Ordinal));
        Head(html, answer);
        Loads(html, answer, template.Files);
        html.Append(template.Body);
        Body(html, answer, template);
        return html.Append(template.Rest).ToString();
    }

    private void Head(StringBuilder html, FirstAnswer answer)
    {
        if (answer.Canonical is null)
            html.Append("<meta name=\"robots\" content=\"noindex\">\n");
        if (answer.Title.Length == 0)
            return;
        html.Append($"<title>{FirstWords.Safe(answer.Title)}</title>\n");
        Named("description", answer.Description);
        Property("og:type", "website");
        Property("og:title", answer.Title);
        Property("og:site_name", answer.Workspace);
        Property("og:description", answer.Description);
        if (answer.Picture is not null)
            Property("og:image", site.Value + answer.Picture);
        if (answer.Canonical is null)
            return;
        Property("og:url", site.Value + answer.Canonical);
        html.Append($"<link rel=\"canonical\" href=\"{FirstWords.Safe(site.Value + answer.Canonical)}\">\n");

        void Named(string name, string content)
        {
            if (content.Length > 0)
                html.Append($"<meta name=\"{name}\" content=\"{FirstWords.Safe(content)}\">\n");
        }
        void Property(string name, string content)
        {
            if (content.Length > 0)
                html.Append($"<meta property=\"{name}\" content=\"{FirstWords.Safe(content)}\">\n");
        }
    }

    private static void Loads(StringBuilder html, FirstAnswer answer, ScreenList? files)
    {
        if (files is null || !files.Screens.TryGetValue(answer.Screen, out var loads))
            return;
        foreach (var style in loads.Styles)
            html.Append($"<link rel=\"stylesheet\" href=\"{style}\">\n");
        if (answer.IsDrawn)
            html.Append($"<link rel=\"preload\" as=\"script\" href=\"{files.Script}\">\n");
        foreach (var font in files.Fonts)
            html.Append($"<link rel=\"preload\" as=\"font\" type=\"font/woff2\" href=\"{font}\" crossorigin>\n");
    }

    private static void Body(StringBuilder html, FirstAnswer answer, ScreenTemplate template)
    {
        if (answer.Data is { } data)
            html.Append("<script type=\"application/json\" id=\"first-answer\">")
                .Append(Encoding.UTF8.GetString(data))
                .Append("</script>\n");
        html.Append("<div id=\"first-view\">");
        html.Append($"<noscript>{(answer.Words.Length > 0 ? answer.Words : NeedsScripts)}</noscript>");
        html.Append("</div>\n");
        if (answer.IsDrawn && template.Files is { } files)
            html.Append($"<script src=\"{files.Script}\"></script>\n");
        var scripts = template.Files?.Screens.GetValueOrDefault(answer.Screen)?.Scripts ?? [];
        foreach (var script in template.Scripts.Concat(scripts))
            html.Append($"<link rel=\"modulepreload\" href=\"{script}\">\n");
    }
}
