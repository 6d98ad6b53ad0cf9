namespace LooseLantern.Server.Data.Model;

/// <summary>Which of a host's calendars a page asks and writes to, where that is not the usual.</summary>
/// <param name="Asked">The calendars that are asked; null for the usual ones.</param>
/// <param name="WrittenTo">The calendar its bookings are written to; null for the usual one.</param>
public sealed record CalendarChoice(Guid HostId, IReadOnlyList<Guid>? Asked, Guid? WrittenTo);
