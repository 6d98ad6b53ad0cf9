using LooseLantern.Core.Questions;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.TimeZones;
using LooseLantern.Server.Hosting;
using NodaTime;

namespace LooseLantern.Server.Features.Guests;

/// <summary>A booking as its guest sees it by the private link.</summary>
/// <param name="Zone">IANA id of the page's zone.</param>
/// <param name="GuestZone">IANA id of the zone the guest chose the time in.</param>
/// <param name="MoveUntil">Until when the guest may move it; null where they never may.</param>
/// <param name="CancelUntil">Until when the guest may cancel it; null where they never may.</param>
/// <param name="MostBrought">How many people the guest may bring along.</param>
/// <param name="Questions">What the page asks now.</param>
/// <param name="Answers">What the guest answered.</param>
/// <param name="CancelWords">What the page says on cancelling.</param>
/// <param name="AskWhom">Whom to ask once it is too late.</param>
/// <param name="WaitsUntil">Until when it waits for a yes; null for one that stands.</param>
/// <param name="RoomLink">Of the video room; empty where there is none, or none yet.</param>
/// <param name="PagePath">Where the page is, from the root of the site.</param>
public sealed record PrivateBooking(
    string Workspace,
    string Desk,
    string Title,
    PlaceKind PlaceKind,
    string Place,
    IReadOnlyList<string> Hosts,
    Instant Start,
    Instant End,
    string Zone,
    string GuestZone,
    string GuestName,
    string GuestEmail,
    string PagePath,
    Instant Now,
    Instant? MoveUntil,
    Instant? CancelUntil,
    int MostBrought,
    IReadOnlyList<Companion> Companions,
    IReadOnlyList<Question> Questions,
    IReadOnlyList<GivenAnswer> Answers,
    string CancelWords,
    string AskWhom,
    Instant? WaitsUntil,
    string RoomLink,
    string RoomCode,
    string Language,
    string Accent,
    bool HostsRing,
    string Directions,
    string Words,
    string GoTo,
    bool OffersAnother,
    LocalDate FirstDate,
    LocalDate LastDate,
    Instant? CancelledAt,
    CancelledBy? CancelledBy,
    string CancelWord
)
{
    /// <summary>What the page says of itself: HTML that is safe to show.</summary>
    public string Description { get; init; } = "";

    /// <summary>How many people come, the guest too.</summary>
    public required int Party { get; init; }

    /// <summary>How many may come at the most; 1 where companions take no place.</summary>
    public required int MostParty { get; init; }

    /// <summary>Who booked it for the guest; empty where the guest did.</summary>
    public required string BookerName { get; init; }

    /// <summary>Of the page's zone and the guest's, as far as the booking and the days it can be moved to.</summary>
    public IReadOnlyList<ZoneOffsets> Offsets { get; init; } = [];

    /// <summary>Whether mail about it waits, since the workspace may not send any to guests yet.</summary>
    public required bool MailWaits { get; init; }

    /// <summary>Addresses of companions whose mail waits, since they had one within the hour.</summary>
    public required IReadOnlyList<string> MailWaitsFor { get; init; }

    /// <summary>How many of the companions are mailed; the others only count.</summary>
    public required int MostMailed { get; init; }

    /// <summary>By which clock the guest reads times; null for that of whoever reads.</summary>
    public ClockForm? Clock { get; init; }
}

/// <param name="Word">Why, for the hosts; may be empty.</param>
public sealed record CancelRequest(string Word = "");

/// <param name="Start">One of the openings that the booking can be moved to.</param>
public sealed record MoveRequest(Instant Start)
{
    /// <exception cref="Refusal">400 for a start that no calendar knows.</exception>
    public static void Check(MoveRequest request)
    {
        if (request.Start < Instant.FromUtc(1900, 1, 1, 0, 0) || request.Start > Instant.FromUtc(2200, 1, 1, 0, 0))
            throw Refusal.Invalid("start", "start");
    }
}

/// <param name="Answers">All of them, by the question's key.</param>
public sealed record AnswersForm(IReadOnlyDictionary<string, string> Answers);
