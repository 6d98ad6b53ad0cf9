using System.Linq.Expressions;
using LooseLantern.Server.Data.Model;
using NodaTime;

namespace LooseLantern.Server.Features.Calendars;

/// <summary>Which entries of calendars are in the way of openings; one rule for all who ask.</summary>
public static class AskedCalendars
{
    /// <summary>Not marked free, of a calendar that is usually asked, and not tentative where that does not count.</summary>
    public static readonly Expression<Func<CalendarEntryRow, bool>> TakesTime =
        entry => !entry.Free && entry.Calendar!.IsAsked && (entry.Calendar.TentativeCounts || !entry.Tentative);

    private static readonly Func<CalendarEntryRow, bool> TakesTimeHere = TakesTime.Compile();

    /// <summary>The same of an entry at hand, with its calendar loaded.</summary>
    public static bool IsInTheWay(CalendarEntryRow entry) => TakesTimeHere(entry);

    /// <summary>Whether a page asks a calendar for a host: as it chose for them, else as usual.</summary>
    public static bool IsAsked(IReadOnlyList<CalendarChoice> choices, Guid hostId, Guid calendarId, bool usually) =>
        choices.FirstOrDefault(choice => choice.HostId == hostId)?.Asked is { } asked ? asked.Contains(calendarId) : usually;

    /// <summary>From when the openings of its hosts are closed, since what it said is too old; null for a calendar that can be reached, or need not be.</summary>
    /// <param name="kind">Files and what is kept here are never out of reach.</param>
    public static Instant? ClosesAt(CalendarKind kind, Instant? unreachableSince, Instant lookedAt, int closesAfterHours) =>
        kind is CalendarKind.Account or CalendarKind.Address && unreachableSince is not null ? lookedAt + Duration.FromHours(closesAfterHours) : null;

    /// <summary>Whether it was not looked at for so long that its last known state no longer counts, whether or not somebody tried.</summary>
    public static bool IsTooOld(CalendarKind kind, Instant lookedAt, int closesAfterHours, Instant now) =>
        kind is CalendarKind.Account or CalendarKind.Address && lookedAt + Duration.FromHours(closesAfterHours) <= now;
}
