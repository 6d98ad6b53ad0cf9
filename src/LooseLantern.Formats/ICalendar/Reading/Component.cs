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

    public ContentLine? First(string property) => Lines.Find(line => line.Name == property);

    public IEnumerable<ContentLine> All(string property) => Lines.Where(line => line.Name == property);

    /// <summary>The only line of a property that may stand once at the most.</summary>
    public ContentLine? Single(string property)
    {
        var lines = All(property).Take(2).ToList();
        if (lines.Count > 1)
            throw new EventFaultException(
                lines[1].Line,
                $"{property} stands here a second time; an event has it once."
            );
        return lines.Count == 0 ? null : lines[0];
    }
}
