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
        DailyCap: null,
        WeeklyCap: null,
        Places: 1,
        [
            .. page.Seats.OrderBy(seat => seat.Position).Select(seat =>
                new Seat([.. seat.Hosts.OrderBy(host => host.Position).Select(host => OpeningsLoader.Id(host.HostId))])),
        ],
        Only: null,
        // Sessions count for caps and places; a page without caps, for one guest a session, asks for none.
        Sessions: []);
}
