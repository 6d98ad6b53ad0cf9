using System.Text.RegularExpressions;
using LooseLantern.Server.Data.Model;

namespace LooseLantern.Server.Features.Post;

/// <summary>
/// Our mails to guests as words that a page can begin its own with: in the tokens that own words know, with whatever
/// several mails share written out.
/// </summary>
public static partial class OwnWordsBeginning
{
    /// <param name="language">Language tag; English is taken for one that there are no words in.</param>
    public static OwnWords Of(MessageKind kind, string language)
    {
        var file = PostTemplates.Source(language) ?? PostTemplates.Source("en")!;
        var shared = Capture()
            .Matches(file)
            .ToDictionary(match => match.Groups[1].Value, match => match.Groups[2].Value.Trim());
        var start = file.IndexOf($"{{% when \"{kind}\" %}}", StringComparison.Ordinal);
        var body = file[(file.IndexOf("%}", start, StringComparison.Ordinal) + 2)..];
        body = body[..body.IndexOf("{% when", StringComparison.Ordinal)];
        foreach (var (name, text) in shared)
            body = body.Replace($"{{{{ {name} }}}}", text, StringComparison.Ordinal);
        // Who writes their own words says in them what goes along.
        body = Switch().Replace(body, match => match.Groups[2].Value);
        var lines = body.Trim().Split('\n', 2);
        return new OwnWords(lines[0].Trim(), lines[1].Trim());
    }

    [GeneratedRegex(@"\{%- capture (\w+) -%\}(.*?)\{%- endcapture -%\}", RegexOptions.Singleline)]
    private static partial Regex Capture();

    [GeneratedRegex(@"\{% if (says_\w+) != """" %\}(.*?)\{% endif %\}", RegexOptions.Singleline)]
    private static partial Regex Switch();
}
