using System.Collections.Frozen;
using System.Text;

namespace LooseLantern.Formats.ICalendar.Reading;

/// <summary>
/// Reads the structure of an iCalendar stream: unfolds its lines and nests BEGIN and END (RFC 5545 sections 3.1, 3.4
/// and 3.6).
/// </summary>
internal static class ComponentReader
{
    /// <summary>The most lines of one component that are kept.</summary>
    public const int MostLines = 50_000;

    /// <summary>
    /// The properties that are read of anything; the others are not kept, for a file may have any number of them.
    /// </summary>
    public static FrozenSet<string> Kept { get; } =
        FrozenSet.Create(
            "BEGIN",
            "END",
            "DTSTART",
            "DTEND",
            "DURATION",
            "UID",
            "SUMMARY",
            "RRULE",
            "EXDATE",
            "RDATE",
            "RECURRENCE-ID",
            "SEQUENCE",
            "STATUS",
            "TRANSP",
            "ORGANIZER",
            "ATTENDEE",
            "TZID",
            "TZOFFSETFROM",
            "TZOFFSETTO",
            "PRIORITY",
            "NAME",
            "X-WR-CALNAME",
            "REFRESH-INTERVAL"
        );

    /// <summary>The calendars of the stream.</summary>
    /// <exception cref="CalendarFileException">Names the line where the structure breaks.</exception>
    public static IReadOnlyList<Component> Read(string text)
    {
        var calendars = new List<Component>();
        var open = new Stack<Component>();
        foreach (var (number, raw) in Unfold(text))
        {
            if (raw.Span.IsWhiteSpace())
                continue;
            var line = ContentLine.TryParse(number, raw.Span);
            if (open.Count == 0 && !(line is { Name: "BEGIN" } && IsNamed(line, "VCALENDAR")))
            {
                throw new CalendarFileException(
                    number,
                    calendars.Count == 0
                        ? "An iCalendar file begins with BEGIN:VCALENDAR; this one does not."
                        : "There is text after END:VCALENDAR."
                );
            }

            if (line is null)
            {
                var broken = open.FirstOrDefault(component => component.Name is "VEVENT" or "VTIMEZONE")
                    ?? throw new CalendarFileException(
                        number,
                        "This is no property: a name, a colon and a value are expected."
                    );
                broken.BrokenLine ??= number;
            }
            else if (line.Name == "BEGIN")
            {
                var component = new Component(line.Value.Trim().ToUpperInvariant(), number);
                if (open.Count == 0)
                    calendars.Add(component);
                else
                    open.Peek().Within.Add(component);
                open.Push(component);
            }
            else if (line.Name == "END")
            {
                var ended = open.Peek();
                if (!IsNamed(line, ended.Name))
                {
                    throw new CalendarFileException(
                        number,
                        $"END:{line.Value.Trim()} does not close the {ended.Name} that began on line {ended.Line}."
                    );
                }

                open.Pop();
            }
            else
            {
                var component = open.Peek();
                if (component.Lines.Count == MostLines)
                    component.BrokenLine ??= number;
                else if (Kept.Contains(line.Name))
                    component.Lines.Add(line);
            }
        }

        if (open.Count > 0)
        {
            throw new CalendarFileException(
                open.Peek().Line,
                $"The file ends before this {open.Peek().Name} does (END:{open.Peek().Name} is missing); it may have been cut off."
            );
        }

        if (calendars.Count == 0)
            throw new CalendarFileException(null, "The file is empty.");
        return calendars;
    }

    private static bool IsNamed(ContentLine line, string name) =>
        line.Value.Trim().Equals(name, StringComparison.OrdinalIgnoreCase);

    /// <summary>
    /// Joins folded lines; each is numbered by where it began. Few are folded, and those are handed on as they stand.
    /// </summary>
    private static IEnumerable<(int Number, ReadOnlyMemory<char> Text)> Unfold(string text)
    {
        var at = 0;
        for (var number = 1; at < text.Length; )
        {
            var began = number;
            var line = LineAt(text, ref at);
            number++;
            StringBuilder? unfolded = null;
            while (at < text.Length && text[at] is (' ' or '\t'))
            {
                unfolded ??= new StringBuilder().Append(line.Span);
                unfolded.Append(LineAt(text, ref at).Span[1..]);
                number++;
            }

            yield return (began, unfolded is null ? line : unfolded.ToString().AsMemory());
        }
    }

    /// <summary>The line from a place on, without its end; the place is then after it (CRLF, CR or LF).</summary>
    private static ReadOnlyMemory<char> LineAt(string text, ref int at)
    {
        var length = text.AsSpan(at).IndexOfAny('\r', '\n');
        if (length < 0)
            length = text.Length - at;
        var line = text.AsMemory(at, length);
        at += length;
        if (at < text.Length)
            at += text[at] == '\r' && at + 1 < text.Length && text[at + 1] == '\n' ? 2 : 1;
        return line;
    }
}
