using LooseLantern.Core;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Openings;
using LooseLantern.Server.Features.Pages.Kept;
using LooseLantern.Server.Hosting;
using NodaTime;

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
    // Far beyond what any page offers, and within what clocks can be set to.
    private static readonly Instant Earliest = Instant.FromUtc(1990, 1, 1, 0, 0);
    private static readonly Instant Latest = Instant.FromUtc(2190, 1, 1, 0, 0);

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
        if (RangeOf(rules, wish.Start, wish.Duration) is { } range)
            await readiness.PrepareAsync(rules.HostIds, range, ct);
        return page;
    }

    /// <summary>
    /// Asks what <see cref="PrepareAsync"/> is going to ask for a wish, in a round trip that the caller makes anyway.
    /// Of a wish that the page can't fulfil nothing is asked, whatever was sent.
    /// </summary>
    public void AskAhead(RoundTrip trip, Page page, Instant start, int duration)
    {
        if (!page.Durations.Contains(duration) || start < Earliest || start > Latest)
            return;
        var rules = inputs.Rules(page);
        if (RangeOf(rules, start, duration) is { } range)
            readiness.AskAhead(trip, page.WorkspaceId, rules.HostIds, range);
    }

    /// <summary>What the day of a time is computed from; null where the page offers nothing on it.</summary>
    private Span? RangeOf(AskedPage rules, Instant start, int duration)
    {
        var day = start.InZone(rules.Zone).Date;
        var (first, last) = rules.Rules.Window.Within(day, day, inputs.Today(rules));
        return first > last ? null : new FactsWanted(rules, day, day, duration).Range;
    }

    /// <summary>What is told where the time is not open any more: the nearest that are.</summary>
    public async Task<Refusal> GoneAsync(BookingWish wish, CancellationToken ct)
    {
        db.ChangeTracker.Clear();
        var rules = inputs.Rules((await GetAsync(wish, ct)).Page, wish.Party, wish.Known);
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
