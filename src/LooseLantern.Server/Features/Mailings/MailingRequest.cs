using LooseLantern.Server.Features.GuestBook.Importing;
using LooseLantern.Server.Features.Letters;
using NodaTime;

namespace LooseLantern.Server.Features.Mailings;

/// <summary>A guest of a mailing that is being written.</summary>
/// <param name="Zone">IANA id; empty for what is known of them, or else the page's.</param>
/// <param name="Language">Language tag; empty for what is known of them, or else English.</param>
/// <param name="Own">Words of this letter alone; null for those of all.</param>
public sealed record MailingGuest(
    string Name,
    string Email,
    string Zone = "",
    string Language = "",
    LetterWords? Own = null
);

/// <summary>One offer to several guests, as it is about to be sent.</summary>
/// <param name="Offer">A pattern, from which each gets a link, or a page, of which each gets an address.</param>
public sealed record MailingRequest(string Subject, string Body, LetterOffer Offer, IReadOnlyList<MailingGuest> Guests);

/// <param name="Show">Whose letter is to be shown as it will read, by place from 0; null for nobody's.</param>
public sealed record MailingPreviewRequest(MailingRequest Mailing, int? Show);

/// <summary>What one guest of a mailing gets.</summary>
/// <param name="GuestId">Who they are among the guests that are known; null for somebody new.</param>
/// <param name="Unfilled">Blanks that nothing is known for: with these it can't go out.</param>
/// <param name="Openings">How many are offered to this guest; null where none of ours is shown.</param>
/// <param name="OffersOut">How many links of theirs are out already.</param>
/// <param name="Zone">IANA id of the zone times are written in.</param>
/// <param name="Language">In which times are written.</param>
public sealed record MailingLetter(
    Guid? GuestId,
    string Subject,
    IReadOnlyList<string> Unfilled,
    int? Openings,
    int OffersOut,
    string Zone,
    string Language
);

/// <summary>A letter as its guest will read it.</summary>
/// <param name="Html">The same in HTML; nothing in it leads anywhere yet.</param>
public sealed record ShownLetter(string Subject, string Text, string Html);

/// <summary>A mailing as it would go out now.</summary>
/// <param name="Openings">How many are offered; null where none of ours is shown.</param>
/// <param name="Room">How many of the guests can each have one: openings may overlap. Null where none is shown.</param>
/// <param name="Letters">In the order of the guests.</param>
public sealed record MailingPreview(int? Openings, int? Room, IReadOnlyList<MailingLetter> Letters, ShownLetter? Shown);

public sealed record PastedGuests(string Text);

/// <summary>Guests for a mailing.</summary>
/// <param name="Total">How many there are; more than <paramref name="Guests"/> where they are too many for one
/// mailing, or have no email.</param>
/// <param name="WithoutEmail">How many were left out, since they can't be written to.</param>
/// <param name="Faults">Of a list that was pasted: what is wrong with which row. Those rows are left out.</param>
public sealed record MailingGuests(
    int Total,
    int WithoutEmail,
    IReadOnlyList<MailingGuest> Guests,
    IReadOnlyList<ImportFault> Faults
);

public sealed record MailingSent(Guid Id);

public sealed record AskAgainRequest(string Word);

/// <summary>How a guest of a mailing stands.</summary>
public enum MailingStanding
{
    /// <summary>Has not looked at it yet.</summary>
    Unopened,

    /// <summary>Looked at it, and was not heard of since.</summary>
    Opened,

    /// <summary>Wrote back, asked for other times, or called off what they had booked.</summary>
    Answered,
    Booked,

    /// <summary>Their link ended, or was revoked, without a booking.</summary>
    Over,

    /// <summary>Their letter could not be delivered.</summary>
    Failed,
}

/// <summary>A guest of a mailing that went out.</summary>
/// <param name="GuestId">Null for one who is erased.</param>
/// <param name="LinkId">Null where they have an address of a page.</param>
/// <param name="MessageId">Of their first letter; null where it is erased.</param>
/// <param name="Start">Of what they booked; null where nothing stands.</param>
/// <param name="AskedAgain">How often they were asked again.</param>
public sealed record MailingGuestRow(
    Guid? GuestId,
    string Name,
    string Email,
    Guid? LinkId,
    Guid? MessageId,
    MailingStanding Standing,
    Instant? OpenedAt,
    Guid? BookingId,
    Instant? Start,
    int AskedAgain
);

/// <summary>A mailing in a list, told by how its guests stand.</summary>
/// <param name="Silent">Who have neither answered nor booked, and still can.</param>
/// <param name="TimesLeft">How many more of its guests can have a time now, counted to 20; null where nobody is silent,
/// or none of ours is shown.</param>
/// <param name="Zone">IANA id of the zone of what is offered.</param>
public sealed record MailingRow(
    Guid Id,
    string Title,
    string StartedFrom,
    string MadeBy,
    Instant SentAt,
    Instant? AskedAgainAt,
    int Sent,
    int Booked,
    int Answered,
    int Silent,
    int Failed,
    int Over,
    int? TimesLeft,
    string Zone
);

/// <param name="Before">What the run before is asked by; null where this is the first.</param>
/// <param name="After">What the run after is asked by; null where this is the last.</param>
public sealed record MailingList(Instant Now, int Total, IReadOnlyList<MailingRow> Rows, string? Before, string? After);

public sealed record MailingDetail(Instant Now, MailingRow Row, IReadOnlyList<MailingGuestRow> Guests);
