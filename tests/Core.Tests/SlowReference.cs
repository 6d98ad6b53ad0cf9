using LooseLantern.Core.Days;

namespace Core.Tests;

/// <summary>
/// The rules once more, each written down as plainly as it can be said and asked of every start by itself: no index, no
/// merging, nothing shared with what it checks but the types. It is far too slow for use, which is what makes it easy
/// to believe. Everything in a random input lies on whole or half minutes, so time is walked in half minutes; whether a
/// host is open at one is remembered once it was asked.
/// </summary>
internal sealed class SlowReference
{
    private static readonly Duration Tick = Duration.FromSeconds(30);
    private const int DaysBack = 16;

    private readonly OpeningsInput _input;
    private readonly PageRules _page;
    private readonly Duration _duration;
    private readonly List<HostFacts> _lineUpHosts;
    private readonly Instant _from;
    private readonly Instant _to;
    private readonly Dictionary<string, bool?[]> _open;
    private readonly Dictionary<string, (Instant Asked, Instant? Start)> _lastStretch = [];

    private SlowReference(OpeningsInput input)
    {
        _input = input;
        _page = input.Page;
        _duration = Duration.FromMinutes(input.Duration);
        _lineUpHosts =
        [
            .. _page
                .LineUp.SelectMany(seat => seat.AnyOf)
                .Distinct()
                .Select(id => input.Hosts.Single(host => host.Id == id)),
        ];
        _from = LocalDays.Start(_page.Zone, input.From) - Duration.FromDays(1);
        _to = LocalDays.Start(_page.Zone, input.To.PlusDays(1)) + Duration.FromDays(1);
        var ticks = (int)((_to - _from + Duration.FromDays(DaysBack + 2)) / Tick);
        _open = input.Hosts.ToDictionary(host => host.Id, _ => new bool?[ticks]);
    }

    public static IReadOnlyList<Opening> Openings(OpeningsInput input)
    {
        var reference = new SlowReference(input);
        var page = input.Page;
        // Everything that could be a start: hours lie on whole minutes, what is painted or named also on half of one.
        var starts = new List<Instant>();
        var step = page.Only is null ? Tick * 2 : Tick;
        for (var moment = reference._from; moment < reference._to; moment += step)
            starts.Add(moment);
        foreach (var session in page.Sessions.Where(session => !starts.Contains(session.Start)))
            starts.Add(session.Start);
        starts.Sort();
        return
        [
            .. starts.Select(reference.OpeningAt).Where(opening => opening is not null).Select(opening => opening!),
        ];
    }

    /// <summary>
    /// The rules from 2 to 9 that fail for s: those asked of the page, and those asked of hosts who have a seat to
    /// themselves.
    /// </summary>
    public static IEnumerable<(int Rule, string? Host)> Failing(OpeningsInput input, Instant s)
    {
        var reference = new SlowReference(input);
        if (!reference.Notice(s))
            yield return (2, null);
        if (!reference.Window(s))
            yield return (3, null);
        if (!reference.Only(s))
            yield return (4, null);
        if (!reference.PageCaps(s))
            yield return (5, null);
        foreach (
            var host in input
                .Page.LineUp.Where(seat => seat.AnyOf.Count == 1)
                .Select(seat => reference.Host(seat.AnyOf[0]))
                .Distinct()
        )
        {
            if (!reference.HoursAllow(host, s))
                yield return (6, host.Id);
            if (!reference.CalendarsAllow(host, s))
                yield return (7, host.Id);
            if (!reference.CommitmentsAllow(host, s))
                yield return (8, host.Id);
            if (!reference.HostCaps(host, s))
                yield return (9, host.Id);
        }
    }

    private Opening? OpeningAt(Instant s)
    {
        if (!Notice(s) || !Window(s))
            return null;
        var standing = _page
            .Sessions.Where(session =>
                session.Id != _input.Moving
                && _page.Places > 1
                && session.Start == s
                && session.End == s + _duration
                && session.Guests + _input.Party <= _page.Places
            )
            .ToList();
        if (standing.Count > 0 && (_page.Only is null || Only(s)))
            return new Opening(s, s + _duration, standing.Min(session => _page.Places - session.Guests));
        if (_input.Party > _page.Places || !Grid(s) || !Only(s) || !PageCaps(s))
            return null;
        return Seats(s, 0, []) ? new Opening(s, s + _duration, _page.Places) : null;
    }

