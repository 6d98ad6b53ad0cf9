using NodaTime;

namespace LooseLantern.Server.Features.Openings;

/// <summary>What openings were worked out from, as far as it takes to tell whether they are so still.</summary>
/// <param name="Of">Ids of all whose changes count: the page, its desk, workspace and hours, its hosts.</param>
/// <param name="OfThemselves">Those of which it counts too where they themselves change, not only their time.</param>
/// <param name="Snapshot">Of the database, taken before the facts were read.</param>
/// <param name="GoodUntil">From when on the clock alone changes them: a start comes within the notice, a day ends, a
/// hold runs out, or a calendar is out of reach for too long.</param>
public sealed record FactsRead(Guid[] Of, Guid[] OfThemselves, string Snapshot, Instant GoodUntil);
