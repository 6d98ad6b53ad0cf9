using LooseLantern.Core.Openings;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Calendars.Looking;
using LooseLantern.Server.Features.Openings;
using LooseLantern.Server.Features.Pages;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Reserving;

/// <summary>The page that a guest wishes a time of: before any lock is taken, and once the time has gone.</summary>
public sealed class WishedPages(LanternDb db, PageEditing pages, OpeningsInputs inputs, CalendarLooking looking)
{
    private const int NearestOffered = 6;
    private const int DaysLookedThrough = 28;

    /// <summary>
    /// The page as guests have it. Of a link the team books what no guest was sent yet, too; what became of one that is
    /// closed is asked later.
    /// </summary>
    /// <exception cref="Refusal">404 where there is none.</exception>
    public async Task<Page> GetAsync(BookingWish wish, CancellationToken ct) =>
        await pages
            .Whole()
            .AsNoTracking()
            .FirstOrDefaultAsync(
                page =>
                    page.Id == wish.PageId
                    && (
                        page.State == PageState.Published
                        || (page.Offer != null && (wish.ByTeam || page.State == PageState.Archived))
                    ),
                ct
            )
        ?? throw Refusal.NotFound("page");

    /// <summary>
    /// Fetches what takes long and needs no lock: calendars that were not looked at for a while, and what the day is
    /// computed from.
    /// </summary>
    public async Task PrepareAsync(BookingWish wish, CancellationToken ct)
    {
        var rules = inputs.Rules(await GetAsync(wish, ct));
        var day = wish.Start.InZone(rules.Zone).Date;
        var (first, last) = rules.Rules.Window.Within(day, day, inputs.Today(rules));
        if (first > last)
            return;
        await looking.FreshenAsync(rules.HostIds, ct);
        await inputs.PrepareAsync(rules, day, day, wish.Duration, ct);
    }

    /// <summary>What is told where the time is not open any more: the nearest that are.</summary>
    public async Task<Refusal> GoneAsync(BookingWish wish, CancellationToken ct)
    {
        db.ChangeTracker.Clear();

        var rules = inputs.Rules(await GetAsync(wish, ct), wish.Party);
        var from = LocalDate.Max(
            inputs.Today(rules),
            wish.Start.InZone(rules.Zone).Date.PlusDays(-DaysLookedThrough / 2)
        );
        var left = await inputs.OpeningsAsync(rules, from, from.PlusDays(DaysLookedThrough), wish.Duration, ct);
        return new Refusal(StatusCodes.Status409Conflict, "opening-gone")
        {
            More = { ["nearest"] = NearestOpenings.To(wish.Start, left, NearestOffered) },
        };
    }
}
