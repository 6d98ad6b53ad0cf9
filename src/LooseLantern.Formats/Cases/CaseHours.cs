using LooseLantern.Core.Hours;
using NodaTime;

namespace LooseLantern.Formats.Cases;

/// <summary>A set of hours in a case file.</summary>
internal static class CaseHours
{
    private static readonly Dictionary<string, IsoDayOfWeek> Days = new()
    {
        ["mon"] = IsoDayOfWeek.Monday,
        ["tue"] = IsoDayOfWeek.Tuesday,
        ["wed"] = IsoDayOfWeek.Wednesday,
        ["thu"] = IsoDayOfWeek.Thursday,
        ["fri"] = IsoDayOfWeek.Friday,
        ["sat"] = IsoDayOfWeek.Saturday,
        ["sun"] = IsoDayOfWeek.Sunday,
    };

    public static HoursSet? ReadOrNull(CaseNode node)
    {
        if (node.IsNull)
            return null;
        var hours = node.Members("zone", "week", "changes");
        return new HoursSet(
            hours.Read("zone", DateTimeZone.Utc, member => member.Zone()),
            hours.Read("week", [], Week),
            hours.Read("changes", [], Changes)
        );
    }

    private static Dictionary<IsoDayOfWeek, IReadOnlyList<OpenTime>> Week(CaseNode node)
    {
        var week = new Dictionary<IsoDayOfWeek, IReadOnlyList<OpenTime>>();
        foreach (var (name, day) in node.Entries())
        {
            if (!Days.TryGetValue(name, out var weekday))
                day.Fault("A weekday is written mon, tue, wed, thu, fri, sat or sun.");
            else if (!week.TryAdd(weekday, OpenTimes(day)))
                day.Fault("This day stands twice.");
        }

        return week;
    }

    private static IReadOnlyList<DatedChange> Changes(CaseNode list) =>
        [
            .. list.List()
                .Select(node =>
                {
                    var change = node.Members("from", "to", "open");
                    var from = change.Read("from", new LocalDate(2000, 1, 1), member => member.Date());
                    var to = change.Read("to", from, member =>
                    {
                        var date = member.Date();
                        if (date < from)
                            member.Fault("The last date comes before the first.");
                        return date;
                    });
                    return new DatedChange(from, to, change.Read("open", [], OpenTimes));
                }),
        ];

    private static IReadOnlyList<OpenTime> OpenTimes(CaseNode list)
    {
        var open = new List<OpenTime>();
        foreach (var item in list.List())
        {
            if (item.Pair() is not { } pair)
                continue;
            var (from, to) = (pair.First.Minute(), pair.Second.Minute());
            if (from is not { } start || to is not { } end)
                continue;
            if (end <= start)
                pair.Second.Fault(
                    "This ends before it starts; hours over midnight are written as two, to 24:00 and from 00:00."
                );
            else
                open.Add(new OpenTime(start, end));
        }

        return open;
    }
}
