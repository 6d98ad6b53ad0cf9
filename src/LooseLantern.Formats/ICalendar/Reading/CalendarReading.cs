using LooseLantern.Core;

namespace LooseLantern.Formats.ICalendar.Reading;

/// <summary>One occurrence of an event.</summary>
/// <param name="Free">Marked as taking no time (TRANSP:TRANSPARENT): shown, but never busy.</param>
/// <param name="Tentative">STATUS:TENTATIVE.</param>
public sealed record CalendarEntry(string Uid, string Title, Span Time, bool WholeDay, bool Free, bool Tentative)
{
    /// <summary>Who takes part, where the event says it.</summary>
    public IReadOnlyList<EventPerson> People { get; init; } = [];
}

/// <summary>
/// An event that could not be read, and why; <paramref name="Line"/> is the line of the file, from 1.
/// </summary>
/// <param name="IsPartly">Whether it was read as far as it may take time and room; what was found is among the
/// entries.</param>
public sealed record UnreadEvent(int Line, string Title, string Fault, bool IsPartly = false);

/// <summary>What a calendar file says of a run of time.</summary>
public sealed record CalendarReading(IReadOnlyList<CalendarEntry> Entries, IReadOnlyList<UnreadEvent> Unread);
