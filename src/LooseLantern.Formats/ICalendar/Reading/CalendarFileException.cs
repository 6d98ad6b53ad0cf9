namespace LooseLantern.Formats.ICalendar.Reading;

/// <summary>A calendar file that can't be read as a whole. The message is for the person who chose the file.</summary>
/// <param name="line">The line of the file, from 1, or null where it is the file itself.</param>
public sealed class CalendarFileException(int? line, string fault)
    : Exception(line is null ? fault : $"Line {line}: {fault}")
{
    public int? Line { get; } = line;
}

/// <summary>
/// What is wrong with one event; caught where the event is read, so that the rest of the file still loads.
/// </summary>
internal sealed class EventFaultException(int line, string fault) : Exception(fault)
{
    public int Line { get; } = line;
}
