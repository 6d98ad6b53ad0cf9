using LooseLantern.Core.Links;
using LooseLantern.Core.Openings;
using LooseLantern.Core.Suggestions;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Openings;
using LooseLantern.Server.Features.Supply;
using LooseLantern.Server.Hosting;
using NodaTime;

namespace LooseLantern.Server.Features.Links;

/// <param name="Times">Of a link that need not be saved.</param>
/// <param name="Of">The link whose own holds are not in the way; null for a new one.</param>
/// <param name="GuestZone">IANA id; empty where it is not known.</param>
public sealed record LinkSupplyRequest(LinkTimes Times, Guid? Of, string GuestZone);

/// <summary>One good time to pick.</summary>
/// <param name="Why">What speaks for it, the weightiest first.</param>
/// <param name="Host">Next to whose time it lies.</param>
public sealed record LinkSuggestion(Instant Start, Instant End, IReadOnlyList<SuggestedFor> Why, Guid? Host);

/// <summary>What a link offers as it stands.</summary>
/// <param name="Total">How many openings it has.</param>
/// <param name="Openings">Them, by start.</param>
/// <param name="Pickable">By days, what is free for all seats, whatever is picked or painted: starts that can be
/// picked.</param>
/// <param name="Missed">Picked times that are no openings, each with why.</param>
/// <param name="ByHost">Where several could take a seat: which openings each host can serve; empty where all of them
/// serve every one.</param>
public sealed record LinkSupplyAnswer(
    Instant Now,
    string Zone,
    int Duration,
    int Total,
    IReadOnlyList<Opening> Openings,
    IReadOnlyList<SupplyDay> Pickable,
    IReadOnlyList<MissedPick> Missed,
    IReadOnlyList<LinkSuggestion> Suggestions,
    IReadOnlyList<ServedByHost> ByHost
);

/// <param name="Why">What is in the way of it.</param>
public sealed record MissedPick(Instant Start, DarkAnswer Why);

/// <param name="Starts">Of the openings that this host can serve.</param>
public sealed record ServedByHost(Guid Host, IReadOnlyList<Instant> Starts);

/// <param name="Form">Of a link that need not be saved.</param>
/// <param name="Of">The link whose address stands in it; null for a new one, which has none yet.</param>
public sealed record LinkTextRequest(LinkForm Form, Guid? Of);

/// <param name="Text">Its times as they are sent; null where what else it says is not right yet.</param>
/// <param name="Relaxations">What would open more.</param>
public sealed record LinkReckoningAnswer(LinkSupplyAnswer Supply, LinkTextAnswer? Text, RelaxationsAnswer Relaxations);

/// <param name="Date">A local date of the link's zone.</param>
/// <param name="FromMinute">Minutes after midnight.</param>
/// <param name="ToMinute">Minutes after midnight, after <paramref name="FromMinute"/>.</param>
/// <param name="Guests">Whom it is for.</param>
public sealed record LinkDarkRequest(
    LinkTimes Times,
    Guid? Of,
    LocalDate Date,
    int FromMinute,
    int ToMinute,
    IReadOnlyList<LinkGuest>? Guests = null
);

