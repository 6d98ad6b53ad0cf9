using LooseLantern.Core.LineUps;
using LooseLantern.Core.Links;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Links;
using LooseLantern.Server.Features.Openings;
using LooseLantern.Server.Features.Pages;
using LooseLantern.Server.Features.Reserving;
using NodaTime;

namespace LooseLantern.Server.Demo;

/// <summary>The demo's availability links, one in each state, made as time went on.</summary>
internal static class DemoLinks
{
    private sealed record Plan(
        string Title,
        string[] Hosts,
        int Guest,
        int DaysAgo,
        int LivesFor,
        int Minutes,
        int Picks,
        string Desk
    );

    private static readonly Plan Out = new(
        "Hull survey, Larkspur",
        ["sunniva", "keziah"],
        0,
        0,
        11,
        45,
        4,
        "brackwater"
    );
    private static readonly Plan Opened = new("Sails for the summer", ["piet"], 7, 4, 20, 30, 3, "brackwater");
    private static readonly Plan Booked = new(
        "Drawings of the tender",
        ["odile", "anselm"],
        11,
        3,
        14,
        60,
        3,
        "brackwater-commissions"
    );
    private static readonly Plan Ended = new("A second look at the keel", ["tomasz"], 14, 16, 6, 45, 2, "brackwater");
    private static readonly Plan Revoked = new("Varnish samples", ["anselm"], 17, 5, 15, 30, 2, "brackwater");
    private static readonly Plan Draft = new(
        "A talk about the school",
        ["rosalind"],
        21,
        0,
        9,
        40,
        2,
        "brackwater-school"
    );

    public static async Task AddAsync(
        IServiceProvider services,
        IReadOnlyDictionary<string, Guid> hosts,
        IReadOnlyDictionary<string, Guid> desks,
        Person maker,
        Instant now,
        CancellationToken ct
    )
    {
        // What is made here is made by somebody, as links are.
        services
            .GetRequiredService<Features.ActingFor.Actor>()
            .Enter(new Features.ActingFor.ActingPerson(maker.Id, maker.Name, maker.IsOwner, maker.IsCoordinator, null));
        var links = new Dictionary<Plan, AvailabilityLink>();
        foreach (var plan in new[] { Ended, Revoked, Opened, Booked, Out, Draft })
        {
            var clock = new StoppedClock(now - Duration.FromDays(plan.DaysAgo));
            var going = ActivatorUtilities.CreateInstance<LinkGoing>(services, clock);
            var editing = ActivatorUtilities.CreateInstance<LinkEditing>(services, clock, going);
            var making = ActivatorUtilities.CreateInstance<LinkMaking>(services, clock, going, editing);
            var link = await making.CreateAsync(await FormAsync(services, plan, hosts, desks, clock, ct), ct);
            links[plan] = plan == Draft ? link : await editing.SendOutAsync(link.Id, ct);
        }

        var current = services.GetRequiredService<LinkEditing>();
        await current.RevokeAsync(links[Revoked].Id, ct);
        foreach (var _ in Enumerable.Range(0, 2))
            await current.NoteOpenedAsync(links[Opened].Id, ct);
        await current.NoteOpenedAsync(links[Booked].Id, ct);
        var taken = links[Booked];
        if (
            await services.GetRequiredService<LinkTexts>().ShownAsync(taken.Page!, "", null, null, Booked.Minutes, ct)
            is [{ } first, ..]
        )
            await services
                .GetRequiredService<TimeReserving>()
                .BookAsync(
                    new BookingWish(
                        taken.Id,
                        first.Start,
                        Booked.Minutes,
                        taken.Guests[0].Name,
                        taken.Guests[0].Email,
                        taken.GuestZone
                    ),
                    "demo-link",
                    ct
                );
        await current.HoldAsync(links[Out].Id, now + Duration.FromHours(34), ct);
    }

    private static async Task<LinkForm> FormAsync(
        IServiceProvider services,
        Plan plan,
        IReadOnlyDictionary<string, Guid> hosts,
        IReadOnlyDictionary<string, Guid> desks,
        IClock clock,
        CancellationToken ct
    )
    {
        var zone = DateTimeZoneProviders.Tzdb[DemoPeople.Zone];
        var ends = clock.GetCurrentInstant().InZone(zone).Date.PlusDays(plan.LivesFor);
        var guest = DemoPeople.Guests[plan.Guest % DemoPeople.Guests.Length];
        var times = new LinkTimes(
            DemoPeople.Zone,
            [.. plan.Hosts.Select(host => new SeatForm([hosts[host]], SeatFill.InOrder))],
            [plan.Minutes],
            Step: 15,
            BufferBefore: 0,
            BufferAfter: 10,
            Notice: 240,
            new Offer(OfferBy.Picked, [], [], [], 8 * 60, 18 * 60, ends, MostShown: null),
            Overridden: []
        );
        return new LinkForm(
            plan.Title,
            desks[plan.Desk],
            "",
            PlaceKind.InPerson,
            "Slip 2, Brackwater Quay",
            times with
            {
                Offer = times.Offer with { Picked = await PickedAsync(services, plan, times, clock, ct) },
            },
            [new LinkGuest(guest.Name, guest.Email)],
            guest.Zone,
            "en",
            new LinkDetails(
                Lead: 0,
                AlsoInvited: [],
                HostWords: "",
                Notes: "",
                LeavesFree: false,
                Takes: 1,
                Reopens: true,
                ends,
                Topic: "",
                LinkText.Usual,
                StartedFrom: "",
                IsAmongOurselves: false,
                HostsRing: true,
                Questions: []
            )
        );
    }

    /// <summary>As a coordinator picks them: what is suggested, on different days.</summary>
    private static async Task<IReadOnlyList<Instant>> PickedAsync(
        IServiceProvider services,
        Plan plan,
        LinkTimes times,
        IClock clock,
        CancellationToken ct
    )
    {
        var inputs = ActivatorUtilities.CreateInstance<OpeningsInputs>(services, clock);
        var free = await services
            .GetRequiredService<LinkFilling>()
            .TryOutAsync(times with { Offer = times.Offer with { By = OfferBy.Free } }, null, ct);
        var rules = inputs.Rules(free);
        var today = inputs.Today(rules);
        return await inputs.InputAsync(rules, today, times.Offer.Until, plan.Minutes, ct) is { } input
            ?
            [
                .. Core
                    .Suggestions.SuggestionsComputation.Of(input, plan.Picks, [])
                    .Select(suggestion => suggestion.Opening.Start),
            ]
            : [];
    }
}
