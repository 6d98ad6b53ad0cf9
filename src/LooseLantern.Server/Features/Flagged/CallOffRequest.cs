using LooseLantern.Server.Features.GuestBook;
using LooseLantern.Server.Features.Letters;
using NodaTime;

namespace LooseLantern.Server.Features.Flagged;

/// <summary>A booking to come of which screening noted something.</summary>
/// <param name="GuestId">Null for one who is erased.</param>
/// <param name="Zone">IANA id of the page's zone.</param>
/// <param name="WaitsForYes">Whether it is only asked for.</param>
/// <param name="MayCallOff">Whether its hosts let whoever asks.</param>
public sealed record FlaggedBooking(
    Guid Id,
    Guid? GuestId,
    string Guest,
    string Email,
    string Page,
    Instant Start,
    Instant End,
    string Zone,
    IReadOnlyList<string> Hosts,
    IReadOnlyList<string> Flags,
    IReadOnlyList<EventAnswer> Answers,
    bool WaitsForYes,
    bool MayCallOff
);

/// <param name="Total">How many there are in all; the soonest are listed.</param>
/// <param name="Blanks">That the letter may have.</param>
public sealed record FlaggedBookings(
    Instant Now,
    int Total,
    IReadOnlyList<FlaggedBooking> Bookings,
    IReadOnlyList<BlankView> Blanks
);

/// <summary>Bookings that are called off at once, with a letter to the guest of each.</summary>
public sealed record CallOffRequest(IReadOnlyList<Guid> Bookings, string Subject, string Body);

/// <param name="Show">The booking whose letter is to be shown.</param>
public sealed record CallOffPreviewRequest(CallOffRequest CallOff, Guid Show);

/// <param name="Count">How many were; the others were over, or cancelled already.</param>
public sealed record CalledOff(int Count);
