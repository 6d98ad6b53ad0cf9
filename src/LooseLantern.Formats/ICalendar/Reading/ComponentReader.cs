using System.Text;

namespace LooseLantern.Formats.ICalendar.Reading;

/// <summary>
/// Reads the structure of an iCalendar stream: unfolds its lines and nests BEGIN and END (RFC 5545 sections 3.1, 3.4
/// and 3.6).
/// </summary>
internal static class ComponentReader
{
    /// <summary>The calendars of the stream.</summary>
    /// <exception cref="CalendarFileException">Names the line where the structure breaks.</exception>
    public static IReadOnlyList<Component> Read(string text)
    {
        var calendars = new List<Component>();
        var open = new Stack<Component>();
        foreach (var (number, raw) in Unfold(text))
        {
            if (string.IsNullOrWhiteSpace(raw))
                continue;
            var line = ContentLine.TryParse(number, raw);
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
                open.Peek().Lines.Add(line);
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

    /// <summary>Joins folded lines; each is numbered by where it began.</summary>
    private static IEnumerable<(int Number, string Text)> Unfold(string text)
    {
        using var reader = new StringReader(text);
        StringBuilder? unfolded = null;
        var began = 0;
        for (var number = 1; reader.ReadLine() is { } line; number++)
        {
            if (unfolded is not null && line.Length > 0 && line[0] is (' ' or '\t'))
            {
                unfolded.Append(line, 1, line.Length - 1);
                continue;
            }

            if (unfolded is not null)
                yield return (began, unfolded.ToString());
            (unfolded, began) = (new StringBuilder(line), number);
        }

        if (unfolded is not null)
            yield return (began, unfolded.ToString());
    }
}
