using System.Text.Json.Serialization;
using LooseLantern.Server.Features.Pages;
using NodaTime;

namespace LooseLantern.Server.Features.Letters;

/// <summary>What a letter offers.</summary>
public enum LetterOffers
{
    Nothing,

    /// <summary>A link that is made for the guest from a pattern.</summary>
    Pattern,

    /// <summary>A link that the guest has already.</summary>
    Link,

    /// <summary>A page, by an address for this guest alone.</summary>
    Page,
}

/// <param name="Id">Of the pattern, link or page; null for nothing.</param>
/// <param name="LineUp">Other hosts than the pattern has; null for its own.</param>
/// <param name="Until">The last local date that it offers, and on which it can be used; null for two weeks.</param>
public sealed record LetterOffer(
    LetterOffers Kind,
    Guid? Id = null,
    IReadOnlyList<SeatForm>? LineUp = null,
    LocalDate? Until = null
);

/// <summary>A letter to one guest, as it is about to be sent.</summary>
public sealed record LetterRequest(Guid GuestId, string Subject, string Body, LetterOffer Offer)
{
    [JsonIgnore]
    public LetterWords Words => new(Subject, Body);
}

/// <summary>A letter's words, with blanks.</summary>
public sealed record LetterWords(string Subject, string Body);

/// <summary>A letter as the guest will read it.</summary>
/// <param name="Html">The same in HTML; nothing in it leads anywhere yet.</param>
/// <param name="To">The email it goes to; empty where the guest has none.</param>
/// <param name="Unfilled">Blanks that nothing is known for: with these it can't go out.</param>
/// <param name="Openings">How many it offers; null where it offers none of its own.</param>
/// <param name="Language">In which times are written.</param>
/// <param name="Zone">IANA id of the zone they are in.</param>
public sealed record LetterPreview(
    string Subject,
    string Text,
    string Html,
    string To,
    IReadOnlyList<string> Unfilled,
    int? Openings,
    string Language,
    string Zone
);

/// <summary>What can be offered in a letter to one guest.</summary>
public sealed record LetterChoices(
    IReadOnlyList<NamedPattern> Patterns,
    IReadOnlyList<NamedLink> Links,
    IReadOnlyList<NamedPage> Pages
);

public sealed record NamedLink(Guid Id, string Title, LocalDate EndsOn);

/// <param name="Desk">The desk's name.</param>
public sealed record NamedPage(Guid Id, string Title, string Desk);
