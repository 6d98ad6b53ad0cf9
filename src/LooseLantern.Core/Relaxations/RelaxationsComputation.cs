using LooseLantern.Core.Hours;
using LooseLantern.Core.Openings;

namespace LooseLantern.Core.Relaxations;

/// <summary>
/// What would open more: each single change of a rule is made and everything computed anew, so nothing is guessed.
/// </summary>
public static class RelaxationsComputation
{
    /// <summary>
    /// By how many days a window is lengthened. The input has to reach as far beyond the window for it to show a gain.
    /// </summary>
    public const int MoreDays = 7;

    private const int AnHour = 60;

    /// <summary>
    /// Every change that makes sense for <paramref name="input"/>: the largest gains first, then those that add
    /// nothing, and of equal ones in the order of <see cref="RelaxedRule"/>, seats and hosts.
    /// </summary>
    /// <param name="moreHosts">Hosts of the input who may be added to a seat.</param>
    public static IReadOnlyList<Relaxation> Of(OpeningsInput input, IReadOnlyCollection<string> moreHosts)
    {
        var now = OpeningsComputation.Openings(input).Select(opening => opening.Start).ToHashSet();
        return
        [
            .. Changes(input, moreHosts)
                .Select(change =>
                {
                    var then = OpeningsComputation.Openings(change.Input);
                    var gained = then.Where(opening => !now.Contains(opening.Start)).ToList();
                    return change.Relaxation with
                    {
                        Gained = gained,
                        Lost = now.Count - (then.Count - gained.Count),
                        Then = change.Input,
                    };
                })
                .OrderByDescending(relaxation => relaxation.Gained.Count),
        ];
    }

    private static IEnumerable<(Relaxation Relaxation, OpeningsInput Input)> Changes(
        OpeningsInput input,
        IReadOnlyCollection<string> moreHosts
    ) => [.. Minutes(input), .. Window(input), .. Caps(input), .. Hours(input), .. Seats(input, moreHosts)];

    private static IEnumerable<(Relaxation, OpeningsInput)> Minutes(OpeningsInput input)
    {
        var page = input.Page;
        (Relaxation, OpeningsInput) Change(RelaxedRule rule, int from, int to, PageRules changed) =>
            (new Relaxation(rule) { Value = (from, to) }, input with { Page = changed });

        if (page.Notice > 1)
            yield return Change(
                RelaxedRule.NoticeHalved,
                page.Notice,
                page.Notice / 2,
                page with
                {
                    Notice = page.Notice / 2,
                }
            );
        if (page.Notice > 0)
            yield return Change(RelaxedRule.NoticeDropped, page.Notice, 0, page with { Notice = 0 });
        if (page.BufferBefore > 1)
            yield return Change(
                RelaxedRule.BufferBeforeHalved,
                page.BufferBefore,
                page.BufferBefore / 2,
                page with
                {
                    BufferBefore = page.BufferBefore / 2,
                }
            );
        if (page.BufferBefore > 0)
            yield return Change(RelaxedRule.BufferBeforeDropped, page.BufferBefore, 0, page with { BufferBefore = 0 });
        if (page.BufferAfter > 1)
            yield return Change(
                RelaxedRule.BufferAfterHalved,
                page.BufferAfter,
                page.BufferAfter / 2,
                page with
                {
                    BufferAfter = page.BufferAfter / 2,
                }
            );
        if (page.BufferAfter > 0)
            yield return Change(RelaxedRule.BufferAfterDropped, page.BufferAfter, 0, page with { BufferAfter = 0 });
        if (Shorter(input.Duration) is { } shorter)
            yield return (
                new Relaxation(RelaxedRule.ShorterDuration) { Value = (input.Duration, shorter) },
                input with
                {
                    Duration = shorter,
                }
            );
    }

    /// <summary>
    /// The next shorter duration people would use: a quarter of an hour less, or five minutes less of a short one.
    /// </summary>
    private static int? Shorter(int duration) =>
        duration switch
        {
            > 15 => (duration - 1) / 15 * 15,
            > 5 => (duration - 1) / 5 * 5,
            _ => null,
        };

    private static IEnumerable<(Relaxation, OpeningsInput)> Window(OpeningsInput input)
    {
        switch (input.Page.Window)
        {
            case BookingWindow.Ahead { Days: var days }:
                yield return (
                    new Relaxation(RelaxedRule.LongerWindow) { Value = (days, days + MoreDays) },
                    input with
                    {
                        Page = input.Page with { Window = new BookingWindow.Ahead(days + MoreDays) },
                    }
                );
                break;
            case BookingWindow.Dates dates:
                var length = NodaTime.Period.DaysBetween(dates.From, dates.To) + 1;
                yield return (
                    new Relaxation(RelaxedRule.LongerWindow) { Value = (length, length + MoreDays) },
                    input with
                    {
                        Page = input.Page with { Window = dates with { To = dates.To.PlusDays(MoreDays) } },
                    }
                );
                break;
        }
    }

