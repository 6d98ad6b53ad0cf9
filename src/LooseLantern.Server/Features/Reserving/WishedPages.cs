using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Openings;
using LooseLantern.Server.Features.Pages.Kept;
using LooseLantern.Server.Hosting;

namespace LooseLantern.Server.Features.Reserving;

/// <summary>The page that a guest wishes a time of: before any lock is taken, and once the time has gone.</summary>
public sealed class WishedPages(
    LanternDb db,
    PageReading reading,
    OpeningsInputs inputs,
    HostReadiness readiness,
    GoneTimes gone
)
{
    /// <summary>
    /// The page as guests have it. Of a link the team books what no guest was sent yet, too; what became of one that is
    /// closed is asked later.
    /// </summary>
    /// <exception cref="Refusal">404 where there is none.</exception>
    public async Task<KeptPage> GetAsync(BookingWish wish, CancellationToken ct) =>
        Wished(await reading.OfAsync(wish.PageId, ct), wish);

    /// <summary>The same, read from its rows.</summary>
    /// <inheritdoc cref="GetAsync"/>
    public async Task<KeptPage> ReadAsync(BookingWish wish, CancellationToken ct) =>
        Wished(await reading.ReadAsync(wish.PageId, ct), wish);

    /// <summary>
    /// Fetches what takes long and needs no lock: the page, calendars that were not looked at for a while, and what the
    /// day is computed from.
    /// </summary>
    public async Task<KeptPage> PrepareAsync(BookingWish wish, CancellationToken ct)
    {
        // It is asked once more under the locks whether it is so still.
        var page = Wished(reading.Lately(wish.PageId) ?? await reading.OfAsync(wish.PageId, ct), wish);
        var rules = inputs.Rules(page.Page);
        var day = wish.Start.InZone(rules.Zone).Date;
        var (first, last) = rules.Rules.Window.Within(day, day, inputs.Today(rules));
        if (first > last)
            return page;
        await readiness.PrepareAsync(rules.HostIds, new FactsWanted(rules, day, day, wish.Duration).Range, ct);
        return page;
    }

    /// <summary>What is told where the time is not open any more: the nearest that are.</summary>
    public async Task<Refusal> GoneAsync(BookingWish wish, CancellationToken ct)
    {
        db.ChangeTracker.Clear();
        var rules = inputs.Rules((await GetAsync(wish, ct)).Page, wish.Party);
        return await gone.RefusalAsync(rules, wish.Start, wish.Duration, "opening-gone", null, isAlone: false, ct);
    }

    private static KeptPage Wished(KeptPage? found, BookingWish wish) =>
        found is { Page: var page }
        && (
            page.State == PageState.Published
            || (page.Offer is not null && (wish.ByTeam || page.State == PageState.Archived))
        )
            ? found
            : throw Refusal.NotFound("page");
}
