using LooseLantern.Core.Openings;
using LooseLantern.Server.Data.Model;
using NodaTime;

namespace LooseLantern.Server.Features.Openings;

/// <summary>A page's row as the rules that Core computes with.</summary>
public static class PageRulesOf
{
    /// <param name="page">With its seats, their hosts and its hours loaded; it need not be saved.</param>
    public static PageRules Row(Page page) => new(
        OpeningsLoader.Id(page.Id),
        DateTimeZoneProviders.Tzdb[page.Zone],
        page.Step,
        page.StepOffset,
        page.StepFrom,
        page.BufferBefore,
        page.BufferAfter,
        page.Notice,
        new BookingWindow.Ahead(page.AheadDays),
        page.HoursMode,
        page.Hours?.Document.ToCore(),
        page.DailyCap,
        page.WeeklyCap,
        page.Places,
        [
            .. page.Seats.OrderBy(seat => seat.Position).Select(seat =>
                new Seat([.. seat.Hosts.OrderBy(host => host.Position).Select(host => OpeningsLoader.Id(host.HostId))])),
        ],
        Only: null,
        // What is booked is a fact, not a rule; the loader adds it.
        Sessions: []);
}
