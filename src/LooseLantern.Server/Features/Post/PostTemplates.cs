using System.Collections.Concurrent;
using System.Net;
using System.Text;
using System.Text.RegularExpressions;
using Fluid;
using LooseLantern.Server.Data.Model;

namespace LooseLantern.Server.Features.Post;

/// <summary>A message as it is read.</summary>
public sealed record WrittenMail(string Subject, string Text, string Html)
{
    /// <summary>
    /// Why words of the page's own could not be filled in, and these are ours; null where nothing was wrong.
    /// </summary>
    public string? OwnWordsFault { get; init; }
}

/// <summary>The words of messages, a file a language, filled in with what is known of the booking.</summary>
public static partial class PostTemplates
{
    /// <summary>The longest text that is made of a template.</summary>
    public const int MostCharacters = 64 * 1024;

    // Of private use, so that nothing else is it.
    private const string Stranger = "\ue000";

    private const int MostSteps = 2_000;

    private static readonly TemplateOptions Bounded = new() { MaxSteps = MostSteps };
    private static readonly FluidParser Parser = new();
    private static readonly ConcurrentDictionary<string, IFluidTemplate> Parsed = new();

    // A description is the longest of what is put in.
    private static readonly string Longest = new('w', 4_000);

    /// <param name="language">Language tag; English is taken for one that there are no words in.</param>
    /// <param name="words">By name, as the files have them.</param>
    public static WrittenMail Write(MessageKind kind, string language, IReadOnlyDictionary<string, string> words)
    {
        var template = Parsed.GetOrAdd(language, static tag => Parse(tag) ?? Parse("en")!);
        // The first line is the subject; a line between stands empty.
        var lines = Render(template, new Dictionary<string, string>(words) { ["kind"] = kind.ToString() })
            .Split('\n', 2);
        return Of(lines[0], lines[1], words);
    }

    /// <summary>One line of a mail that has several alike.</summary>
    /// <param name="kind">By which the files have it.</param>
    public static string Line(string kind, string language, IReadOnlyDictionary<string, string> words) =>
        Render(
            Parsed.GetOrAdd(language, static tag => Parse(tag) ?? Parse("en")!),
            new Dictionary<string, string>(words) { ["kind"] = kind }
        );

    /// <summary>In words of a page's own, which were checked when they were saved.</summary>
    public static WrittenMail Write(OwnWords own, IReadOnlyDictionary<string, string> words) =>
        Of(SubjectOf(own.Subject, words), Render(OwnWordsParser.Parse(own.Body), words), words);

    /// <summary>An appointment has a title where a mail has a subject; it may begin with anything.</summary>
    public static WrittenMail WriteTitled(OwnWords own, IReadOnlyDictionary<string, string> words) =>
        Of(Render(OwnWordsParser.Parse(own.Subject), words), Render(OwnWordsParser.Parse(own.Body), words), words);

    /// <summary>
    /// A subject begins with what the team wrote, never with what a stranger chose: nobody can have us send their
    /// headline.
    /// </summary>
    private static string SubjectOf(string template, IReadOnlyDictionary<string, string> words)
    {
        var parsed = OwnWordsParser.Parse(template);
        var subject = Render(parsed, words);
        var marked = new Dictionary<string, string>(words);
        foreach (var name in PostWords.ByGuests)
            marked[name] = Stranger;
        return Render(parsed, marked).StartsWith(Stranger, StringComparison.Ordinal)
            ? $"{words["page"]}: {subject}"
            : subject;
    }

    /// <summary>
    /// Tries words of a page's own with the longest values there are; false where they would come to more than a mail
    /// is.
    /// </summary>
    public static bool CanBeWritten(OwnWords own)
    {
        try
        {
            Write(own, PostWords.Tokens.Keys.ToDictionary(name => name, _ => Longest));
            return true;
        }
        catch (Exception e) when (IsOfTemplate(e))
        {
            return false;
        }
    }

    /// <summary>Whether a fault is of the words that were filled in, and not of the program.</summary>
    public static bool IsOfTemplate(Exception fault) =>
        fault is ParseException or InvalidOperationException or ArgumentException or FormatException;

    private static WrittenMail Of(string subject, string body, IReadOnlyDictionary<string, string> words)
    {
        // A place or a word that is not there leaves no gap.
        var text = Gap().Replace(body, "\n\n").Trim();
        return new WrittenMail(
            OneLine(subject),
            text,
            HtmlOf(
                text,
                [
                    .. words
                        .Where(word => word.Key.Contains("link", StringComparison.Ordinal) || word.Key == "room")
                        .SelectMany(word => word.Value.Split('\n')),
                ]
            )
        );
    }

    private static string Render(IFluidTemplate template, IReadOnlyDictionary<string, string> words)
    {
        var context = new TemplateContext(Bounded);
        foreach (var (name, value) in words)
            context.SetValue(name, value);
        var rendered = template.Render(context, NullEncoder.Default).ReplaceLineEndings("\n").Trim();
        return rendered.Length <= MostCharacters
            ? rendered
            : throw new InvalidOperationException($"A text of more than {MostCharacters} characters is no mail.");
    }

    private static IFluidTemplate? Parse(string language) =>
        Source(language) is { } source ? Parser.Parse(source) : null;

    /// <summary>All mails of a language as they are written; null where there are none.</summary>
    public static string? Source(string language)
    {
        using var stream = typeof(PostTemplates).Assembly.GetManifestResourceStream(
            $"{typeof(PostTemplates).Namespace}.Templates.{language}.liquid"
        );
        if (stream is null)
            return null;
        using var reader = new StreamReader(stream, Encoding.UTF8);
        return reader.ReadToEnd();
    }

    /// <summary>
    /// Paragraphs as in the text, with our own addresses to press. Whatever somebody typed is shown as it was typed,
    /// addresses too.
    /// </summary>
    private static string HtmlOf(string text, string[] links)
    {
        var html = new StringBuilder(
            "<!doctype html><html><body style=\"font:16px/1.5 sans-serif;color:#18223b;max-width:36em\">"
        );
        foreach (
            var paragraph in text.Split("\n\n", StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)
        )
            html.Append("<p>")
                .Append(string.Join("<br>", paragraph.Split('\n').Select(line => LineOf(line, links.Contains(line)))))
                .Append("</p>");
        return html.Append("</body></html>").ToString();
    }

    private static string LineOf(string line, bool isLink) =>
        !isLink || !(line.StartsWith("http", StringComparison.Ordinal) || line == PostInserts.Room)
            ? WebUtility.HtmlEncode(line)
        : line == PostInserts.Room ? PostInserts.RoomToPress
        : $"<a href=\"{WebUtility.HtmlEncode(line)}\">{WebUtility.HtmlEncode(line)}</a>";

    [GeneratedRegex(@"\n\s*\n")]
    private static partial Regex Gap();

    /// <summary>A subject is one line, whatever a name has in it: a line break could smuggle in a header.</summary>
    private static string OneLine(string text) =>
        new([.. text.Trim().Select(letter => char.IsControl(letter) ? ' ' : letter)]);
}
