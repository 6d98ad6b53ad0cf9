using LooseLantern.Core.Days;

namespace Core.Tests;

/// <summary>
/// The rules once more, each written down as plainly as it can be said and asked of every minute by itself: no index, no merging, nothing
/// shared with what it checks but the types. It is far too slow for use, which is what makes it easy to believe.
/// </summary>
internal sealed class SlowReference(OpeningsInput input)
{
    private readonly PageRules _page = input.Page;
    private readonly Duration _duration = Duration.FromMinutes(input.Duration);

    public static IReadOnlyList<Opening> Openings(OpeningsInput input)
    {
        var reference = new SlowReference(input);
        var zone = input.Page.Zone;
        var from = LocalDays.Start(zone, input.From) - Duration.FromDays(2);
        var to = LocalDays.Start(zone, input.To) + Duration.FromDays(3);
        // Everything that could be a start: each whole minute (offsets here are of whole minutes), and what is named to the second.
        var starts = new SortedSet<Instant>();
        for (var minute = from; minute < to; minute += Duration.FromMinutes(1)) starts.Add(minute);
        foreach (var session in input.Page.Sessions) starts.Add(session.Start);
        if (input.Page.Only is OnlyTimes.Exact exact) starts.UnionWith(exact.Starts);
        return [.. starts.Select(reference.OpeningAt).Where(opening => opening is not null).Select(opening => opening!)];
    }

    private Opening? OpeningAt(Instant s)
    {
        var standing = _page.Sessions
            .Where(session => session.Id != input.Moving && _page.Places > 1 && session.Start == s && session.End == s + _duration && session.Guests < _page.Places)
            .ToList();
        if (standing.Count > 0 && Notice(s) && Window(s) && (_page.Only is null || Only(s)))
            return new Opening(s, s + _duration, standing.Min(session => _page.Places - session.Guests));
        if (!Notice(s) || !Window(s) || !Only(s) || !PageCaps(s)) return null;
        if (_page.Only is not OnlyTimes.Exact && _page.StepFrom == StepFrom.Clock && !OnClock(s, _page.StepOffset)) return null;
        if (_page.Only is not OnlyTimes.Exact && _page.StepFrom == StepFrom.Open && !OnSomeOpenGrid(s)) return null;
        return Seats(s, 0, []) ? new Opening(s, s + _duration, _page.Places) : null;
    }

    // Rule 1.
    private bool OnClock(Instant s, int offset)
    {
        var local = s.InZone(_page.Zone).TimeOfDay;
        return local.Second == 0 && (local.Hour * 60 + local.Minute - offset) % _page.Step == 0;
    }

    private bool OnSomeOpenGrid(Instant s)
    {
        var starts = LineUpHosts().Select(host => StretchStart(host, s)).ToList();
        if (starts.TrueForAll(start => start is null)) return OnClock(s, 0);
        return starts.Exists(start => start is { } known && (s - known).TotalMinutes % _page.Step == 0);
    }

    private bool OnGridOf(HostFacts host, Instant s) => StretchStart(host, s) is not { } start || (s - start).TotalMinutes % _page.Step == 0;

    /// <summary>The start of the open stretch around s, looked for minute by minute; null where there is none within 40 days.</summary>
    private Instant? StretchStart(HostFacts host, Instant s)
    {
        if (!OpenAt(host, s)) return null;
        var minute = Duration.FromMinutes(1);
        for (var start = s; s - start < Duration.FromDays(40); start -= minute)
        {
            if (!OpenAt(host, start - Duration.Epsilon)) return start;
        }

        return null;
    }

    // Rules 2 and 3.
    private bool Notice(Instant s) => s >= input.Now + Duration.FromMinutes(_page.Notice);

    private bool Window(Instant s)
    {
        var date = s.InZone(_page.Zone).Date;
        var today = input.Now.InZone(_page.Zone).Date;
        return input.From <= date && date <= input.To && _page.Window switch
        {
            BookingWindow.Ahead ahead => today <= date && date <= today.PlusDays(ahead.Days),
            BookingWindow.Dates dates => dates.From <= date && date <= dates.To,
            _ => true,
        };
    }

    // Rule 4.
    private bool Only(Instant s) => _page.Only switch
    {
        OnlyTimes.Exact exact => exact.Starts.Contains(s),
        OnlyTimes.Painted painted => EachMoment(s).All(moment => painted.Spans.Any(span => span.Contains(moment))),
        _ => true,
    };

    // Rule 5.
    private bool PageCaps(Instant s)
    {
        if (input.Hosts.Any(host => HoldsExactly(host, s))) return true;
        var starts = _page.Sessions.Where(session => session.Id != input.Moving).Select(session => session.Start.InZone(_page.Zone).Date).ToList();
        var date = s.InZone(_page.Zone).Date;
        return (_page.DailyCap is not { } daily || starts.Count(other => other == date) < daily)
            && (_page.WeeklyCap is not { } weekly || starts.Count(other => MondayOf(other) == MondayOf(date)) < weekly);
    }