    private static IEnumerable<(Relaxation, OpeningsInput)> Caps(OpeningsInput input)
    {
        Relaxation Raised(RelaxedRule rule, int cap, string? host = null) =>
            new Relaxation(rule) { Value = (cap, cap + 1), Host = host };

        var page = input.Page;
        if (page.DailyCap is { } daily)
            yield return (
                Raised(RelaxedRule.PageDailyCapRaised, daily),
                input with
                {
                    Page = page with { DailyCap = daily + 1 },
                }
            );
        if (page.WeeklyCap is { } weekly)
            yield return (
                Raised(RelaxedRule.PageWeeklyCapRaised, weekly),
                input with
                {
                    Page = page with { WeeklyCap = weekly + 1 },
                }
            );
        foreach (var host in InLineUp(input))
        {
            if (host.DailyCap is { } perDay)
                yield return (
                    Raised(RelaxedRule.HostDailyCapRaised, perDay, host.Id),
                    WithHost(input, host with { DailyCap = perDay + 1 })
                );
            if (host.WeeklyCap is { } perWeek)
                yield return (
                    Raised(RelaxedRule.HostWeeklyCapRaised, perWeek, host.Id),
                    WithHost(input, host with { WeeklyCap = perWeek + 1 })
                );
        }
    }

    private static IEnumerable<(Relaxation, OpeningsInput)> Hours(OpeningsInput input)
    {
        // Where `only` takes their place, or nobody has any, hours have no effect.
        if (
            input.Page.Only is not null
            || (input.Page.HoursMode == HoursMode.Hosts && InLineUp(input).All(host => host.Hours is null))
        )
            yield break;
        yield return (
            new Relaxation(RelaxedRule.HoursEarlier),
            WithHours(input, hours => Wider(hours, RelaxedRule.HoursEarlier))
        );
        yield return (
            new Relaxation(RelaxedRule.HoursLater),
            WithHours(input, hours => Wider(hours, RelaxedRule.HoursLater))
        );
    }

    private static IEnumerable<(Relaxation, OpeningsInput)> Seats(
        OpeningsInput input,
        IReadOnlyCollection<string> moreHosts
    )
    {
        var lineUp = input.Page.LineUp;
        for (var position = 0; position < lineUp.Count; position++)
        {
            var (seat, at) = (lineUp[position], position);
            foreach (var host in moreHosts.Where(host => !seat.AnyOf.Contains(host)))
            {
                yield return (
                    new Relaxation(RelaxedRule.SeatOpened) { Seat = at, Host = host },
                    WithLineUp(
                        input,
                        [.. lineUp.Select((other, i) => i == at ? new Seat([.. other.AnyOf, host]) : other)]
                    )
                );
            }

            if (seat.AnyOf.Count == 1 && lineUp.Count > 1)
            {
                yield return (
                    new Relaxation(RelaxedRule.HostOptional) { Seat = at, Host = seat.AnyOf[0] },
                    WithLineUp(input, [.. lineUp.Where((_, i) => i != at)])
                );
            }
        }
    }

    private static IEnumerable<HostFacts> InLineUp(OpeningsInput input) =>
        input.Hosts.Where(host => input.Page.LineUp.Any(seat => seat.AnyOf.Contains(host.Id)));

    private static OpeningsInput WithLineUp(OpeningsInput input, IReadOnlyList<Seat> lineUp) =>
        input with
        {
            Page = input.Page with { LineUp = lineUp },
        };

    private static OpeningsInput WithHost(OpeningsInput input, HostFacts changed) =>
        input with
        {
            Hosts = [.. input.Hosts.Select(host => host.Id == changed.Id ? changed : host)],
        };

    private static OpeningsInput WithHours(OpeningsInput input, Func<HoursSet, HoursSet> change) =>
        input with
        {
            Page = input.Page with { Hours = input.Page.Hours is { } own ? change(own) : null },
            Hosts =
            [
                .. input.Hosts.Select(host => host.Hours is { } hours ? host with { Hours = change(hours) } : host),
            ],
        };

    private static HoursSet Wider(HoursSet hours, RelaxedRule rule) =>
        hours with
        {
            Week = hours.Week.ToDictionary(day => day.Key, day => Wider(day.Value, rule)),
            Changes = [.. hours.Changes.Select(change => change with { Open = Wider(change.Open, rule) })],
        };

    /// <summary>
    /// A day's open time, begun an hour earlier or ended an hour later, within the day; a closed day stays closed.
    /// </summary>
    /// <param name="rule">One of those two.</param>
    public static IReadOnlyList<OpenTime> Wider(IReadOnlyList<OpenTime> open, RelaxedRule rule)
    {
        if (open.Count == 0)
            return open;
        var (first, last) = (open.Min(time => time.From), open.Max(time => time.To));
        if (rule == RelaxedRule.HoursEarlier)
            return first == 0 ? open : [.. open, new OpenTime(Math.Max(0, first - AnHour), first)];
        return last == OpenTime.MinutesOfDay
            ? open
            : [.. open, new OpenTime(last, Math.Min(OpenTime.MinutesOfDay, last + AnHour))];
    }
}