/// <summary>Counts what a link offers, and finds times worth offering.</summary>
public sealed class LinkReckoning(
    OpeningsInputs inputs,
    LinkFilling filling,
    SupplyReckoning supply,
    DarkReckoning dark,
    RelaxationReckoning relaxations,
    LinkEditing editing,
    LinkTexts texts,
    LinkAddresses addresses,
    IClock clock
)
{
    private const int Suggested = 6;
    private const int MostWeeks = 8;
    private const int RelaxedWeeks = 2;

    /// <summary>All that the editor tells of a form as it stands, from one load of facts.</summary>
    public async Task<LinkReckoningAnswer> ReckonAsync(LinkTextRequest request, CancellationToken ct)
    {
        inputs.For(request.Form.Guests, request.Of);
        var asked = new LinkSupplyRequest(request.Form.Times, request.Of, request.Form.GuestZone);
        var page = await filling.TryOutAsync(Relaxed(asked.Times), request.Of, ct);
        var wanted = await relaxations.WantedAsync(page, null, RelaxedWeeks, ct);
        await inputs.LoadOnceAsync(wanted with { To = LocalDate.Max(wanted.To, UntilOf(page, wanted.From)) }, ct);
        return new LinkReckoningAnswer(
            await SupplyAsync(asked, ct),
            await TextOrNoneAsync(request, ct),
            await relaxations.OfAsync(
                wanted,
                RelaxedWeeks,
                (relaxation, now) => RelaxationPatch.Of(asked.Times, relaxation, now),
                ct
            )
        );
    }

    private async Task<LinkTextAnswer?> TextOrNoneAsync(LinkTextRequest request, CancellationToken ct)
    {
        try
        {
            return await TextAsync(request, ct);
        }
        catch (Refusal refusal) when (refusal.Status == StatusCodes.Status400BadRequest)
        {
            // The form says so where it is saved; its times are counted all the same.
            return null;
        }
    }

    /// <summary>The last date that is offered, as far as is looked.</summary>
    private static LocalDate UntilOf(Page page, LocalDate today) =>
        LocalDate.Min(page.Offer!.Times.Until, today.PlusDays(PageLimits.MostDaysAsked - 1));

    /// <summary>So many weeks that it is drawn and looked for good times.</summary>
    private static LocalDate EndOfWeeks(Page page, LocalDate today) =>
        LocalDate.Min(UntilOf(page, today), today.PlusDays((MostWeeks * 7) - 1));

    public async Task<LinkSupplyAnswer> SupplyAsync(LinkSupplyRequest request, CancellationToken ct)
    {
        var page = await filling.TryOutAsync(request.Times, request.Of, ct);
        var minutes = page.Durations[0];
        var rules = inputs.Rules(page);
        var today = inputs.Today(rules);
        var until = UntilOf(page, today);
        var offered = until < today ? null : await inputs.InputAsync(rules, today, until, minutes, ct);
        var zones = Hours.Zones.IsKnown(request.GuestZone)
            ? new[] { DateTimeZoneProviders.Tzdb[request.GuestZone] }
            : [];
        var openings = offered is null ? [] : ShownOpenings.Of(offered, page.Offer!.Times.MostShown, zones);

        var free = await filling.TryOutAsync(Free(request.Times), request.Of, ct);
        var days = await supply.NextWeeksAsync(
            free,
            minutes,
            Math.Clamp((Period.DaysBetween(today, until) / 7) + 1, 1, MostWeeks),
            ct
        );
        var all = openings.Select(opening => opening.Start).ToHashSet();
        return new LinkSupplyAnswer(
            clock.GetCurrentInstant(),
            page.Zone,
            minutes,
            openings.Count,
            openings,
            days.Days,
            await MissedAsync(page, all, ct),
            await SuggestedAsync(free, request, minutes, zones, ct),
            offered is null ? [] : ServedBy(offered, openings)
        );
    }

    private async Task<IReadOnlyList<MissedPick>> MissedAsync(Page page, HashSet<Instant> open, CancellationToken ct)
    {
        var times = page.Offer!.Times;
        var missed = times.By == OfferBy.Picked ? times.Picked.Where(start => !open.Contains(start)).ToList() : [];
        if (missed.Count == 0)
            return [];
        var why = await dark.OfStartsAsync(page, missed, ct);
        return [.. missed.Zip(why, (start, answer) => new MissedPick(start, answer))];
    }

    /// <summary>Of a pool, whoever is free at an opening; asked by having each host fill a seat alone.</summary>
    private static IReadOnlyList<ServedByHost> ServedBy(OpeningsInput input, IReadOnlyList<Opening> openings)
    {
        var lineUp = input.Page.LineUp;
        if (lineUp.All(seat => seat.AnyOf.Count == 1))
            return [];
        var shown = openings.Select(opening => opening.Start).ToHashSet();
        return
        [
            .. lineUp
                .SelectMany(seat => seat.AnyOf)
                .Distinct()
                .Select(host => new ServedByHost(
                    Guid.Parse(host),
                    [
                        .. OpeningsComputation
                            .Openings(input with { Page = input.Page with { LineUp = [new Seat([host])] } })
                            .Select(opening => opening.Start)
                            .Where(shown.Contains),
                    ]
                )),
        ];
    }

    public async Task<LinkTextAnswer> TextAsync(LinkTextRequest request, CancellationToken ct)
    {
        inputs.For(request.Form.Guests, request.Of);
        var form = await filling.CheckAsync(request.Form, ct);
        var page = await filling.TryOutAsync(form.Times, request.Of, ct);
        (page.Title, page.PlaceKind, page.Place) = (form.Title, form.PlaceKind, form.Place);
        // A draft's address leads nowhere yet, so it is not given out.
        var link = request.Of is { } id ? await editing.GetAsync(id, ct) : null;
        var address = link?.OutAt is null
            ? null
            : LinkAddresses.Path(form.Details.Topic, addresses.Reveal(link.ProtectedSecret));
        return texts.Write(
            page,
            form.Details.Text,
            form.GuestZone,
            form.GuestLanguage,
            await texts.ShownAsync(
                page,
                form.GuestZone,
                null,
                null,
                page.Durations[0],
                ct,
                form.Details.Text.MostListed
            ),
            address
        );
    }

    public async Task<DarkAnswer> WhyDarkAsync(LinkDarkRequest request, CancellationToken ct)
    {
        inputs.For(request.Guests, request.Of);
        // Of picks the question is why a time can't be picked, not that it is not.
        var times = request.Times.Offer.By == OfferBy.Picked ? Free(request.Times) : request.Times;
        return await dark.OfAsync(
            await filling.TryOutAsync(times, request.Of, ct),
            new DarkRequest(times.AsPage(), null, null, request.Date, request.FromMinute, request.ToMinute),
            ct
        );
    }

    public async Task<RelaxationsAnswer> RelaxationsAsync(LinkSupplyRequest request, CancellationToken ct)
    {
        return await relaxations.OfAsync(
            await filling.TryOutAsync(Relaxed(request.Times), request.Of, ct),
            null,
            RelaxedWeeks,
            (relaxation, now) => RelaxationPatch.Of(request.Times, relaxation, now),
            ct
        );
    }

    /// <summary>The best times that are not picked yet and lie apart from those that are.</summary>
    private async Task<IReadOnlyList<LinkSuggestion>> SuggestedAsync(
        Page free,
        LinkSupplyRequest request,
        int minutes,
        IReadOnlyList<DateTimeZone> zones,
        CancellationToken ct
    )
    {
        var rules = inputs.Rules(free);
        var today = inputs.Today(rules);
        var until = EndOfWeeks(free, today);
        if (until < today || await inputs.InputAsync(rules, today, until, minutes, ct) is not { } input)
            return [];
        var picked = request
            .Times.Offer.Picked.Select(start => new Core.Span(start, start + Duration.FromMinutes(minutes)))
            .ToList();
        return
        [
            .. SuggestionsComputation
                .Of(input, Suggested + picked.Count, zones)
                .Where(suggestion =>
                    !picked.Exists(pick => pick.Meets(new Core.Span(suggestion.Opening.Start, suggestion.Opening.End)))
                )
                .Take(Suggested)
                .Select(suggestion => new LinkSuggestion(
                    suggestion.Opening.Start,
                    suggestion.Opening.End,
                    [.. suggestion.Why.Select(praise => praise.For)],
                    suggestion.Why.FirstOrDefault(praise => praise.For == SuggestedFor.NextToOthers)?.Host is { } host
                        ? Guid.Parse(host)
                        : null
                )),
        ];
    }

    /// <summary>Of picks the question is what would open more to pick from.</summary>
    private static LinkTimes Relaxed(LinkTimes times) => times.Offer.By == OfferBy.Picked ? Free(times) : times;

    private static LinkTimes Free(LinkTimes times) =>
        times with
        {
            Offer = times.Offer with { By = OfferBy.Free, MostShown = null },
        };
}
