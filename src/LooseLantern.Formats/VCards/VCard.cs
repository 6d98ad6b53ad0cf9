namespace LooseLantern.Formats.VCards;

/// <summary>What a card (RFC 6350) tells of somebody. Texts may be empty.</summary>
/// <param name="Line">The line of the file it begins on, from 1.</param>
/// <param name="Emails">The preferred one first.</param>
/// <param name="Phone">The preferred one.</param>
/// <param name="Zone">IANA id; empty where the card tells none by its name.</param>
/// <param name="Language">Language tag.</param>
public sealed record VCard(
    int Line,
    string Name,
    IReadOnlyList<string> Emails,
    string Organisation,
    string Phone,
    string Zone,
    string Language,
    string Note
);
