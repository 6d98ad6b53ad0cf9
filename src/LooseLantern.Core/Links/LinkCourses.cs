using LooseLantern.Core.Days;
using NodaTime;

namespace LooseLantern.Core.Links;

/// <summary>Where a link stands.</summary>
public enum LinkState
{
    Draft,
    Out,
    Opened,
    Booked,

    /// <summary>Its last date is over, and nobody booked.</summary>
    Ended,

    Revoked,
}

/// <summary>What is known of a link, for telling where it stands.</summary>
/// <param name="EndsOn">The last local date on which it can be used.</param>
/// <param name="Takes">How many bookings it takes.</param>
/// <param name="Booked">How many count as taken: those that stand, and the cancelled ones too where they do not reopen
/// it.</param>
/// <param name="NotCancelled">How many stand.</param>
public sealed record LinkFacts(
    Instant? OutAt,
    Instant? RevokedAt,
    Instant? OpenedAt,
    LocalDate EndsOn,
    int Takes,
    int Booked,
    int NotCancelled
);

/// <summary>Where a link stands, and what becomes of it by itself.</summary>
/// <param name="State">Until <paramref name="EndsAt"/>.</param>
/// <param name="TakesMore">Whether a time of it may be taken until then.</param>
/// <param name="EndsAt">When its last date is over; null for one that is revoked, which changes no more.</param>
/// <param name="Then">Where it stands from then on; nothing of it may be taken any more.</param>
public sealed record LinkCourse(LinkState State, bool TakesMore, Instant? EndsAt, LinkState Then)
{
    public LinkState StateAt(Instant now) => EndsAt is null || now < EndsAt ? State : Then;

    /// <summary>Whether somebody of the team may still book a time of it for a guest.</summary>
    public bool MayBeTakenAt(Instant now) => TakesMore && now < EndsAt;

    /// <summary>Whether a guest can take a time by it.</summary>
    public bool IsOpenAt(Instant now) => MayBeTakenAt(now) && State is (LinkState.Out or LinkState.Opened);

    /// <summary>
    /// Since when somebody is waited for: since it went out, or was last asked about; null where nobody is.
    /// </summary>
    public Instant? WaitsSinceAt(Instant now, Instant? outAt, Instant? askedAt) =>
        IsOpenAt(now) ? askedAt ?? outAt : null;
}

public static class LinkCourses
{
    /// <param name="today">The local date in the link's zone.</param>
    public static LinkState Of(LinkFacts facts, LocalDate today) =>
        facts switch
        {
            { RevokedAt: not null } => LinkState.Revoked,
            { NotCancelled: > 0 } when facts.Booked >= facts.Takes || facts.EndsOn < today => LinkState.Booked,
            { OutAt: null } => LinkState.Draft,
            _ when facts.EndsOn < today || facts.Booked >= facts.Takes => LinkState.Ended,
            { OpenedAt: not null } => LinkState.Opened,
            _ => LinkState.Out,
        };

    /// <summary>Whether a guest can take a time by it.</summary>
    public static bool IsOpen(LinkFacts facts, LocalDate today) =>
        Of(facts, today) is LinkState.Out or LinkState.Opened;

    /// <summary>Whether somebody of the team may still book a time of it for a guest.</summary>
    public static bool MayBeTaken(LinkFacts facts, LocalDate today) =>
        facts.RevokedAt is null && facts.EndsOn >= today && facts.Booked < facts.Takes;

    /// <summary>Where it stands, and what becomes of it by itself; the same until one of the facts changes.</summary>
    /// <param name="zone">The link's, in which its last date is over at the midnight after it.</param>
    public static LinkCourse CourseOf(LinkFacts facts, DateTimeZone zone)
    {
        var dayAfter = facts.EndsOn.PlusDays(1);
        return new LinkCourse(
            Of(facts, facts.EndsOn),
            MayBeTaken(facts, facts.EndsOn),
            facts.RevokedAt is null ? LocalDays.Start(zone, dayAfter) : null,
            Of(facts, dayAfter)
        );
    }
}
