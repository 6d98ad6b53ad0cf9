using LooseLantern.Core.Hours;
using LooseLantern.Core.Openings;
using NodaTime;

namespace LooseLantern.Core.Links;

/// <summary>An offer as the rules that openings are computed by.</summary>
public static class OfferRules
{
    private static readonly IsoDayOfWeek[] Week = [.. Enumerable.Range(1, 7).Select(day => (IsoDayOfWeek)day)];

    /// <summary>The rules of an appointment with those of its offer: it takes the place of the window, and of hours where times are marked or painted.</summary>
    /// <param name="rules">Of the appointment: its zone, grid, buffers, notice and line-up.</param>
    /// <param name="today">The local date in that zone; nothing before it is offered.</param>
    public static PageRules Apply(PageRules rules, Offer offer, LocalDate today)
    {
        var within = rules with { Window = new BookingWindow.Dates(today, offer.Until) };
        return offer.By switch
        {
            OfferBy.Marked => within with { Only = new OnlyTimes.Exact([.. offer.Marked]) },
            OfferBy.Painted => within with { Only = new OnlyTimes.Painted(Painted(offer, rules.Zone, today)) },
            _ when IsWholeWeek(offer) => within with { HoursMode = HoursMode.Hosts, Hours = null },
            _ => within with { HoursMode = HoursMode.Both, Hours = HoursOf(offer, rules.Zone) },
        };
    }

    /// <summary>
    /// Painted time as spans, from <paramref name="today"/> to the last date, with what repeats unrolled. What lies on the wall clock stays
    /// there: over a clock change a span is so much longer or shorter in elapsed time.
    /// </summary>
    public static IReadOnlyList<Span> Painted(Offer offer, DateTimeZone zone, LocalDate today)
    {
        var spans = new List<Span>();
        foreach (var paint in offer.Painted)
        {
            // Paint of yesterday may reach into today.
            for (var start = paint.Start; start.Date <= offer.Until; start = start.PlusDays(7))
            {
                if (start.Date >= today.PlusDays(-1)) spans.AddRange(Within(offer, zone, start, start.PlusMinutes(paint.Minutes)));
                if (!paint.IsWeekly) break;
            }
        }

        return SpanUnion.Of(spans);
    }

    /// <summary>Of one run of wall clock, what lies on the days and within the hours that count.</summary>
    private static IEnumerable<Span> Within(Offer offer, DateTimeZone zone, LocalDateTime from, LocalDateTime to)
    {
        for (var date = from.Date; date <= to.Date; date = date.PlusDays(1))
        {
            if (!Counts(offer, date.DayOfWeek)) continue;
            var (earliest, latest) = (date.AtMidnight().PlusMinutes(offer.FromMinute), date.AtMidnight().PlusMinutes(offer.ToMinute));
            var (first, last) = (from > earliest ? from : earliest, to < latest ? to : latest);
            if (first >= last) continue;
            var span = new Span(At(first, zone), AtEnd(last, zone));
            if (span.End > span.Start) yield return span;
        }
    }

    private static bool Counts(Offer offer, IsoDayOfWeek day) => offer.Days.Count == 0 || offer.Days.Contains(day);

    private static bool IsWholeWeek(Offer offer) => offer is { FromMinute: <= 0, ToMinute: >= OpenTime.MinutesOfDay } && Week.All(day => Counts(offer, day));

    private static HoursSet HoursOf(Offer offer, DateTimeZone zone) => new(
        zone, Week.ToDictionary(day => day, day => (IReadOnlyList<OpenTime>)(Counts(offer, day) ? [new OpenTime(offer.FromMinute, offer.ToMinute)] : [])), []);

    // A time that a clock skips begins when the clock has gone on; one that comes twice begins with the first pass and ends with the second.
    private static Instant At(LocalDateTime local, DateTimeZone zone) => zone.MapLocal(local) is { Count: > 0 } known ? known.First().ToInstant() : zone.MapLocal(local).LateInterval.Start;

    private static Instant AtEnd(LocalDateTime local, DateTimeZone zone) => zone.MapLocal(local) is { Count: > 0 } known ? known.Last().ToInstant() : zone.MapLocal(local).LateInterval.Start;
}