    // Rule 6.
    private bool HoursAllow(HostFacts host, Instant s) => _page.Only is not null || EachMoment(s).All(moment => OpenAt(host, moment));

    private bool OpenAt(HostFacts host, Instant moment)
    {
        if (_page.Only is OnlyTimes.Painted painted) return painted.Spans.Any(span => span.Contains(moment));
        return _page.HoursMode switch
        {
            HoursMode.Hosts => OpenBy(host.Hours, moment),
            HoursMode.Page => OpenBy(_page.Hours, moment),
            _ => OpenBy(host.Hours, moment) && OpenBy(_page.Hours, moment),
        };
    }

    private static bool OpenBy(HoursSet? hours, Instant moment)
    {
        if (hours is null) return true;
        var local = moment.InZone(hours.Zone).LocalDateTime;
        var minute = local.Hour * 60 + local.Minute;
        var change = hours.Changes.LastOrDefault(candidate => candidate.From <= local.Date && local.Date <= candidate.To);
        var open = change is not null ? change.Open : hours.Week.TryGetValue(local.DayOfWeek, out var weekly) ? weekly : [];
        return open.Any(time => time.From <= minute && minute < time.To);
    }

    // Rules 7 and 8.
    private bool CalendarsAllow(HostFacts host, Instant s)
    {
        var wide = new Span(s - Duration.FromMinutes(_page.BufferBefore), s + _duration + Duration.FromMinutes(_page.BufferAfter));
        return host.IgnoresCalendars || !host.Busy.Any(busy => busy.End > busy.Start && busy.Meets(wide));
    }

    private bool CommitmentsAllow(HostFacts host, Instant s)
    {
        var own = new Span(s, s + _duration);
        var wide = new Span(s - Duration.FromMinutes(_page.BufferBefore), own.End + Duration.FromMinutes(_page.BufferAfter));
        return !Blocking(host).Any(taken =>
            new Span(taken.Start, taken.End).Meets(wide)
            || new Span(taken.Start - Duration.FromMinutes(taken.BufferBefore), taken.End + Duration.FromMinutes(taken.BufferAfter)).Meets(own));
    }

    private IEnumerable<Commitment> Blocking(HostFacts host) => host.Commitments.Where(taken => taken.End > taken.Start
        && !(taken.Kind == CommitmentKind.Hold && taken.Holder == input.AsHolder)
        && !(taken.Kind == CommitmentKind.Booking && taken.Holder == input.Moving));

    // Rule 9.
    private bool HostCaps(HostFacts host, Instant s)
    {
        if (HoldsExactly(host, s)) return true;
        var bookings = Blocking(host).Where(taken => taken.Kind == CommitmentKind.Booking).ToList();
        var date = s.InZone(host.Zone).Date;
        int Count(Func<LocalDate, bool> on) => bookings.Where(taken => on(taken.Start.InZone(host.Zone).Date)).Select(taken => taken.Holder).Distinct().Count();
        return (host.DailyCap is not { } daily || Count(other => other == date) < daily)
            && (host.WeeklyCap is not { } weekly || Count(other => MondayOf(other) == MondayOf(date)) < weekly);
    }

    // Rule 10, by trying every way to fill the seats.
    private bool Seats(Instant s, int seat, List<string> taken)
    {
        if (seat == _page.LineUp.Count) return true;
        return _page.LineUp[seat].AnyOf
            .Where(id => !taken.Contains(id))
            .Where(id => CanTake(input.Hosts.Single(host => host.Id == id), s))
            .Any(id => Seats(s, seat + 1, [.. taken, id]));
    }

    private bool CanTake(HostFacts host, Instant s) =>
        HoursAllow(host, s) && CalendarsAllow(host, s) && CommitmentsAllow(host, s) && HostCaps(host, s)
        && (_page.StepFrom == StepFrom.Clock || _page.Only is OnlyTimes.Exact || OnGridOf(host, s));

    private bool HoldsExactly(HostFacts host, Instant s) => host.Commitments.Any(taken =>
        taken.Kind == CommitmentKind.Hold && input.AsHolder is { } holder && taken.Holder == holder && taken.Start == s && taken.End == s + _duration);

    private IEnumerable<HostFacts> LineUpHosts() =>
        _page.LineUp.SelectMany(seat => seat.AnyOf).Distinct().Select(id => input.Hosts.Single(host => host.Id == id));

    /// <summary>Moments close enough together that nothing which starts or ends on a minute or half a minute can hide between two.</summary>
    private IEnumerable<Instant> EachMoment(Instant s)
    {
        for (var moment = s; moment < s + _duration; moment += Duration.FromSeconds(30)) yield return moment;
    }

    private static LocalDate MondayOf(LocalDate date) => date.With(DateAdjusters.PreviousOrSame(IsoDayOfWeek.Monday));
}
