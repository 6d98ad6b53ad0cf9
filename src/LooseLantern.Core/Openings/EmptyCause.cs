using LooseLantern.Core.Days;
using LooseLantern.Core.Hours;
using NodaTime;

namespace LooseLantern.Core.Openings;

/// <summary>Mistakes by which a page offers nothing at all, whatever calendars say.</summary>
public enum EmptyKind
{
    /// <summary>The last date of its window is over.</summary>
    DatesPast,

    /// <summary>So much notice is needed that the window ends before it.</summary>
    NoticeBeyondWindow,

    /// <summary>The page's own hours are never open.</summary>
    PageClosed,

    /// <summary>A host's hours are never open.</summary>
    HostClosed,

    /// <summary>
    /// The page's hours and a host's are both open, but never at one time, as in two zones far apart.
    /// </summary>
    HoursApart,

    /// <summary>No run of open time is as long as an opening.</summary>
    OpenTooShort,

    /// <summary>Hours are open, but only after the last day that is offered.</summary>
    WindowClosed,

    /// <summary>Hours are open, but only after the days that were looked at.</summary>
    OpensLater,
}

/// <summary>Why a page offers nothing at all.</summary>
/// <param name="Host">Whose hours it is about, by id; null for the page's.</param>
/// <param name="Minutes">The longest run of open time, where that is too short.</param>
/// <param name="Opens">The local date of the page's zone on which hours are open next, where they are so too
/// late.</param>
public sealed record EmptyCause(EmptyKind Kind, string? Host = null, int? Minutes = null, LocalDate? Opens = null)
{
    /// <summary>
    /// How far beyond the days that are looked at hours are asked for that are open: a quarter of a year.
    /// </summary>
    private const int DaysBeyond = 92;

    /// <summary>Every such mistake within the days asked for; empty where what closes the page is taken time.</summary>
    public static IReadOnlyList<EmptyCause> Of(OpeningsInput input)
    {
        var page = input.Page;
        var today = input.Now.InZone(page.Zone).Date;
        if (page.Window is BookingWindow.Dates { To: var to } && to < today)
            return [new EmptyCause(EmptyKind.DatesPast)];
        var (first, last) = page.Window.Within(input.From, input.To, today);
        if (first > last)
            return [];
        var range = new Span(LocalDays.Start(page.Zone, first), LocalDays.Start(page.Zone, last.PlusDays(1)));
        if (
            page.Window is not BookingWindow.Open
            && LastOf(page, today) is { } end
            && input.Now + Duration.FromMinutes(page.Notice) >= LocalDays.Start(page.Zone, end.PlusDays(1))
        )
            return [new EmptyCause(EmptyKind.NoticeBeyondWindow)];
        if (page.Only is not null)
            return [];

        var causes = OfHours(input, range);
        // What is closed for these days alone is no mistake of the hours.
        if (causes.Any(cause => cause.Kind != EmptyKind.OpenTooShort) && NextOpen(input, last.PlusDays(1)) is { } opens)
        {
            var isEnd = LastOf(page, today) is { } lastOffered && lastOffered <= last;
            return [new EmptyCause(isEnd ? EmptyKind.WindowClosed : EmptyKind.OpensLater, Opens: opens)];
        }

        return causes;
    }

    private static IReadOnlyList<EmptyCause> OfHours(OpeningsInput input, Span range)
    {
        var page = input.Page;
        var own = OwnRuns(page, range);
        if (own.Count == 0)
            return [new EmptyCause(EmptyKind.PageClosed)];
        if (page.HoursMode == HoursMode.Page)
            return TooShort(own, input.Duration) is { } alone ? [alone] : [];
        var seats = page
            .LineUp.Select(seat => seat.AnyOf.Select(id => OfHost(input, id, own, range)).ToList())
            .ToList();
        // A seat of several is empty only where none of them can ever take it.
        return
        [
            .. seats
                .Where(seat => seat.TrueForAll(cause => cause is not null))
                .SelectMany(seat => seat)
                .OfType<EmptyCause>()
                .Distinct(),
        ];
    }

