using LooseLantern.Core.Openings;
using LooseLantern.Server.Data.Model;
using NodaTime;

namespace LooseLantern.Server.Features.Openings;

/// <summary>A page, saved or not, as openings are asked of it: its rules, and which of its hosts' calendars it asks.</summary>
/// <param name="Calendars">Where it asks others than usual.</param>
public sealed record AskedPage(PageRules Rules, IReadOnlyList<CalendarChoice> Calendars)
{
    public DateTimeZone Zone => Rules.Zone;

    /// <summary>Whoever has a seat in its line-up.</summary>
    public List<Guid> HostIds => [.. Rules.LineUp.SelectMany(seat => seat.AnyOf).Distinct().Select(Guid.Parse)];

    /// <summary>The same with other rules.</summary>
    public AskedPage With(Func<PageRules, PageRules> change) => this with { Rules = change(Rules) };
}
