using LooseLantern.Core.Days;
using LooseLantern.Core.Openings;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Calendars;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Openings;

/// <summary>
/// The one way in for facts: turns rows into the input of the computation, in one round trip whatever the number of
/// hosts (<see cref="FactsAsked"/>). The guest's page, the editor's supply and the check when a booking is made all ask
/// here.
/// </summary>
public sealed class OpeningsInputs(
    LanternDb db,
    Tenant tenant,
    CalendarUnrolling unrolling,
    KeptHours keptHours,
    IClock clock
)
{
    private FactsAsked? _loaded;
    private KnownGuests? _guestsOfLink;

    /// <summary>
    /// Whom the link is for that the request at hand asks about, before it is saved so: as they are typed, or as they
    /// are saved where no email is.
    /// </summary>
    public void For(IEnumerable<LinkGuest>? guests, Guid? saved)
    {
        var keys = (guests ?? [])
            .Where(guest => guest.Email is { Length: > 0 })
            .Select(guest => GuestEmail.KeyOf(guest.Email))
            .ToList();
        _guestsOfLink = keys.Count > 0 ? new KnownGuests(Keys: keys) : new KnownGuests(Link: saved);
    }

    /// <summary>
    /// Loads the facts for all that the request at hand is about to ask of a page that need not be saved: what they
    /// cover is answered from them from now on. Not for who takes locks.
    /// </summary>
    /// <param name="wanted">The most days and hosts that are asked about.</param>
    public async Task LoadOnceAsync(FactsWanted wanted, CancellationToken ct)
    {
        await unrolling.CoverAsync(wanted.Page.HostIds, wanted.Range, ct);
        var trip = new RoundTrip(db);
        var facts = Ask(trip, wanted);
        await trip.RunAsync(ct);
        _loaded = facts;
    }

    /// <summary>The openings from one local date to another, both included, of a page that need not be saved.</summary>
    /// <param name="duration">Whole minutes.</param>
    public async Task<IReadOnlyList<Opening>> OpeningsAsync(
        AskedPage page,
        LocalDate from,
        LocalDate to,
        int duration,
        CancellationToken ct
    ) => await InputAsync(page, from, to, duration, ct) is { } input ? OpeningsComputation.Openings(input) : [];

    /// <summary>The input those openings are computed from; null where the page offers none of the dates.</summary>
    public async Task<OpeningsInput?> InputAsync(
        AskedPage page,
        LocalDate from,
        LocalDate to,
        int duration,
        CancellationToken ct
    )
    {
        // Whatever is asked for, calendars are read no further than the page offers.
        var (first, last) = page.Rules.Window.Within(from, to, Today(page));
        if (first > last)
            return null;
        await PrepareAsync(page, first, last, duration, ct);
        return await ReadAsync(page, first, last, duration, ct);
    }

    /// <summary>A page, saved or not, as it is asked for openings from now on.</summary>
    /// <param name="page">With its seats, their hosts, its hours and its blocks.</param>
    /// <param name="party">How many people come; with one place a session, companions take none.</param>
    /// <param name="known">A guest who is known beforehand; those of a link always are.</param>
    public AskedPage Rules(Page page, int party = 1, KnownGuests? known = null) =>
        new(PageRulesOf.Row(page, clock.GetCurrentInstant()), page.CalendarChoices)
        {
            Overridden = page.Offer?.Overridden ?? [],
            Holder = page.Offer is null ? null : page.Id,
            Party = page.Places == 1 ? 1 : party,
            For = _guestsOfLink ?? known ?? (page.Offer is null ? null : new KnownGuests(Link: page.Id)),
        };

    /// <summary>
    /// From when on the clock alone changes what a page offers, whatever becomes of its hosts: the first of its starts
    /// comes within the notice, or the day ends.
    /// </summary>
    /// <param name="openings">That it offers now, by start.</param>
    public Instant GoodUntil(AskedPage page, IReadOnlyList<Opening> openings)
    {
        var midnight = LocalDays.Start(page.Zone, Today(page).PlusDays(1));
        return openings is [var first, ..]
            ? Instant.Min(midnight, first.Start - Duration.FromMinutes(page.Rules.Notice))
            : midnight;
    }

    /// <summary>The local date it is in the page's zone.</summary>
    public LocalDate Today(AskedPage page) => clock.GetCurrentInstant().InZone(page.Zone).Date;

    /// <summary>
    /// Makes sure the hosts' calendars are read as far as the request reaches. Never inside a transaction that holds
    /// locks.
    /// </summary>
    public async Task PrepareAsync(AskedPage page, LocalDate from, LocalDate to, int duration, CancellationToken ct)
    {
        var wanted = new FactsWanted(page, from, to, duration);
        if (_loaded?.Cover(wanted) != true)
            await unrolling.CoverAsync(page.HostIds, wanted.Range, ct);
    }

    /// <summary>
    /// The input for <paramref name="page"/>, saved or not, from one local date to another, both included, in a round
    /// trip of its own.
    /// </summary>
    /// <param name="duration">Whole minutes.</param>
    /// <param name="titled">The hosts whose events' titles may be read; null where nobody asks what busy time comes
    /// from.</param>
    public async Task<OpeningsInput> ReadAsync(
        AskedPage page,
        LocalDate from,
        LocalDate to,
        int duration,
        CancellationToken ct,
        IReadOnlySet<Guid>? titled = null
    )
    {
        var wanted = new FactsWanted(page, from, to, duration, titled);
        if (_loaded?.Cover(wanted) == true)
            return await _loaded.InputAsync(db, wanted, ct);
        var trip = new RoundTrip(db);
        var facts = Ask(trip, wanted);
        await trip.RunAsync(ct);
        return await facts.InputAsync(db, ct);
    }

    /// <summary>Asks for the facts in a round trip that the caller makes.</summary>
    public FactsAsked Ask(RoundTrip trip, FactsWanted wanted) => Ask(trip, wanted, tenant.WorkspaceId!.Value);

    /// <inheritdoc cref="Ask(RoundTrip, FactsWanted)"/>
    /// <param name="workspace">That the page is of; the request need not have entered it yet.</param>
    public FactsAsked Ask(RoundTrip trip, FactsWanted wanted, Guid workspace) =>
        new(
            trip,
            keptHours,
            workspace,
            wanted,
            // To the second, as case files write it, so that they come to the same.
            Instant.FromUnixTimeSeconds(clock.GetCurrentInstant().ToUnixTimeSeconds())
        );

    /// <summary>The names of hosts by their ids as Core has them.</summary>
    public Task<Dictionary<string, string>> NamesAsync(IReadOnlyCollection<Guid> hostIds, CancellationToken ct) =>
        db
            .Hosts.Where(host => hostIds.Contains(host.Id))
            .ToDictionaryAsync(host => host.Id.ToString(), host => host.Name, ct);

    /// <summary>How rows' ids are written in Core's input.</summary>
    public static string Id(Guid id) => id.ToString("D");
}
