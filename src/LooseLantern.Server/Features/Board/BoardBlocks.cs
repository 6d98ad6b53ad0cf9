using LooseLantern.Core;
using LooseLantern.Formats.ICalendar.Blocks;
using LooseLantern.Server.Features.Openings;
using LooseLantern.Server.Features.Pages;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Board;

/// <summary>The office hours of pages, in the lanes of everybody who has a seat there.</summary>
public sealed class BoardBlocks(PageEditing pages)
{
    internal async Task AddAsync(
        List<LaneDrawing> lanes,
        Span range,
        DateTimeZone zone,
        HashSet<Guid> offered,
        CancellationToken ct
    )
    {
        var withBlocks = await pages
            .Whole()
            .AsNoTracking()
            .Where(page => page.Blocks.Count > 0)
            .OrderBy(page => page.Title)
            .ToListAsync(ct);
        var (first, last) = (range.Start.InZone(zone).Date.PlusDays(-1), range.End.InZone(zone).Date.PlusDays(1));
        foreach (var page in withBlocks)
        {
            var own = DateTimeZoneProviders.Tzdb[page.Zone];
            var seated = page.Seats.SelectMany(seat => seat.Hosts).Select(host => host.HostId).ToHashSet();
            var mayChange = seated.All(offered.Contains);
            foreach (
                var (block, index) in page
                    .Blocks.OrderBy(block => block.Start)
                    .ThenBy(block => block.Id)
                    .Select((block, index) => (block, index))
            )
            {
                foreach (var start in OfficeHours.Starts(PageRulesOf.BlockOf(block), first, last))
                {
                    var span = new Span(
                        start.InZoneLeniently(own).ToInstant(),
                        start.PlusMinutes(block.Length).InZoneLeniently(own).ToInstant()
                    );
                    if (!span.Meets(range))
                        continue;
                    var one = new BoardBlock(
                        page.Id,
                        index,
                        start,
                        block.Length,
                        block.Rule is not null,
                        page.Zone,
                        mayChange
                    );
                    foreach (var lane in lanes.Where(lane => seated.Contains(lane.Host.Id)))
                        lane.Add(
                            BarKind.Block,
                            span,
                            page.Title,
                            page.State == Data.Model.PageState.Draft ? "a draft" : "office hours",
                            mark: page.Mark,
                            block: one
                        );
                }
            }
        }
    }
}
