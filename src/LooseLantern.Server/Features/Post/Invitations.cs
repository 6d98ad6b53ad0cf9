using LooseLantern.Formats.ICalendar.Writing;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Bookings;
using NodaTime;

namespace LooseLantern.Server.Features.Post;

/// <summary>The iCalendar parts of messages, with inserts in place of secrets.</summary>
public sealed class Invitations(IClock clock)
{
    /// <summary>For this guest and whom they bring alone: on a group page no guest ever sees another.</summary>
    /// <param name="withLink">Whether it bears the private link, which is the guest's own.</param>
    public string ForGuest(AboutBooking about, InvitationMethod method, WrittenMail appointment, bool withLink)
    {
        var booking = about.Booking;
        return Text(
            about,
            method,
            booking.Uid,
            booking.Sequence,
            appointment.Subject,
            withLink ? appointment.Text : WithoutLink(appointment.Text),
            withLink
                ? PlaceWords.ForGuest(about.Page, booking, booking.GuestLanguage)
                : PlaceWords.ForCompanion(about.Page, booking.GuestLanguage),
            GuestParticipants(booking)
        );
    }

    /// <summary>For a host whose calendars we can't write: the session with all its guests.</summary>
    public string ForHost(AboutBooking about, InvitationMethod method, IReadOnlyList<Booking> guests) =>
        Text(
            about,
            method,
            about.Session.Uid,
            about.Session.Sequence,
            BookingParticipants.TitleFor(about.Page, guests),
            PostInserts.Harmless(BookingParticipants.ForHosts(guests, about.Page, about.Time.Start)),
            PlaceWords.ForTeam(about.Page, guests, TeamLanguage(about)),
            [.. guests.SelectMany(GuestParticipants)]
        );

    /// <summary>
    /// For somebody whom the page invites along: as for a host, with their own name among those who are asked.
    /// </summary>
    public string ForInvitedAlong(
        AboutBooking about,
        InvitationMethod method,
        IReadOnlyList<Booking> guests,
        InvitedAlong along
    ) =>
        Text(
            about,
            method,
            about.Session.Uid,
            about.Session.Sequence,
            BookingParticipants.TitleFor(about.Page, guests),
            PostInserts.Harmless(BookingParticipants.ForHosts(guests, about.Page, about.Time.Start)),
            PlaceWords.ForTeam(about.Page, guests, TeamLanguage(about)),
            [
                new Participant(
                    about.Session.Id,
                    PostInserts.Harmless(along.Name.Length == 0 ? along.Email : along.Name),
                    along.Email
                ),
                .. guests.SelectMany(GuestParticipants),
            ]
        );

    private string Text(
        AboutBooking about,
        InvitationMethod method,
        string uid,
        int sequence,
        string title,
        string description,
        string place,
        IReadOnlyList<Participant> asked
    )
    {
        if (about.HasRoom)
            place = PostInserts.RoomLink;
        // Unfolded, so that no insert in it is torn apart before something is put in its place.
        return Folding.Unfold(
            InvitationFile.Write(
                new InvitationEvent(
                    method,
                    uid,
                    sequence,
                    clock.GetCurrentInstant(),
                    about.Time,
                    PostInserts.Harmless(title),
                    place.Length == 0 ? null : place,
                    description,
                    about.Lead,
                    PostInserts.Reply,
                    asked,
                    [.. about.Hosts.Select(about.PartyOf)]
                )
            )
        );
    }

    private static string TeamLanguage(AboutBooking about) =>
        about.Page.Details.Face.Language is { Length: > 0 } language ? language : "en";

    private static List<Participant> GuestParticipants(Booking booking) =>
        [.. BookingParticipants.Of(booking).Select(party => party with { Name = PostInserts.Harmless(party.Name) })];

    private static string WithoutLink(string text) =>
        string.Join('\n', text.Split('\n').Where(line => !line.Contains(PostInserts.Link, StringComparison.Ordinal)));
}
