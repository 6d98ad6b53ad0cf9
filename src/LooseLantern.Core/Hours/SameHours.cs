using NodaTime;

namespace LooseLantern.Core.Hours;

/// <summary>Tells hours apart by what they say; who wrote the same twice has the same.</summary>
internal sealed class SameHours : IEqualityComparer<HoursSet>
{
    public static readonly SameHours Comparer = new();

    public bool Equals(HoursSet? one, HoursSet? other)
    {
        if (ReferenceEquals(one, other))
            return true;
        if (one is null || other is null || !one.Zone.Equals(other.Zone) || one.Changes.Count != other.Changes.Count)
            return false;
        for (var weekday = IsoDayOfWeek.Monday; weekday <= IsoDayOfWeek.Sunday; weekday++)
        {
            if (!AreSame(On(one, weekday), On(other, weekday)))
                return false;
        }

        for (var i = 0; i < one.Changes.Count; i++)
        {
            var (these, those) = (one.Changes[i], other.Changes[i]);
            if (these.From != those.From || these.To != those.To || !AreSame(these.Open, those.Open))
                return false;
        }

        return true;
    }

    public int GetHashCode(HoursSet hours)
    {
        var hash = hours.Changes.Count;
        for (var weekday = IsoDayOfWeek.Monday; weekday <= IsoDayOfWeek.Sunday; weekday++)
        {
            var open = On(hours, weekday);
            hash = 31 * hash + open.Count;
            for (var i = 0; i < open.Count; i++)
                hash = 31 * (31 * hash + open[i].From) + open[i].To;
        }

        return hash;
    }

    private static IReadOnlyList<OpenTime> On(HoursSet hours, IsoDayOfWeek weekday) =>
        hours.Week.TryGetValue(weekday, out var open) ? open : [];

    private static bool AreSame(IReadOnlyList<OpenTime> these, IReadOnlyList<OpenTime> those)
    {
        if (these.Count != those.Count)
            return false;
        for (var i = 0; i < these.Count; i++)
        {
            if (these[i] != those[i])
                return false;
        }

        return true;
    }
}