    // Rule 1.
    private bool Grid(Instant s) =>
        _page.Only is OnlyTimes.Exact
        || (_page.StepFrom == StepFrom.Clock ? OnClock(s, _page.StepOffset) : OnSomeOpenGrid(s));

    private bool OnClock(Instant s, int offset)
    {
        if (s.ToUnixTimeSeconds() % 60 != 0)
            return false;
        var local = s.InZone(_page.Zone).TimeOfDay;
        return (local.Hour * 60 + local.Minute - offset) % _page.Step == 0;
    }

    private bool OnSomeOpenGrid(Instant s)
    {
        var starts = _lineUpHosts.Select(host => StretchStart(host, s)).ToList();
        if (starts.TrueForAll(start => start is null))
            return OnClock(s, 0);
        return starts.Exists(start => start is { } known && (s - known).TotalMinutes % _page.Step == 0);
    }

    private bool OnGridOf(HostFacts host, Instant s) =>
        StretchStart(host, s) is not { } start || (s - start).TotalMinutes % _page.Step == 0;

    /// <summary>
    /// The start of the open stretch around s, looked for half minute by half minute; null where there is none within
    /// twelve days, which no random input can reach in any other way than by being open always. A walk that comes to
    /// the last one's end goes no further.
    /// </summary>
    private Instant? StretchStart(HostFacts host, Instant s)
    {
        if (!OpenAt(host, s))
            return null;
        if (_page.Only is not OnlyTimes.Painted && _page.HoursMode == HoursMode.Hosts && host.Hours is null)
            return null;
        var (lastAsked, lastStart) = _lastStretch.GetValueOrDefault(host.Id, (Instant.MinValue, null));
        var start = s;
        while (start != lastAsked && s - start < Duration.FromDays(12) && OpenAt(host, start - Tick))
            start -= Tick;
        var found =
            start == lastAsked ? lastStart
            : s - start < Duration.FromDays(12) ? start
            : (Instant?)null;
        _lastStretch[host.Id] = (s, found);
        return found;
    }

    // Rules 2 and 3.
    private bool Notice(Instant s) => s >= _input.Now + Duration.FromMinutes(_page.Notice);

    private bool Window(Instant s)
    {
        var date = s.InZone(_page.Zone).Date;
        var today = _input.Now.InZone(_page.Zone).Date;
        return _input.From <= date
            && date <= _input.To
            && _page.Window switch
            {
                BookingWindow.Ahead ahead => today <= date && date <= today.PlusDays(ahead.Days),
                BookingWindow.Dates dates => dates.From <= date && date <= dates.To,
                _ => true,
            };
    }

    // Rule 4.
    private bool Only(Instant s) =>
        _page.Only switch
        {
            OnlyTimes.Exact exact => exact.Starts.Contains(s),
            OnlyTimes.Painted painted => EachMoment(s).All(moment => painted.Spans.Any(span => span.Contains(moment))),
            _ => true,
        };

    // Rule 5.
    private bool PageCaps(Instant s)
    {
        if (_input.Hosts.Any(host => HoldsExactly(host, s)))
            return true;
        var starts = _page
            .Sessions.Where(session => session.Id != _input.Moving)
            .Select(session => session.Start.InZone(_page.Zone).Date)
            .ToList();
        var date = s.InZone(_page.Zone).Date;
        return (_page.DailyCap is not { } daily || starts.Count(other => other == date) < daily)
            && (_page.WeeklyCap is not { } weekly || starts.Count(other => MondayOf(other) == MondayOf(date)) < weekly);
    }

    // Rule 6.
    private bool HoursAllow(HostFacts host, Instant s) =>
        _page.Only is not null || EachMoment(s).All(moment => OpenAt(host, moment));

    private bool OpenAt(HostFacts host, Instant moment) =>
        _open[host.Id][(int)((moment - _from + Duration.FromDays(DaysBack)) / Tick)] ??= ReckonOpenAt(host, moment);

    private bool ReckonOpenAt(HostFacts host, Instant moment)
    {
        if (_page.Only is OnlyTimes.Painted painted)
            return painted.Spans.Any(span => span.Contains(moment));
        return _page.HoursMode switch
        {
            HoursMode.Hosts => OpenBy(host.Hours, moment),
            HoursMode.Page => OpenBy(_page.Hours, moment),
            _ => OpenBy(host.Hours, moment) && OpenBy(_page.Hours, moment),
        };
    }

