using LooseLantern.Core.Hours;
using LooseLantern.Core.Links;
using LooseLantern.Core.Openings;
using LooseLantern.Core.Relaxations;
using LooseLantern.Formats.ICalendar.Blocks;
using LooseLantern.Server.Data.Model;
using NodaTime;

namespace LooseLantern.Server.Features.Openings;

/// <summary>A page's row as the rules that Core computes with.</summary>
public static class PageRulesOf
{
    // Days are asked a little beyond the window, by other zones and where a longer one is tried.
    private const int DaysBeyond = 3 + RelaxationsComputation.MoreDays;

    // Before anything that is asked; nothing earlier than today is offered in any case.
    private static readonly LocalDate Earliest = new(1900, 1, 1);

    /// <param name="page">With its seats, their hosts, its hours and its blocks loaded; it need not be saved.</param>
    /// <param name="now">From when blocks are counted.</param>
    public static PageRules Row(Page page, Instant now)
    {
        var rules = Appointment(page, now);
        return page.Offer is { } offer ? OfferRules.Apply(rules, offer.Times, now.InZone(rules.Zone).Date) : rules;
    }

    private static PageRules Appointment(Page page, Instant now) =>
        new(
            OpeningsInputs.Id(page.Id),
            DateTimeZoneProviders.Tzdb[page.Zone],
            page.Step,
            page.StepOffset,
            page.StepFrom,
            page.BufferBefore,
            page.BufferAfter,
            page.Notice,
            WindowOf(page),
            page.HoursMode,
            page.Blocks.Count > 0 ? BlockHours(page, now) : page.Hours?.Document.ToCore(),
            page.DailyCap,
            page.WeeklyCap,
            page.Places,
            [
                .. page
                    .Seats.OrderBy(seat => seat.Position)
                    .Select(seat => new Seat([
                        .. seat.Hosts.OrderBy(host => host.Position).Select(host => OpeningsInputs.Id(host.HostId)),
                    ])
                    {
                        Keeper = seat.Keeper,
                    }),
            ],
            Only: null,
            // What is booked is a fact, not a rule; OpeningsInputs adds it.
            Sessions: []
        );

    private static HoursSet BlockHours(Page page, Instant now)
    {
        var zone = DateTimeZoneProviders.Tzdb[page.Zone];
        var (first, last) = DatesToAsk(page, now.InZone(zone).Date);
        return OfficeHours.Of(
            [.. page.Blocks.Select(BlockOf)],
            zone,
            first.PlusDays(-DaysBeyond),
            last.PlusDays(DaysBeyond)
        );
    }

    /// <summary>
    /// The local dates in its own zone on which a page may have openings, as many as one request may ask for; the last
    /// before the first where there are none any more.
    /// </summary>
    public static (LocalDate First, LocalDate Last) DatesOf(Page page, LocalDate today)
    {
        var window = WindowOf(page);
        var first = window is BookingWindow.Dates dates ? LocalDate.Max(today, dates.From) : today;
        return window.Within(first, first.PlusDays(PageLimits.MostDaysAsked - 1), today);
    }

    /// <summary>The same to ask for: the first date alone where nothing is offered any more.</summary>
    public static (LocalDate First, LocalDate Last) DatesToAsk(Page page, LocalDate today)
    {
        var (first, last) = DatesOf(page, today);
        return (first, LocalDate.Max(first, last));
    }

    private static BookingWindow WindowOf(Page page) =>
        page.Offer is { } offer
            ? new BookingWindow.Dates(Earliest, offer.Times.Until)
            : page.Window switch
            {
                { Kind: WindowKind.Dates, From: { } from, To: { } to } => new BookingWindow.Dates(from, to),
                { Kind: WindowKind.Open } => new BookingWindow.Open(),
                _ => new BookingWindow.Ahead(page.AheadDays),
            };

    public static Block BlockOf(BlockRow row) => new(row.Start, row.Length, row.Rule, row.Without);
}
