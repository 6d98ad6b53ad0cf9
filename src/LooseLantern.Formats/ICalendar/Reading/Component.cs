namespace LooseLantern.Formats.ICalendar.Reading;

/// <summary>A component of an iCalendar file: its content lines and the components within it.</summary>
internal sealed class Component(string name, int line)
{
    public string Name { get; } = name;

    /// <summary>The line of its BEGIN.</summary>
    public int Line { get; } = line;

    public List<ContentLine> Lines { get; } = [];

    public List<Component> Within { get; } = [];

    /// <summary>The first line in it that is no content line, if any.</summary>
    public int? BrokenLine { get; set; }

    public ContentLine? First(string property)
    {
        foreach (var line in Lines)
        {
            if (line.Name == property)
                return line;
        }

        return null;
    }

    public bool Has(string property) => First(property) is not null;

    public IEnumerable<ContentLine> All(string property) => Lines.Where(line => line.Name == property);

    /// <summary>The only line of a property that may stand once at the most.</summary>
    public ContentLine? Single(string property)
    {
        ContentLine? found = null;
        foreach (var line in Lines)
        {
            if (line.Name != property)
                continue;
            if (found is not null)
                throw new EventFaultException(
                    line.Line,
                    $"{property} stands here a second time; an event has it once."
                );
            found = line;
        }

        return found;
    }
}