    private static bool OpenBy(HoursSet? hours, Instant moment)
    {
        if (hours is null)
            return true;
        var local = moment.InZone(hours.Zone).LocalDateTime;
        var minute = local.Hour * 60 + local.Minute;
        var change = hours.Changes.LastOrDefault(candidate =>
            candidate.From <= local.Date && local.Date <= candidate.To
        );
        var open =
            change is not null ? change.Open
            : hours.Week.TryGetValue(local.DayOfWeek, out var weekly) ? weekly
            : [];
        return open.Any(time => time.From <= minute && minute < time.To);
    }

    // Rules 7 and 8.
    private bool CalendarsAllow(HostFacts host, Instant s)
    {
        var wide = new Span(
            s - Duration.FromMinutes(_page.BufferBefore),
            s + _duration + Duration.FromMinutes(_page.BufferAfter)
        );
        return host.IgnoresCalendars || !host.Busy.Any(busy => busy.End > busy.Start && busy.Meets(wide));
    }

    private bool CommitmentsAllow(HostFacts host, Instant s)
    {
        var own = new Span(s, s + _duration);
        var wide = new Span(
            s - Duration.FromMinutes(_page.BufferBefore),
            own.End + Duration.FromMinutes(_page.BufferAfter)
        );
        return !Blocking(host)
            .Any(taken =>
                new Span(taken.Start, taken.End).Meets(wide)
                || new Span(
                    taken.Start - Duration.FromMinutes(taken.BufferBefore),
                    taken.End + Duration.FromMinutes(taken.BufferAfter)
                ).Meets(own)
            );
    }

    private IEnumerable<Commitment> Blocking(HostFacts host) =>
        host.Commitments.Where(taken =>
            taken.End > taken.Start
            && !(taken.Kind == CommitmentKind.Hold && taken.Holder == _input.AsHolder)
            && !(taken.Kind == CommitmentKind.Booking && taken.Holder == _input.Moving)
        );

    // Rule 9.
    private bool HostCaps(HostFacts host, Instant s)
    {
        if (HoldsExactly(host, s))
            return true;
        var bookings = Blocking(host).Where(taken => taken.Kind == CommitmentKind.Booking).ToList();
        var date = s.InZone(host.Zone).Date;
        int Count(Func<LocalDate, bool> on) =>
            bookings
                .Where(taken => on(taken.Start.InZone(host.Zone).Date))
                .Select(taken => taken.Holder)
                .Distinct()
                .Count();
        return (host.DailyCap is not { } daily || Count(other => other == date) < daily)
            && (host.WeeklyCap is not { } weekly || Count(other => MondayOf(other) == MondayOf(date)) < weekly);
    }

    // Rule 10, by trying every way to fill the seats.
    private bool Seats(Instant s, int seat, List<string> taken)
    {
        if (seat == _page.LineUp.Count)
            return true;
        return _page
            .LineUp[seat]
            .AnyOf.Where(id => !taken.Contains(id))
            .Where(id => CanTake(Host(id), s))
            .Any(id => Seats(s, seat + 1, [.. taken, id]));
    }

    private bool CanTake(HostFacts host, Instant s) =>
        CalendarsAllow(host, s)
        && CommitmentsAllow(host, s)
        && HostCaps(host, s)
        && HoursAllow(host, s)
        && (_page.StepFrom == StepFrom.Clock || _page.Only is OnlyTimes.Exact || OnGridOf(host, s));

    private bool HoldsExactly(HostFacts host, Instant s) =>
        host.Commitments.Any(taken =>
            taken.Kind == CommitmentKind.Hold
            && _input.AsHolder is { } holder
            && taken.Holder == holder
            && taken.Start == s
            && taken.End == s + _duration
        );

    private HostFacts Host(string id) => _input.Hosts.Single(host => host.Id == id);

    /// <summary>
    /// Moments close enough together that nothing which starts or ends on a minute or half a minute can hide between
    /// two.
    /// </summary>
    private IEnumerable<Instant> EachMoment(Instant s)
    {
        var step = s.ToUnixTimeSeconds() % 60 == 0 && _page.Only is null ? Tick * 2 : Tick;
        for (var moment = s; moment < s + _duration; moment += step)
            yield return moment;
    }

    private static LocalDate MondayOf(LocalDate date) => date.With(DateAdjusters.PreviousOrSame(IsoDayOfWeek.Monday));
}
