using LooseLantern.Core.LineUps;
using LooseLantern.Core.Openings;
using LooseLantern.Server.Data.Model;
using NodaTime;

namespace LooseLantern.Server.Features.Openings;

/// <summary>The guests who are known before they look; their keeper counts where they have the same one.</summary>
/// <param name="Link">Those of this link, as it is saved.</param>
/// <param name="Keys">Those with one of these emails, by their keys.</param>
/// <param name="Guest">This one.</param>
/// <param name="Address">Whom the address with this hash of its secret is for (<see cref="PersonalAddress"/>).</param>
public sealed record KnownGuests(
    Guid? Link = null,
    IReadOnlyList<string>? Keys = null,
    Guid? Guest = null,
    byte[]? Address = null
);

/// <summary>
/// A page, saved or not, as openings are asked of it: its rules, and which of its hosts' calendars it asks.
/// </summary>
/// <param name="Calendars">Where it asks others than usual.</param>
/// <param name="MoreHosts">Others whose facts are wanted, such as who could take a seat.</param>
public sealed record AskedPage(
    PageRules Rules,
    IReadOnlyList<CalendarChoice> Calendars,
    IReadOnlyList<Guid>? MoreHosts = null
)
{
    /// <summary>The hosts whose calendars are not asked at all.</summary>
    public IReadOnlyList<Guid> Overridden { get; init; } = [];

    /// <summary>The link whose own holds are not in its way; null where all are.</summary>
    public Guid? Holder { get; init; }

    /// <summary>How many people come with the booking that is asked for.</summary>
    public int Party { get; init; } = 1;

    /// <summary>Whose keeper its seats consider; null where nobody is known beforehand.</summary>
    public KnownGuests? For { get; init; }

    /// <summary>Whether it has a seat that considers keepers.</summary>
    public bool ConsidersKeepers => Rules.LineUp.Any(seat => seat.Keeper != SeatKeeper.Counts);

    public DateTimeZone Zone => Rules.Zone;

    /// <summary>Whoever has a seat in its line-up, and whoever else is wanted.</summary>
    public List<Guid> HostIds =>
        [.. Rules.LineUp.SelectMany(seat => seat.AnyOf).Select(Guid.Parse).Concat(MoreHosts ?? []).Distinct()];

    /// <summary>The same with other rules.</summary>
    public AskedPage With(Func<PageRules, PageRules> change) => this with { Rules = change(Rules) };
}
