using System.Text.Json.Serialization;
using LooseLantern.Core;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Reserving;
using NodaTime;

namespace LooseLantern.Server.Features.Post;

/// <summary>What messages tell of.</summary>
public enum Occasion
{
    Booked,
    Moved,
    HostChanged,
    Cancelled,

    /// <summary>A booking is asked for and waits for a yes.</summary>
    Asked,

    /// <summary>The yes came: it stands from now on.</summary>
    Accepted,
    Declined,
    Lapsed,

    /// <summary>The guest brings other people than before.</summary>
    CompanyChanged,

    /// <summary>The video room is made, after mail had gone out without it.</summary>
    RoomMade,

    /// <summary>The guest's calendar, or the guest, answered.</summary>
    Replied,

    /// <summary>What was done is taken back before anybody was told of it; only reminders are written anew.</summary>
    TakenBack,
}

/// <summary>What became of bookings, for everybody who hears of it.</summary>
public sealed record Telling(Occasion Occasion)
{
    /// <summary>Of hosts who take over: of the hosts only they are told. Null where all are.</summary>
    public IReadOnlyList<Guid>? NewHosts { get; init; }

    /// <summary>Hosts whose time is free again.</summary>
    public IReadOnlyList<Guid> FormerHosts { get; init; } = [];

    /// <summary>The session it left, where others stay in it.</summary>
    public Guid? FormerSessionId { get; init; }

    /// <summary>When it was before it was moved.</summary>
    public Span? Was { get; init; }

    public ChangedBy? By { get; init; }

    /// <summary>Addresses of people whom the guest does not bring along any more.</summary>
    public IReadOnlyList<Companion> FormerCompanions { get; init; } = [];

    /// <summary>Times that are offered instead of the one asked for.</summary>
    public IReadOnlyList<Span> Offered { get; init; } = [];

    /// <summary>Everybody in the session, where the team is told of all of them at once; else empty.</summary>
    public IReadOnlyList<string> AllGuests { get; init; } = [];

    /// <summary>What somebody of the team writes to all guests; may be empty.</summary>
    public string Word { get; init; } = "";

    /// <summary>What guests read in the place of the usual words; null for those.</summary>
    public OwnWords? Letter { get; init; }

    /// <summary>Whether its guests, and whom they bring along, hear nothing of it.</summary>
    public bool TeamAlone { get; init; }

    /// <summary>Whether its guests are told by a letter of their own, which speaks of more than this.</summary>
    public bool ByLetter { get; init; }

    /// <summary>When it was; null for now.</summary>
    public Instant? At { get; init; }

    /// <summary>What it is part of, where that can be taken back; its mail waits until then.</summary>
    public Guid? ActId { get; init; }

    /// <summary>Until when its mail waits; null where it goes at once.</summary>
    public Instant? WaitsUntil { get; init; }

    /// <summary>Who of the team did it; null for a guest, or the product itself.</summary>
    public Guid? Teller { get; init; }

    /// <summary>What a mail to the booking's address says; told at once.</summary>
    [JsonIgnore]
    public IncomingMail? Reply { get; init; }
}
