using System.Security.Cryptography;
using System.Text;
using LooseLantern.Core;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Openings;
using LooseLantern.Server.Hosting;
using NodaTime;

namespace LooseLantern.Server.Features.Reserving;

/// <summary>What a guest asks to reserve. Fields are checked before this is made.</summary>
/// <param name="Duration">Minutes.</param>
/// <param name="GuestLanguage">Language tag of what is written to the guest.</param>
/// <param name="GuestZone">IANA id of the zone the guest chose the time in.</param>
public sealed record BookingWish(
    Guid PageId,
    Instant Start,
    int Duration,
    string GuestName,
    string GuestEmail,
    string GuestZone,
    string GuestLanguage = "en"
)
{
    /// <summary>What the guest answered.</summary>
    public IReadOnlyList<GivenAnswer> Answers { get; init; } = [];

    /// <summary>Whom the guest brings along.</summary>
    public IReadOnlyList<Companion> Companions { get; init; } = [];

    /// <summary>How many people come, from 1; on a page for one guest a time it takes no more places.</summary>
    public int Party { get; init; } = 1;

    /// <summary>Who books it for the guest; null where the guest does.</summary>
    public Booker? Booker { get; init; }

    /// <summary>Guests of a link who are booked with this one: the same time, a booking each.</summary>
    public IReadOnlyList<LinkGuest> Others { get; init; } = [];

    /// <summary>Whether who is in the session already wants one more place in it.</summary>
    public bool OneMore { get; init; }

    /// <summary>Whether it is a time among ourselves, which has no guest.</summary>
    public bool IsAmongOurselves { get; init; }

    /// <summary>By which clock the guest reads times; null where that is not known.</summary>
    public ClockForm? GuestClock { get; init; }

    /// <summary>Whether somebody of the team books it for the guest.</summary>
    public bool ByTeam { get; init; }

    /// <summary>Who of the team books it; null for the guest.</summary>
    public Guid? BookedBy { get; init; }

    /// <summary>Who books, where that is known before they say so: by an address of their own.</summary>
    public KnownGuests? Known { get; init; }

    /// <summary>What the page's screening noted, for the team.</summary>
    public string[] Flags { get; init; } = [];

    /// <summary>Whose mailbox it is booked by.</summary>
    public string ContactEmail => Booker?.Email ?? GuestEmail;

    /// <summary>Tells whether two requests ask for the same.</summary>
    public byte[] Hash() =>
        SHA256.HashData(
            Encoding.UTF8.GetBytes(
                System.Text.Json.JsonSerializer.Serialize(
                    this with
                    {
                        Flags = [],
                        GuestClock = null,
                        BookedBy = null,
                        OneMore = false,
                        Known = null,
                    },
                    Json.Options
                )
            )
        );
}

/// <summary>Who books for somebody else.</summary>
/// <param name="MailTo">Who gets the mails.</param>
public sealed record Booker(string Name, string Email, MailGoesTo MailTo);

/// <summary>A booking that stands, with its private link's secret.</summary>
/// <param name="IsNew">False where the same Idempotency-Key had made it before.</param>
public sealed record Booked(Guid BookingId, string Secret, Span Time, bool IsNew);
