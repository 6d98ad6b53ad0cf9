using Ical.Net;
using Ical.Net.CalendarComponents;
using Ical.Net.DataTypes;
using Ical.Net.Serialization;
using LooseLantern.Core;
using NodaTime;

namespace LooseLantern.Formats.ICalendar.Writing;

/// <summary>The methods of RFC 5546 that we send.</summary>
public enum InvitationMethod
{
    Request,
    Cancel,
}

/// <summary>An invitation to one reader.</summary>
/// <param name="Uid">Kept over every move.</param>
/// <param name="Sequence">Rises with each change (RFC 5545 section 3.8.7.4).</param>
/// <param name="Organizer">The name and mail of whoever leads; answers go to <paramref name="AnswersTo"/>.</param>
/// <param name="AnswersTo">A mail address of this booking's own.</param>
/// <param name="Asked">Who is asked for an answer.</param>
/// <param name="Coming">Who comes anyway.</param>
public sealed record InvitationEvent(
    InvitationMethod Method,
    string Uid,
    int Sequence,
    Instant StampedAt,
    Span Time,
    string Title,
    string? Place,
    string Description,
    Participant Organizer,
    string AnswersTo,
    IReadOnlyList<Participant> Asked,
    IReadOnlyList<Participant> Coming
);

/// <summary>Writes invitations as they go by mail (iMIP, RFC 6047).</summary>
public static class InvitationFile
{
    private static readonly NodaTime.Duration Reminder = NodaTime.Duration.FromHours(1);

    public static string MethodOf(InvitationMethod method) => method == InvitationMethod.Request ? "REQUEST" : "CANCEL";

    public static string Write(InvitationEvent invitation)
    {
        var calendar = new Calendar
        {
            ProductId = "-//Loose Lantern//Invitation//EN",
            Version = "2.0",
            Method = MethodOf(invitation.Method),
        };
        var written = new CalendarEvent
        {
            Uid = invitation.Uid,
            Sequence = invitation.Sequence,
            DtStamp = Utc.Of(invitation.StampedAt),
            DtStart = Utc.Of(invitation.Time.Start),
            DtEnd = Utc.Of(invitation.Time.End),
            Summary = invitation.Title,
            Location = invitation.Place,
            Description = invitation.Description,
            Status = invitation.Method == InvitationMethod.Request ? "CONFIRMED" : "CANCELLED",
            Organizer = OrganizerOf(invitation),
        };
        foreach (var party in invitation.Asked)
            written.Attendees.Add(Participants.Attendee(party, isAsked: true));
        foreach (var party in invitation.Coming)
            written.Attendees.Add(Participants.Attendee(party, isAsked: false));
        if (invitation.Method == InvitationMethod.Request)
        {
            written.Alarms.Add(
                new Alarm
                {
                    Action = "DISPLAY",
                    Description = invitation.Title,
                    Trigger = new Trigger(Ical.Net.DataTypes.Duration.FromTimeSpanExact(-Reminder.ToTimeSpan())),
                }
            );
        }

        calendar.Events.Add(written);
        return new CalendarSerializer().SerializeToString(calendar)!;
    }

    /// <summary>
    /// Answers go to the booking's own address; whoever leads is named, with their own in EMAIL (RFC 7986 section 6.2).
    /// </summary>
    private static Organizer OrganizerOf(InvitationEvent invitation)
    {
        var organizer = new Organizer
        {
            Value = Participants.MailTo(invitation.AnswersTo),
            CommonName = Participants.Line(invitation.Organizer.Name),
        };
        if (invitation.Organizer.Email is { } address)
            organizer.Parameters.Set("EMAIL", address);
        return organizer;
    }
}
