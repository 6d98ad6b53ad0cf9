using Ical.Net.DataTypes;
using LooseLantern.Core;

namespace LooseLantern.Formats.ICalendar.Writing;

public enum ParticipantKind
{
    Person,
    Room,
    Thing,
}

/// <summary>Somebody, or something, that takes part.</summary>
/// <param name="Email">Null for what has none, which is then told apart by
/// <paramref name="Id"/>.</param>
public sealed record Participant(Guid Id, string Name, string? Email, ParticipantKind Kind = ParticipantKind.Person);

/// <summary>Participants as properties of events.</summary>
internal static class Participants
{
    /// <param name="isAsked">Whether an answer is asked for; else the party comes.</param>
    public static Attendee Attendee(Participant party, bool isAsked)
    {
        var attendee = new Attendee
        {
            Value = Address(party),
            CommonName = Line(party.Name),
            ParticipationStatus = isAsked ? "NEEDS-ACTION" : "ACCEPTED",
            Role = party.Kind == ParticipantKind.Person ? "REQ-PARTICIPANT" : "NON-PARTICIPANT",
            Type = party.Kind switch
            {
                ParticipantKind.Room => "ROOM",
                ParticipantKind.Thing => "RESOURCE",
                _ => "INDIVIDUAL",
            },
        };
        if (isAsked)
            attendee.Rsvp = true;
        return attendee;
    }

    /// <summary>
    /// A calendar user address is any URI (RFC 5545 section 3.3.3); what has no mail gets one that nobody can send to.
    /// </summary>
    public static Uri Address(Participant party) =>
        party.Email is { } email ? MailTo(email) : new Uri($"urn:uuid:{party.Id:D}");

    /// <summary>Its domain in ASCII, the rest escaped (RFC 6068 section 2).</summary>
    public static Uri MailTo(string address) =>
        new(
            $"mailto:{Uri.EscapeDataString(EmailAddress.Read(address)?.ToString() ?? address).Replace("%40", "@", StringComparison.Ordinal)}"
        );

    /// <summary>Parameters can hold no quotation mark and no control character (section 3.2).</summary>
    public static string Line(string name) =>
        new([
            .. name.Select(letter =>
                letter == '"' ? '\''
                : char.IsControl(letter) ? ' '
                : letter
            ),
        ]);
}
