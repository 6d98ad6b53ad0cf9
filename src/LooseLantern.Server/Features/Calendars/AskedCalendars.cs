using System.Linq.Expressions;
using LooseLantern.Server.Data.Model;

namespace LooseLantern.Server.Features.Calendars;

/// <summary>Which entries of calendars are in the way of openings; one rule for all who ask.</summary>
public static class AskedCalendars
{
    /// <summary>Not marked free, of a calendar that is asked, and not tentative where that does not count.</summary>
    public static readonly Expression<Func<CalendarEntryRow, bool>> TakesTime =
        entry => !entry.Free && entry.Calendar!.IsAsked && (entry.Calendar.TentativeCounts || !entry.Tentative);

    private static readonly Func<CalendarEntryRow, bool> TakesTimeHere = TakesTime.Compile();

    /// <summary>The same of an entry at hand, with its calendar loaded.</summary>
    public static bool IsInTheWay(CalendarEntryRow entry) => TakesTimeHere(entry);
}
