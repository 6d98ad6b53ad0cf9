using LooseLantern.Core.Hours;
using LooseLantern.Core.Openings;
using NodaTime;

namespace LooseLantern.Core.Links;

/// <summary>An offer as the rules that openings are computed by.</summary>
public static class OfferRules
{
    private static readonly IsoDayOfWeek[] Week = [.. Enumerable.Range(1, 7).Select(day => (IsoDayOfWeek)day)];

    /// <summary>
    /// The rules of an appointment with those of its offer: it takes the place of the window, and of hours where times
    /// are picked or painted.
    /// </summary>
    /// <param name="rules">Of the appointment: its zone, grid, buffers, notice and line-up.</param>
    /// <param name="today">The local date in that zone; nothing before it is offered.</param>
    public static PageRules Apply(PageRules rules, Offer offer, LocalDate today)
    {
        var first = offer.From is { } from ? LocalDate.Max(from, today) : today;
        var within = rules with { Window = new BookingWindow.Dates(first, offer.Until) };
        return offer.By switch
        {
            OfferBy.Picked => within with { Only = new OnlyTimes.Exact([.. offer.Picked]) },
            OfferBy.Painted => within with { Only = new OnlyTimes.Painted(Painted(offer, rules.Zone, today)) },
            _ when IsWholeWeek(offer) => within with { HoursMode = HoursMode.Hosts, Hours = null },
            _ => within with { HoursMode = HoursMode.Both, Hours = HoursOf(offer, rules.Zone) },
        };
    }

    /// <summary>
    /// Painted time as spans, from <paramref name="today"/> to the last date, with what repeats unrolled. What lies on
    /// the wall clock stays there: over a clock change a span is so much longer or shorter in elapsed time, or in two
    /// where only a part of the repeated hour is painted.
    /// </summary>
    public static IReadOnlyList<Span> Painted(Offer offer, DateTimeZone zone, LocalDate today)
    {
        var spans = new List<Span>();
        foreach (var paint in offer.Painted)
        {
            // Paint of yesterday may reach into today.
            for (var start = paint.Start; start.Date <= offer.Until; start = start.PlusDays(7))
            {
                if (start.Date >= today.PlusDays(-1))
                    spans.AddRange(Within(offer, zone, start, start.PlusMinutes(paint.Minutes)));
                if (!paint.IsWeekly)
                    break;
            }
        }

        return SpanUnion.Of(spans);
    }

    /// <summary>Of one run of wall clock, what lies on the days and within the hours that count.</summary>
    private static IEnumerable<Span> Within(Offer offer, DateTimeZone zone, LocalDateTime from, LocalDateTime to)
    {
        for (var date = from.Date; date <= to.Date; date = date.PlusDays(1))
        {
            if (!Counts(offer, date.DayOfWeek))
                continue;
            var (earliest, latest) = (
                date.AtMidnight().PlusMinutes(offer.FromMinute),
                date.AtMidnight().PlusMinutes(offer.ToMinute)
            );
            var (first, last) = (from > earliest ? from : earliest, to < latest ? to : latest);
            if (first >= last)
                continue;
            foreach (var span in Instants(first, last, zone))
                yield return span;
        }
    }

    private static bool Counts(Offer offer, IsoDayOfWeek day) => offer.Days.Count == 0 || offer.Days.Contains(day);

    private static bool IsWholeWeek(Offer offer) =>
        offer is { FromMinute: <= 0, ToMinute: >= OpenTime.MinutesOfDay } && Week.All(day => Counts(offer, day));

    private static HoursSet HoursOf(Offer offer, DateTimeZone zone) =>
        new(
            zone,
            Week.ToDictionary(
                day => day,
                day =>
                    (IReadOnlyList<OpenTime>)(
                        Counts(offer, day) ? [new OpenTime(offer.FromMinute, offer.ToMinute)] : []
                    )
            ),
            []
        );

    /// <summary>
    /// The instants whose time on the wall lies in a run of it, as with hours: time that a clock skips is none, and of
    /// a repeated hour both passes are, but no more of either than the run has.
    /// </summary>
    private static IEnumerable<Span> Instants(LocalDateTime from, LocalDateTime to, DateTimeZone zone)
    {
        // No zone is further than a day from UTC.
        var (earliest, latest) = (
            from.InUtc().ToInstant() - Duration.FromDays(1),
            to.InUtc().ToInstant() + Duration.FromDays(1)
        );
        foreach (var interval in zone.GetZoneIntervals(earliest, latest))
        {
            var (start, end) = (
                from.WithOffset(interval.WallOffset).ToInstant(),
                to.WithOffset(interval.WallOffset).ToInstant()
            );
            if (interval.HasStart)
                start = Instant.Max(start, interval.Start);
            if (interval.HasEnd)
                end = Instant.Min(end, interval.End);
            if (start < end)
                yield return new Span(start, end);
        }
    }
}