    /// <summary>
    /// The first date from one on, on which each seat has somebody who is open for an opening; null where there is none
    /// soon.
    /// </summary>
    private static LocalDate? NextOpen(OpeningsInput input, LocalDate from)
    {
        var page = input.Page;
        var range = new Span(LocalDays.Start(page.Zone, from), LocalDays.Start(page.Zone, from.PlusDays(DaysBeyond)));
        var own = OwnRuns(page, range);
        var seats =
            page.HoursMode == HoursMode.Page
                ? [DatesOf(own)]
                : page.LineUp.Select(seat => seat.AnyOf.SelectMany(id => DatesOf(OpenBoth(input, id, own, range))));
        // Every seat has to be filled on the same day.
        return seats
            .Select(dates => dates.ToHashSet())
            .Aggregate((all, seat) => [.. all.Intersect(seat)])
            .Select(date => (LocalDate?)date)
            .Min();

        IEnumerable<LocalDate> DatesOf(IEnumerable<Span> runs) =>
            runs.Where(run => run.End - run.Start >= Duration.FromMinutes(input.Duration))
                .SelectMany(run => Between(run.Start, run.End - Duration.FromMinutes(input.Duration)));

        IEnumerable<LocalDate> Between(Instant first, Instant last)
        {
            var end = last.InZone(page.Zone).Date;
            for (var date = first.InZone(page.Zone).Date; date <= end; date = date.PlusDays(1))
                yield return date;
        }
    }

    private static IReadOnlyList<Span> OwnRuns(PageRules page, Span range) =>
        page.HoursMode == HoursMode.Hosts || page.Hours is null ? [range] : Runs(page.Hours, range);

    /// <summary>When both the page and a host are open.</summary>
    private static IReadOnlyList<Span> OpenBoth(OpeningsInput input, string id, IReadOnlyList<Span> own, Span range) =>
        input.Hosts.FirstOrDefault(host => host.Id == id)?.Hours is not { } hours ? own : Both(Runs(hours, range), own);

    private static LocalDate? LastOf(PageRules page, LocalDate today) =>
        page.Window switch
        {
            BookingWindow.Ahead ahead => today.PlusDays(ahead.Days),
            BookingWindow.Dates dates => dates.To,
            _ => null,
        };

    private static EmptyCause? OfHost(OpeningsInput input, string id, IReadOnlyList<Span> own, Span range)
    {
        if (input.Hosts.FirstOrDefault(host => host.Id == id)?.Hours is not { } hours)
            return null;
        var runs = Runs(hours, range);
        if (runs.Count == 0)
            return new EmptyCause(EmptyKind.HostClosed, id);
        var both = Both(runs, own);
        return both.Count == 0 ? new EmptyCause(EmptyKind.HoursApart, id)
            : TooShort(both, input.Duration) is { } tooShort ? tooShort with { Host = id }
            : null;
    }

    private static List<Span> Both(IReadOnlyList<Span> runs, IReadOnlyList<Span> own) =>
        [
            .. runs.SelectMany(run =>
                own.Where(span => span.Meets(run))
                    .Select(span => new Span(Instant.Max(run.Start, span.Start), Instant.Min(run.End, span.End)))
            ),
        ];

    private static EmptyCause? TooShort(IReadOnlyList<Span> runs, int duration)
    {
        var longest = (int)runs.Max(run => (run.End - run.Start).TotalMinutes);
        return longest >= duration ? null : new EmptyCause(EmptyKind.OpenTooShort, Minutes: longest);
    }

    private static List<Span> Runs(HoursSet hours, Span range) =>
        [.. OpenStretches.Of(hours, range).Select(stretch => stretch.Time).Where(run => run.Meets(range))];
}
