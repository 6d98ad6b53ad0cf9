using LooseLantern.Core.Reminders;
using LooseLantern.Formats.ICalendar.Writing;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Post;

/// <summary>
/// Writes messages about bookings once what they speak of is saved: each says what is so now
/// (<see cref="Tellings"/> sees to it that this is what was so then). They go out later (<see cref="PostSender"/>).
/// </summary>
public sealed class PostWriting(
    LanternDb db,
    PostWords words,
    Invitations invitations,
    NotifiedPeople notifiedPeople,
    ReminderWriting reminders,
    IClock clock
)
{
    /// <summary>How many of a booking's companions are mailed; the others only count.</summary>
    public const int MostCompanions = 10;

    /// <summary>
    /// Tells the guests of these bookings, whom they bring along, the people whose time they take, whom the page
    /// invites along, and who else wants to hear of it.
    /// </summary>
    /// <remarks>Of several bookings of one session the team hears once, with everybody's names.</remarks>
    public async Task TellAsync(IReadOnlyCollection<Guid> bookingIds, Telling telling, CancellationToken ct)
    {
        telling = telling with { At = telling.At ?? clock.GetCurrentInstant() };
        foreach (
            var session in (await AboutBooking.ReadAsync(db, bookingIds, ct, telling.FormerHosts)).GroupBy(about =>
                about.Session.Id
            )
        )
            await TellAsync([.. session], telling, ct);
    }

    private async Task TellAsync(List<AboutBooking> session, Telling telling, CancellationToken ct)
    {
        telling = telling with { AllGuests = session.ConvertAll(about => about.Booking.GuestName) };
        foreach (var about in session)
        {
            var files =
                about.Page.Post.ToGuests == GuestMail.None || telling.TeamAlone
                    ? []
                    : await db
                        .PageFiles.Where(file => file.PageId == about.Page.Id)
                        .OrderBy(file => file.Name)
                        .Select(file => file.Id)
                        .ToArrayAsync(ct);
            if (!telling.TeamAlone)
            {
                if (!telling.ByLetter)
                    ToGuest(about, telling, files);
                ToCompanions(about, telling);
            }

            // Hosts' calendars are written again, and what is to come says it by itself.
            if (telling.Occasion == Occasion.RoomMade)
                continue;
            if (about == session[0] && telling.Occasion != Occasion.TakenBack)
            {
                await ToTeamAsync(about, telling, ct);
                await ToAlsoInvitedAsync(about, telling, ct);
            }

            if (telling.Occasion == Occasion.Replied)
                continue;
            await reminders.WriteAsync(about, telling.At!.Value, ct);
            if (about.Page.Places > 1 || about.Page.Offer is not null)
                await reminders.RenewAsync(
                    telling.FormerSessionId ?? about.Session.Id,
                    about.Booking.Id,
                    telling.At!.Value,
                    ct
                );
        }
    }

    private void ToGuest(AboutBooking about, Telling telling, Guid[] files)
    {
        MessageKind? kind = telling.Occasion switch
        {
            Occasion.Booked or Occasion.Accepted or Occasion.CompanyChanged => MessageKind.BookedForGuest,
            Occasion.Moved => MessageKind.MovedForGuest,
            Occasion.HostChanged => MessageKind.HostChangedForGuest,
            Occasion.Cancelled => MessageKind.CancelledForGuest,
            Occasion.Asked => MessageKind.AskedForGuest,
            Occasion.Declined => MessageKind.DeclinedForGuest,
            Occasion.Lapsed => MessageKind.LapsedForGuest,
            Occasion.RoomMade => MessageKind.RoomForGuest,
            _ => null,
        };
        // Guests who are mailed nothing of their bookings read all the same what somebody writes to them.
        if (kind is not { } told || (about.Page.Post.ToGuests == GuestMail.None && telling.Letter is null))
            return;
        // What only asks for a yes moves, or changes hands, while it waits: it is asked for as it is now.
        if (
            told is MessageKind.MovedForGuest or MessageKind.HostChangedForGuest
            && about.Booking.WaitsUntil is not null
        )
            told = MessageKind.AskedForGuest;
        foreach (var reader in Reader.AllOf(about.Booking))
            ToReader(about, telling, files, told, reader);
    }

    private void ToReader(AboutBooking about, Telling telling, Guid[] files, MessageKind told, Reader reader)
    {
        var message = Of(telling, about, told, reader, () =>
            GuestMails.Write(about.Page.Post, told, reader.Language, words.Of(about, telling, reader), telling.Letter)
        );
        if (about.Page.Post.ToGuests == GuestMail.Invitation && MethodFor(about, telling) is { } method)
            Attach(message, method, () =>
                invitations.ForGuest(
                    about,
                    method,
                    GuestMails.Appointment(about, words.Of(about, telling, reader)),
                    withLink: true
                )
            );
        if (told is MessageKind.BookedForGuest or MessageKind.MovedForGuest)
            message.FileIds = files;
        db.Messages.Add(message);
    }

    /// <summary>Nobody is invited to what waits for a yes.</summary>
    private static InvitationMethod? MethodFor(AboutBooking about, Telling telling) =>
        telling.Occasion switch
        {
            Occasion.Asked or Occasion.Declined or Occasion.Lapsed => null,
            _ when about.Booking.WaitsUntil is not null => null,
            Occasion.Cancelled => InvitationMethod.Cancel,
            _ => InvitationMethod.Request,
        };

    private void ToCompanions(AboutBooking about, Telling telling)
    {
        if (
            telling.Occasion == Occasion.Replied
            || about.Page.Post.ToGuests == GuestMail.None
            || MethodFor(about, telling) is not { } method
        )
            return;
        foreach (var companion in about.Booking.Companions.Take(MostCompanions))
            ToCompanion(about, telling, companion, method);
        foreach (var companion in telling.FormerCompanions)
            ToCompanion(about, telling, companion, InvitationMethod.Cancel);
    }

    private void ToCompanion(AboutBooking about, Telling telling, Companion companion, InvitationMethod method)
    {
        var booking = about.Booking;
        var reader = Reader.Of(booking) with
        {
            Name = companion.Name.Length == 0 ? companion.Email : companion.Name,
            Email = companion.Email,
            IsCompanion = true,
        };
        var kind =
            method == InvitationMethod.Cancel ? MessageKind.CancelledForCompanion : MessageKind.BookedForCompanion;
        var message = Of(telling, about, kind, reader, () =>
            PostTemplates.Write(kind, reader.Language, words.Of(about, telling, reader))
        );
        if (about.Page.Post.ToGuests == GuestMail.Invitation)
            Attach(message, method, () =>
                invitations.ForGuest(
                    about,
                    method,
                    GuestMails.Appointment(about, words.Of(about, telling, reader)),
                    withLink: false
                )
            );
        db.Messages.Add(message);
    }

    /// <summary>
    /// Whom the page invites along hears what hosts hear of bookings that stand, with the appointment.
    /// </summary>
    private async Task ToAlsoInvitedAsync(AboutBooking about, Telling telling, CancellationToken ct)
    {
        if (about.Page.Details.AlsoInvited.Count == 0 || about.Booking.WaitsUntil is not null)
            return;
        MessageKind? kind = telling.Occasion switch
        {
            Occasion.Booked or Occasion.Accepted or Occasion.HostChanged => MessageKind.BookedForHost,
            Occasion.Moved => MessageKind.MovedForHost,
            Occasion.Cancelled => MessageKind.CancelledForHost,
            _ => null,
        };
        if (kind is not { } told)
            return;
        var guests = await GuestsAsync(about, ct);
        var method = guests.Count == 0 ? InvitationMethod.Cancel : InvitationMethod.Request;
        foreach (var along in about.Page.Details.AlsoInvited)
        {
            var reader = new Reader(
                along.Name.Length == 0 ? along.Email : along.Name,
                along.Email,
                about.Page.Details.Face.Language is { Length: > 0 } language ? language : "en",
                LooseLantern.Core.TimeText.Clock.Usual,
                about.Page.Zone
            );
            var message = Of(telling, about, told, reader, () =>
                PostTemplates.Write(told, reader.Language, words.Of(about, telling, reader))
            );
            Attach(message, method, () => invitations.ForInvitedAlong(about, method, guests, along));
            db.Messages.Add(message);
        }
    }

    private Task<List<Booking>> GuestsAsync(AboutBooking about, CancellationToken ct) =>
        db
            .Bookings.AsNoTracking()
            .Where(row => row.SessionId == about.Session.Id && row.WaitsUntil == null)
            .OrderBy(row => row.BookedAt)
            .ToListAsync(ct);

    private async Task ToTeamAsync(AboutBooking about, Telling telling, CancellationToken ct)
    {
        IReadOnlySet<Guid>? written = null;
        List<Booking>? guests = null;
        foreach (var notified in await notifiedPeople.OfAsync(about, telling, ct))
        {
            MessageKind? kind = telling.Occasion switch
            {
                _ when notified.IsFormer => MessageKind.GivenAwayForHost,
                // Who has it now is who is asked.
                Occasion.HostChanged when about.Booking.WaitsUntil is not null => MessageKind.AskedForHost,
                Occasion.Moved => MessageKind.MovedForHost,
                Occasion.Cancelled => MessageKind.CancelledForHost,
                Occasion.Asked => MessageKind.AskedForHost,
                Occasion.Lapsed => MessageKind.LapsedForHost,
                Occasion.Replied => MessageKind.RepliedForHost,
                // Whoever is a host of it, or declined it for one, knows it.
                Occasion.Declined when notified.HostId is not null || notified.Person.Id == telling.Teller => null,
                Occasion.Declined => MessageKind.DeclinedForHost,
                _ => MessageKind.BookedForHost,
            };
            if (kind is not { } told)
                continue;
            var reader = Reader.Of(notified.Person);
            var message = Of(telling, about, told, reader, () =>
                PostTemplates.Write(told, reader.Language, words.Of(about, telling, reader))
            );
            message.PersonId = notified.Person.Id;
            if (told == MessageKind.AskedForHost)
                message.ProtectedSecret = about.Booking.ProtectedAnswerSecret;
            Time(message, notified, about, telling.At!.Value);
            // A host in whose calendar it can't be written gets the appointment by mail.
            if (IsInvited(notified, message))
            {
                written ??= await WrittenToAsync(about, ct);
                guests ??= await GuestsAsync(about, ct);
                if (!written.Contains(notified.HostId!.Value))
                    Invite(about, notified, message, guests);
            }

            db.Messages.Add(message);
        }
    }

    /// <summary>At once, after quiet hours, or with all else of the day.</summary>
    private static void Time(Message message, Notified notified, AboutBooking about, Instant now)
    {
        var notifications = notified.Person.Notifications;
        var zone = DateTimeZoneProviders.Tzdb[notified.Person.Zone];
        // What has to be answered in time waits for nothing.
        if (message.Kind == MessageKind.AskedForHost)
            return;
        if (notified.When == Notify.Daily)
            (message.State, message.DueAt) = (MessageState.Gathered, DailyPost.Next(notifications.DailyAt, zone, now));
        else if (notifications is { QuietFrom: { } from, QuietUntil: { } until })
            message.DueAt = new QuietHours(from, until).After(now, about.Time.Start, zone);
    }

    private static bool IsInvited(Notified notified, Message message) =>
        notified.HostId is not null
        && message.State != MessageState.Gathered
        && message.Kind is not (MessageKind.AskedForHost or MessageKind.RepliedForHost or MessageKind.LapsedForHost);

    private void Invite(AboutBooking about, Notified notified, Message message, List<Booking> guests)
    {
        var method = notified.IsFormer || guests.Count == 0 ? InvitationMethod.Cancel : InvitationMethod.Request;
        Attach(message, method, () => invitations.ForHost(about, method, guests));
    }

    /// <summary>The hosts in whose calendars it is written, or will be.</summary>
    private async Task<IReadOnlySet<Guid>> WrittenToAsync(AboutBooking about, CancellationToken ct) =>
        (
            await db
                .WrittenEvents.Where(row => row.SessionId == about.Session.Id)
                .Select(row => row.HostId)
                .ToListAsync(ct)
        ).ToHashSet();

    private static Message Of(
        Telling telling,
        AboutBooking about,
        MessageKind kind,
        Reader reader,
        Func<WrittenMail> write
    ) => PostDraft.Of(about, kind, reader, write, telling.At!.Value);

    private static void Attach(Message message, InvitationMethod method, Func<string> write)
    {
        try
        {
            (message.Calendar, message.CalendarMethod) = (write(), InvitationFile.MethodOf(method));
        }
        catch (Exception e) when (PostFaults.IsOfMessage(e))
        {
            PostFaults.Fail(message, e);
        }
    }
}
