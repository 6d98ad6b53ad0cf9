using NodaTime;

namespace LooseLantern.Server.Features.Covers;

/// <summary>Who can't come, and for what others are to be found.</summary>
/// <param name="Away">Hosts.</param>
/// <param name="Sessions">Of these, those that have one of them; null for all that have, from one day to
/// another.</param>
/// <param name="From">A local date of whoever asks; null for today.</param>
/// <param name="To">The last, included; null for the same day.</param>
/// <param name="Decided">What somebody decided by hand; the rest is worked out around it.</param>
public sealed record CoverRequest(
    IReadOnlyList<Guid> Away,
    IReadOnlyList<Guid>? Sessions = null,
    string? From = null,
    string? To = null,
    IReadOnlyList<CoverDecision>? Decided = null
);

/// <param name="Seats">Who has which seat; null where nobody takes it, and new times are offered.</param>
public sealed record CoverDecision(Guid Session, IReadOnlyList<CoverSeat>? Seats);

/// <param name="Seat">By position from 0.</param>
public sealed record CoverSeat(int Seat, Guid Host);

/// <summary>A plan as it is to be carried out.</summary>
/// <param name="Word">For all guests, before what becomes of their bookings; may be empty.</param>
/// <param name="TellKept">Whether guests whose time stays are told who comes instead.</param>
public sealed record CoverForm(
    IReadOnlyList<Guid> Away,
    IReadOnlyList<CoverLineForm> Lines,
    string Word = "",
    bool TellKept = true
);

/// <param name="Before">Who had it as the plan was made: where that changed meanwhile, nothing is done.</param>
/// <param name="After">Null where it is cancelled, and its guests are offered new times.</param>
public sealed record CoverLineForm(Guid Session, IReadOnlyList<CoverSeat> Before, IReadOnlyList<CoverSeat>? After);

/// <summary>Who takes what, worked out over all of it together. Nothing is changed by it.</summary>
/// <param name="IsBest">Whether it is proven that there is no better plan.</param>
/// <param name="Loads">How much each host has in the weeks of these sessions, before and after.</param>
public sealed record CoverView(bool IsBest, IReadOnlyList<CoverLineView> Lines, IReadOnlyList<CoverLoadView> Loads);

/// <param name="Page">Its title.</param>
/// <param name="Guests">Their names, in the order in which they booked.</param>
/// <param name="After">Null where nobody can take it.</param>
/// <param name="ByHand">Whether somebody decided that.</param>
/// <param name="Why">Why nobody can; empty where somebody does, or it was decided.</param>
/// <param name="Waits">Whether it waits for a yes.</param>
/// <param name="Unreachable">Guests without an address to write to.</param>
public sealed record CoverLineView(
    Guid Session,
    Guid Booking,
    string Page,
    Instant Start,
    Instant End,
    IReadOnlyList<string> Guests,
    IReadOnlyList<CoverSeatView> Before,
    IReadOnlyList<CoverSeatView>? After,
    bool ByHand,
    IReadOnlyList<CoverWhyView> Why,
    bool Waits,
    IReadOnlyList<string> Unreachable
);

/// <summary>What is in the way of somebody who could have a seat.</summary>
public enum CoverObstacleKind
{
    /// <summary>Their calendar is busy.</summary>
    Busy,

    /// <summary>They are booked, or their time is held.</summary>
    Booked,

    /// <summary>It is outside their hours.</summary>
    Hours,

    /// <summary>They are needed for another session of the plan.</summary>
    Needed,

    /// <summary>Nobody else has that seat, or lets whoever asks book their time.</summary>
    Nobody,

    /// <summary>Fewer are free than it takes.</summary>
    Few,
}

/// <param name="Name">Whose; null where it is nobody's in particular.</param>
/// <param name="Session">For which they are needed.</param>
public sealed record CoverWhyView(CoverObstacleKind Kind, string? Name = null, Guid? Session = null);

/// <param name="IsAway">Whether they are among those who can't come.</param>
public sealed record CoverSeatView(int Seat, Guid Host, string Name, bool IsAway);

public sealed record CoverLoadView(Guid Host, string Name, bool IsAway, int Before, int After);

/// <summary>A letter as its guest will read it.</summary>
/// <param name="Kept">How many bookings of theirs stay at their time.</param>
/// <param name="Left">How many are offered anew.</param>
public sealed record CoverLetterView(
    string Name,
    string Email,
    int Kept,
    int Left,
    string Subject,
    string Text,
    string Html
);

/// <summary>What was done.</summary>
public sealed record CoverDone(int Kept, int Left, int Letters);
