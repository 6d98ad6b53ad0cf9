using NodaTime;

namespace LooseLantern.Server.Data.Model;

/// <summary>What of a thing changed.</summary>
public enum FactKind : short
{
    /// <summary>It itself: a page's rules and line-up, a host's name, zone and caps, hours, a desk, a
    /// workspace.</summary>
    Itself,

    /// <summary>
    /// What is of a host's time: commitments and calendars; or the sessions of a page, with how many are in them.
    /// </summary>
    Time,
}

/// <summary>
/// A note that something openings are computed from was changed, written by the database itself
/// (<c>FactChangeTriggers</c>) in the transaction of the change. Whoever keeps facts in memory keeps with them the
/// snapshot (<c>pg_current_snapshot</c>) that they were read after, and asks whether there is a note that was not
/// visible in it: so two servers agree, and no change is missed however commits overtake one another.
/// </summary>
public sealed class FactChange
{
    /// <summary>Id of a page, host, set of hours, desk or workspace.</summary>
    public Guid Of { get; init; }

    public FactKind Kind { get; init; }

    /// <summary>The transaction that changed it, as PostgreSQL numbers them.</summary>
    public ulong Xid { get; init; }

    /// <summary>When that began, by the database's clock; old notes are taken away.</summary>
    public Instant At { get; init; }
}
