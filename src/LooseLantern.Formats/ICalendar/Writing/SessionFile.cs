using Ical.Net;
using Ical.Net.CalendarComponents;
using Ical.Net.DataTypes;
using Ical.Net.Serialization;
using LooseLantern.Core;
using NodaTime;

namespace LooseLantern.Formats.ICalendar.Writing;

public enum PartyKind
{
    Person,
    Room,
    Thing,
}

/// <summary>Somebody, or something, that takes part.</summary>
/// <param name="Address">The mail address; null for what has none, which is then told apart by <paramref name="Id"/>.</param>
public sealed record Party(Guid Id, string Name, string? Address, PartyKind Kind = PartyKind.Person);

/// <summary>A session, or time that is held, as it stands in a host's calendar.</summary>
/// <param name="Sequence">Rises with each change of time (RFC 5545 section 3.8.7.4).</param>
/// <param name="IsHeld">Only held: written as tentative.</param>
/// <param name="Organizer">Null for what nobody is asked to.</param>
public sealed record SessionEvent(
    string Uid, int Sequence, Instant StampedAt, Span Time, string Title, string? Place, string? Description, bool IsHeld, Party? Organizer, IReadOnlyList<Party> Attendees);

/// <summary>
/// Writes sessions for hosts' own calendars. Everybody who takes part bears SCHEDULE-AGENT=CLIENT (RFC 6638 section 7.1): invitations are
/// ours to send, and no calendar server may send a second one.
/// </summary>
public static class SessionFile
{
    /// <summary>One calendar object (RFC 4791 section 4.1), without a METHOD, as it is put into a collection.</summary>
    public static string Write(SessionEvent session) => Serialize([session], null);

    /// <summary>All of somebody's sessions to subscribe to: METHOD:PUBLISH (RFC 5546 section 1.4), with a hint how often to ask again.</summary>
    /// <param name="name">What the calendar calls itself (RFC 7986 section 5.1).</param>
    public static string WriteFeed(string name, IEnumerable<SessionEvent> sessions) => Serialize(sessions, name);

    private static string Serialize(IEnumerable<SessionEvent> sessions, string? name)
    {
        var calendar = new Calendar { ProductId = "-//Loose Lantern//Session//EN", Version = "2.0" };
        if (name is not null)
        {
            calendar.Method = "PUBLISH";
            calendar.AddProperty("NAME", name);
            var every = new CalendarProperty("REFRESH-INTERVAL", "PT5M");
            every.AddParameter("VALUE", "DURATION");
            calendar.Properties.Add(every);
        }

        calendar.Events.AddRange(sessions.Select(EventOf));
        return new CalendarSerializer().SerializeToString(calendar)!;
    }

    private static CalendarEvent EventOf(SessionEvent session)
    {
        var written = new CalendarEvent
        {
            Uid = session.Uid,
            Sequence = session.Sequence,
            DtStamp = Utc.Of(session.StampedAt),
            DtStart = Utc.Of(session.Time.Start),
            DtEnd = Utc.Of(session.Time.End),
            Summary = session.Title,
            Location = session.Place,
            Description = session.Description,
            Status = session.IsHeld ? "TENTATIVE" : "CONFIRMED",
            Transparency = "OPAQUE",
        };
        if (session.Organizer is { } organizer)
        {
            written.Organizer = new Organizer { Value = AddressOf(organizer), CommonName = Line(organizer.Name) };
            written.Organizer.Parameters.Set("SCHEDULE-AGENT", "CLIENT");
        }

        foreach (var party in session.Attendees) written.Attendees.Add(AttendeeOf(party));
        return written;
    }

    private static Attendee AttendeeOf(Party party)
    {
        var attendee = new Attendee
        {
            Value = AddressOf(party),
            CommonName = Line(party.Name),
            ParticipationStatus = "ACCEPTED",
            Role = party.Kind == PartyKind.Person ? "REQ-PARTICIPANT" : "NON-PARTICIPANT",
            Type = party.Kind switch { PartyKind.Room => "ROOM", PartyKind.Thing => "RESOURCE", _ => "INDIVIDUAL" },
        };
        attendee.Parameters.Set("SCHEDULE-AGENT", "CLIENT");
        return attendee;
    }

    /// <summary>A calendar user address is any URI (RFC 5545 section 3.3.3); what has no mail gets one that nobody can send to.</summary>
    private static Uri AddressOf(Party party) => new(party.Address is { } address ? $"mailto:{Uri.EscapeDataString(address).Replace("%40", "@")}" : $"urn:uuid:{party.Id:D}");

    /// <summary>Parameters can hold no quotation mark and no control character (section 3.2).</summary>
    private static string Line(string name) => new([.. name.Select(letter => letter == '"' ? '\'' : char.IsControl(letter) ? ' ' : letter)]);
}
