using System.Collections.Concurrent;
using System.Net;
using System.Text;
using Fluid;
using LooseLantern.Server.Data.Model;

namespace LooseLantern.Server.Features.Post;

/// <summary>A message as it is read.</summary>
public sealed record Letter(string Subject, string Text, string Html);

/// <summary>The words of messages, a file a language, filled in with what is known of the booking.</summary>
public static class PostTemplates
{
    private static readonly FluidParser Parser = new();
    private static readonly ConcurrentDictionary<string, IFluidTemplate> Parsed = new();

    /// <param name="language">Language tag; English is taken for one that there are no words in.</param>
    /// <param name="words">By name, as the files have them.</param>
    public static Letter Write(MessageKind kind, string language, IReadOnlyDictionary<string, string> words)
    {
        var template = Parsed.GetOrAdd(language, static tag => Parse(tag) ?? Parse("en")!);
        var context = new TemplateContext();
        context.SetValue("kind", kind.ToString());
        foreach (var (name, value) in words) context.SetValue(name, value);
        // The first line is the subject; a line between stands empty.
        var lines = template.Render(context, NullEncoder.Default).ReplaceLineEndings("\n").Trim().Split('\n', 2);
        var text = lines[1].Trim();
        return new Letter(OneLine(lines[0]), text, HtmlOf(text));
    }

    private static IFluidTemplate? Parse(string language)
    {
        using var stream = typeof(PostTemplates).Assembly.GetManifestResourceStream($"{typeof(PostTemplates).Namespace}.Templates.{language}.liquid");
        if (stream is null) return null;
        using var reader = new StreamReader(stream, Encoding.UTF8);
        return Parser.Parse(reader.ReadToEnd());
    }

    /// <summary>Paragraphs as in the text, with addresses that can be pressed. Whatever somebody typed is shown as it was typed.</summary>
    private static string HtmlOf(string text)
    {
        var html = new StringBuilder("<!doctype html><html><body style=\"font:16px/1.5 sans-serif;color:#18223b;max-width:36em\">");
        foreach (var paragraph in text.Split("\n\n", StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries))
            html.Append("<p>").Append(string.Join("<br>", paragraph.Split('\n').Select(LineOf))).Append("</p>");
        return html.Append("</body></html>").ToString();
    }

    private static string LineOf(string line) => line.StartsWith("http://", StringComparison.Ordinal) || line.StartsWith("https://", StringComparison.Ordinal)
        ? $"<a href=\"{WebUtility.HtmlEncode(line)}\">{WebUtility.HtmlEncode(line)}</a>"
        : WebUtility.HtmlEncode(line);

    /// <summary>A subject is one line, whatever a name has in it: a line break could smuggle in a header.</summary>
    private static string OneLine(string text) => new([.. text.Trim().Select(letter => char.IsControl(letter) ? ' ' : letter)]);
}
