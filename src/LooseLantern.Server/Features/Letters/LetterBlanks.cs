using System.Globalization;
using System.Text;
using Fluid.Ast;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Hosting;

namespace LooseLantern.Server.Features.Letters;

/// <summary>The blanks that letters may have, by the names they are written with.</summary>
public static class LetterBlanks
{
    /// <summary>Those of all workspaces, each with what it stands for.</summary>
    public static readonly IReadOnlyDictionary<string, string> Usual = new Dictionary<string, string>
    {
        ["first_name"] = "the guest’s first name",
        ["guest"] = "the guest’s name",
        ["organisation"] = "the guest’s organisation",
        ["sender"] = "your name",
        ["workspace"] = "your workspace’s name",
        ["desk"] = "the desk’s name",
        ["hosts"] = "the hosts’ names",
        ["page"] = "the title of the link or page",
        ["times"] = "the times of the link, on the guest’s clock",
        ["link"] = "the address of the link or page",
        ["ends"] = "the last day the link can be used",
    };

    /// <summary>With the workspace's own fields, by their names in small letters.</summary>
    public static IReadOnlyDictionary<string, string> Of(IEnumerable<GuestField> fields)
    {
        var all = new Dictionary<string, string>(Usual);
        foreach (var (name, field) in ByName(fields))
            all[name] = $"the guest’s field “{field.Name}”";
        return all;
    }

    /// <summary>The workspace's own fields by the names of their blanks.</summary>
    public static IReadOnlyDictionary<string, GuestField> ByName(IEnumerable<GuestField> fields)
    {
        var named = new Dictionary<string, GuestField>();
        foreach (var field in fields)
        {
            var name = NameOf(field.Name);
            if (Usual.ContainsKey(name) || named.ContainsKey(name))
                name = $"field_{name}";
            named.TryAdd(name, field);
        }

        return named;
    }

    /// <summary>Small letters, digits and underscores, beginning with a letter.</summary>
    private static string NameOf(string field)
    {
        var name = new StringBuilder();
        foreach (var letter in field.Normalize(NormalizationForm.FormD).ToLowerInvariant())
        {
            if (char.IsAsciiLetterLower(letter) || char.IsAsciiDigit(letter))
                name.Append(letter);
            else if (
                CharUnicodeInfo.GetUnicodeCategory(letter) != UnicodeCategory.NonSpacingMark
                && name.Length > 0
                && name[^1] != '_'
            )
                name.Append('_');
        }

        var tidy = name.ToString().Trim('_');
        return tidy.Length == 0 ? "field"
            : char.IsAsciiDigit(tidy[0]) ? $"field_{tidy}"
            : tidy;
    }

    /// <summary>What is wrong with words that have blanks; null where nothing is.</summary>
    public static Phrase? FaultOf(string words, IReadOnlyDictionary<string, string> known)
    {
        if (!OwnWordsParser.TryParse(words, out var template, out var error))
            return Phrase.Of("own-words", ("fault", error));
        var reader = new BlankReader();
        reader.VisitTemplate(template);
        var unknown = reader.Named.Where(name => !known.ContainsKey(name)).Distinct().ToList();
        return unknown.Count == 0
            ? null
            : Phrase.Of("letter-blanks", ("blanks", unknown.Select(name => $"{{{{ {name} }}}}").ToArray()));
    }

    /// <summary>
    /// The blanks without which words can't go out: those that are written out, but for where a condition asks of the
    /// same one whether it is filled, or there are other words for that.
    /// </summary>
    /// <param name="words">That <see cref="FaultOf"/> found nothing wrong with.</param>
    public static IReadOnlyList<string> NeededBy(string words)
    {
        var reader = new BlankReader();
        reader.VisitTemplate(OwnWordsParser.Parse(words));
        return [.. reader.Needed.Distinct()];
    }

    private sealed class BlankReader : AstVisitor
    {
        private readonly Stack<IReadOnlyList<string>> _asked = new();
        private bool _isWritten;

        public List<string> Named { get; } = [];

        public List<string> Needed { get; } = [];

        protected override Statement VisitIfStatement(IfStatement ifStatement)
        {
            var before = Named.Count;
            Visit(ifStatement.Condition);
            Within(Named[before..], () =>
            {
                foreach (var statement in ifStatement.Statements)
                    Visit(statement);
                foreach (var other in ifStatement.ElseIfs)
                    Visit(other);
                if (ifStatement.Else is { } rest)
                    Visit(rest);
            });
            return ifStatement;
        }

        protected override Statement VisitUnlessStatement(UnlessStatement unlessStatement)
        {
            var before = Named.Count;
            Visit(unlessStatement.Condition);
            Within(Named[before..], () =>
            {
                foreach (var statement in unlessStatement.Statements)
                    Visit(statement);
                if (unlessStatement.Else is { } rest)
                    Visit(rest);
            });
            return unlessStatement;
        }

        protected override Statement VisitOutputStatement(OutputStatement outputStatement)
        {
            _isWritten = true;
            Visit(outputStatement.Expression);
            _isWritten = false;
            return outputStatement;
        }

        protected override Expression VisitFilterExpression(FilterExpression filterExpression)
        {
            var was = _isWritten;
            _isWritten &= filterExpression.Name != "default";
            var visited = base.VisitFilterExpression(filterExpression);
            _isWritten = was;
            return visited;
        }

        protected override Expression VisitMemberExpression(MemberExpression memberExpression)
        {
            if (memberExpression.Segments is [IdentifierSegment first, ..])
            {
                Named.Add(first.Identifier);
                if (_isWritten && !_asked.Any(asked => asked.Contains(first.Identifier)))
                    Needed.Add(first.Identifier);
            }

            return base.VisitMemberExpression(memberExpression);
        }

        private void Within(IReadOnlyList<string> asked, Action visit)
        {
            _asked.Push(asked);
            visit();
            _asked.Pop();
        }
    }
}
