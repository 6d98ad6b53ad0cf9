using LooseLantern.Core.LineUps;
using LooseLantern.Core.Openings;
using NodaTime;

namespace LooseLantern.Formats.Cases;

/// <summary>The page of a case file.</summary>
internal static class CasePage
{
    public static PageRules Read(CaseNode node, HashSet<string> hosts, out int[] durations)
    {
        var page = node.Members(
            "id",
            "zone",
            "durations",
            "step",
            "stepOffset",
            "stepFrom",
            "bufferBefore",
            "bufferAfter",
            "notice",
            "window",
            "hoursMode",
            "hours",
            "dailyCap",
            "weeklyCap",
            "places",
            "lineup",
            "only",
            "sessions"
        );

        durations = page.Read<int[]>("durations", [], list => [.. list.List().Select(item => item.Number(1))]);
        var step = page.Read("step", 1, member => member.Number(1));
        var mode = page.Read("hoursMode", "hosts", member => member.OneOf("hosts", "page", "both"));
        var hours = page.Read("hours", null, CaseHours.ReadOrNull);
        if (mode != "hosts" && page.Has("hours") && !page.HasValue("hours"))
            page.Read("hours", 0, member =>
            {
                member.Fault("The page's own hours count by its hoursMode, so they are needed.");
                return 0;
            });

        return new PageRules(
            page.Read("id", "", member => member.Id()),
            page.Read("zone", DateTimeZone.Utc, member => member.Zone()),
            step,
            page.Read("stepOffset", 0, member =>
            {
                var offset = member.Number(0);
                if (offset >= step)
                    member.Fault("The offset must be less than the step.");
                return offset;
            }),
            page.Read("stepFrom", "clock", member => member.OneOf("clock", "open")) == "open"
                ? StepFrom.Open
                : StepFrom.Clock,
            page.Read("bufferBefore", 0, member => member.Number(0)),
            page.Read("bufferAfter", 0, member => member.Number(0)),
            page.Read("notice", 0, member => member.Number(0)),
            page.Read("window", new BookingWindow.Open(), Window),
            mode switch
            {
                "page" => HoursMode.Page,
                "both" => HoursMode.Both,
                _ => HoursMode.Hosts,
            },
            hours,
            page.Read("dailyCap", null, member => member.NumberOrNull(0)),
            page.Read("weeklyCap", null, member => member.NumberOrNull(0)),
            page.Read("places", 1, member => member.Number(1)),
            page.Read("lineup", [], list => LineUp(list, hosts)),
            page.Read("only", null, Only),
            page.Read("sessions", [], Sessions)
        );
    }

    private static BookingWindow Window(CaseNode node)
    {
        // Which members belong to it hangs on its kind, so the kind is looked up first.
        var kind = node.Entries().FirstOrDefault(entry => entry.Name == "kind");
        if (kind.Name is null)
        {
            node.Members("kind");
            return new BookingWindow.Open();
        }

        switch (kind.Node.OneOf("open", "ahead", "dates"))
        {
            case "ahead":
                return new BookingWindow.Ahead(
                    node.Members("kind", "days").Read("days", 0, member => member.Number(0))
                );
            case "dates":
                var dates = node.Members("kind", "from", "to");
                var from = dates.Read("from", new LocalDate(2000, 1, 1), member => member.Date());
                return new BookingWindow.Dates(from, dates.Read("to", from, member =>
                    {
                        var date = member.Date();
                        if (date < from)
                            member.Fault("The last date comes before the first.");
                        return date;
                    }));
            default:
                node.Members("kind");
                return new BookingWindow.Open();
        }
    }

    private static IReadOnlyList<Seat> LineUp(CaseNode list, HashSet<string> hosts)
    {
        var seats = list.List();
        if (seats.Count == 0)
            list.Fault("A line-up has at least one seat.");
        return [.. seats.Select(node => Seat(node, hosts))];
    }

    private static Seat Seat(CaseNode node, HashSet<string> hosts)
    {
        var seat = node.Members("anyOf", "keeper?");
        return new Seat(seat.Read<IReadOnlyList<string>>("anyOf", [], anyOf => Eligible(anyOf, hosts)))
        {
            Keeper = seat.Read("keeper", SeatKeeper.Counts, keeper => keeper.OneOf("counts", "first", "only") switch
                {
                    "first" => SeatKeeper.First,
                    "only" => SeatKeeper.Only,
                    _ => SeatKeeper.Counts,
                }),
        };
    }

    private static List<string> Eligible(CaseNode anyOf, HashSet<string> hosts)
    {
        var ids = new List<string>();
        var items = anyOf.List();
        if (items.Count == 0)
            anyOf.Fault("A seat has at least one host.");
        foreach (var item in items)
        {
            var id = item.Id();
            if (id.Length == 0)
                continue;
            if (!hosts.Contains(id))
                item.Fault("This host is not listed among the hosts.");
            if (ids.Contains(id))
                item.Fault("This host stands twice in the seat.");
            ids.Add(id);
        }

        return ids;
    }

    private static OnlyTimes? Only(CaseNode node)
    {
        if (node.IsNull)
            return null;
        var only = node.Members("spans?", "starts?");
        if (only.Has("spans") == only.Has("starts"))
            node.Fault("Either spans or starts is expected, one of the two.");
        var spans = only.Read("spans", [], CaseSpans.Read);
        var starts = only.Read<IReadOnlyList<Instant>>("starts", [], list =>
            [.. list.List().Select(item => item.Instant())]
        );
        return only.Has("starts") ? new OnlyTimes.Exact(starts) : new OnlyTimes.Painted(spans);
    }

    private static IReadOnlyList<SessionFacts> Sessions(CaseNode list)
    {
        var seen = new HashSet<string>();
        return
        [
            .. list.List()
                .Select(node =>
                {
                    var session = node.Members("id", "start", "end", "guests");
                    var id = session.Read("id", "", member =>
                    {
                        var text = member.Id();
                        if (text.Length > 0 && !seen.Add(text))
                            member.Fault("Another session has this id.");
                        return text;
                    });
                    var start = session.Read("start", default, member => member.Instant());
                    var end = session.Read("end", start, member =>
                    {
                        var instant = member.Instant();
                        if (instant <= start)
                            member.Fault("A session ends after it starts.");
                        return instant;
                    });
                    return new SessionFacts(id, start, end, session.Read("guests", 0, member => member.Number(0)));
                }),
        ];
    }
}
