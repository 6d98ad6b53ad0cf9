using Ical.Net;
using Ical.Net.CalendarComponents;
using Ical.Net.DataTypes;
using Ical.Net.Serialization;
using LooseLantern.Core;
using NodaTime;

namespace LooseLantern.Formats.ICalendar.Writing;

/// <summary>A session, or time that is held, as it stands in a host's calendar.</summary>
/// <param name="Sequence">Rises with each change of time (RFC 5545 section 3.8.7.4).</param>
/// <param name="IsHeld">Only held: written as tentative.</param>
/// <param name="Organizer">Null for what nobody is asked to.</param>
public sealed record SessionEvent(
    string Uid,
    int Sequence,
    Instant StampedAt,
    Span Time,
    string Title,
    string? Place,
    string? Description,
    bool IsHeld,
    Participant? Organizer,
    IReadOnlyList<Participant> Attendees
)
{
    /// <summary>Whether it takes none of its hosts' time in their calendars (RFC 5545 section 3.8.2.7).</summary>
    public bool IsFree { get; init; }
}

/// <summary>
/// Writes sessions for hosts' own calendars. Everybody who takes part bears SCHEDULE-AGENT=CLIENT (RFC 6638 section
/// 7.1): invitations are ours to send, and no calendar server may send a second one.
/// </summary>
public static class SessionFile
{
    /// <summary>One calendar object (RFC 4791 section 4.1), without a METHOD, as it is put into a collection.</summary>
    public static string Write(SessionEvent session) => Serialize([session], null);

    /// <summary>
    /// All of somebody's sessions to subscribe to: METHOD:PUBLISH (RFC 5546 section 1.4), with a hint how often to ask
    /// again.
    /// </summary>
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
            Transparency = session.IsFree ? "TRANSPARENT" : "OPAQUE",
        };
        if (session.Organizer is { } organizer)
        {
            written.Organizer = new Organizer
            {
                Value = Participants.Address(organizer),
                CommonName = Participants.Line(organizer.Name),
            };
            written.Organizer.Parameters.Set("SCHEDULE-AGENT", "CLIENT");
        }

        foreach (var party in session.Attendees)
        {
            var attendee = Participants.Attendee(party, isAsked: false);
            attendee.Parameters.Set("SCHEDULE-AGENT", "CLIENT");
            written.Attendees.Add(attendee);
        }

        return written;
    }
}
