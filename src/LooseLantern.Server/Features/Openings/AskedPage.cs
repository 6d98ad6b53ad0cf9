using LooseLantern.Core.Openings;
using LooseLantern.Server.Data.Model;
using NodaTime;

namespace LooseLantern.Server.Features.Openings;

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

    public DateTimeZone Zone => Rules.Zone;

    /// <summary>Whoever has a seat in its line-up, and whoever else is wanted.</summary>
    public List<Guid> HostIds =>
        [.. Rules.LineUp.SelectMany(seat => seat.AnyOf).Select(Guid.Parse).Concat(MoreHosts ?? []).Distinct()];

    /// <summary>The same with other rules.</summary>
    public AskedPage With(Func<PageRules, PageRules> change) => this with { Rules = change(Rules) };
}
