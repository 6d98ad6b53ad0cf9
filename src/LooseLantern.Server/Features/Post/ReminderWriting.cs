using LooseLantern.Core.Reminders;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Post;

/// <summary>
/// Writes the reminders of a booking, as messages that are due later. Those of before are dropped, so that they move
/// and go with the booking. What can wait does not come in the quiet hours of its reader.
/// </summary>
public sealed class ReminderWriting(LanternDb db, PostWords words)
{
    /// <summary>Guests have no settings of their own; at night nobody wants to hear of tomorrow.</summary>
    private static readonly QuietHours OfGuests = new(new LocalTime(21, 0), new LocalTime(8, 0));

    /// <param name="now">When what is told was done: who booked so late needs no reminder.</param>
    public async Task WriteAsync(AboutBooking about, Instant now, CancellationToken ct)
    {
        var (booking, trip) = (about.Booking, new RoundTrip(db));
        trip.Do(
            $"""
            DELETE FROM messages WHERE booking_id = {booking.Id} AND workspace_id = {booking.WorkspaceId}
                AND kind IN ('ReminderForGuest', 'ReminderForHost') AND state = 'Due' AND attempts = 0
            """
        );
        // Of all who come, in the order in which they booked.
        var guests = trip.Ask(
            $"""
            SELECT id, guest_name FROM bookings
            WHERE session_id = {booking.SessionId} AND cancelled_at IS NULL AND waits_until IS NULL ORDER BY id
            """,
            row => (Id: row.GetGuid(0), Name: row.GetString(1))
        );
        await trip.RunAsync(ct);
        if (booking.CancelledAt is not null || booking.WaitsUntil is not null)
            return;
        // A group's hosts are reminded once, by its first guest's booking.
        var isFirst = guests.Rows is [var first, ..] && first.Id == booking.Id;
        var telling = new Telling(Occasion.Booked);
        var toHosts = telling with { AllGuests = isFirst ? [.. guests.Rows.Select(guest => guest.Name)] : [] };
        foreach (var minutes in about.Page.Post.Reminders)
        {
            foreach (var reader in about.Page.Post.ToGuests == GuestMail.None ? [] : Reader.AllOf(booking))
            {
                Add(
                    about,
                    now,
                    MessageKind.ReminderForGuest,
                    reader,
                    () =>
                        GuestMails.Write(
                            about.Page.Post,
                            MessageKind.ReminderForGuest,
                            reader.Language,
                            words.Of(about, telling, reader)
                        ),
                    minutes,
                    OfGuests,
                    null
                );
            }

            foreach (
                var person in isFirst
                    ? about.Hosts.Select(about.PersonOf).OfType<Person>().Where(person => person.Notifications.Reminded)
                    : []
            )
            {
                var (reader, notifications) = (Reader.Of(person), person.Notifications);
                var quiet = notifications is { QuietFrom: { } from, QuietUntil: { } until }
                    ? new QuietHours(from, until)
                    : null;
                Add(
                    about,
                    now,
                    MessageKind.ReminderForHost,
                    reader,
                    () =>
                        PostTemplates.Write(
                            MessageKind.ReminderForHost,
                            reader.Language,
                            words.Of(about, toHosts, reader)
                        ),
                    minutes,
                    quiet,
                    person.Id
                );
            }
        }
    }

    /// <summary>
    /// Of a group, the first guest's booking bears the hosts' reminders; where that one went, the next does.
    /// </summary>
    public async Task RenewAsync(Guid sessionId, Guid exceptBookingId, Instant now, CancellationToken ct)
    {
        var next = await db
            .Bookings.Where(row => row.SessionId == sessionId && row.WaitsUntil == null)
            .OrderBy(row => row.Id)
            .Select(row => (Guid?)row.Id)
            .FirstOrDefaultAsync(ct);
        if (next is not { } id || id == exceptBookingId)
            return;
        foreach (var about in await AboutBooking.ReadAsync(db, [id], ct))
            await WriteAsync(about, now, ct);
    }

    private void Add(
        AboutBooking about,
        Instant now,
        MessageKind kind,
        Reader reader,
        Func<WrittenMail> write,
        int minutes,
        QuietHours? quiet,
        Guid? personId
    )
    {
        var (start, zone) = (about.Time.Start, DateTimeZoneProviders.Tzdb[reader.Zone]);
        var due = ReminderTimes.DueAt(start, minutes, zone);
        // Who books so late knows it still.
        if (due <= now)
            return;
        var message = PostDraft.Of(about, kind, reader, write, now);
        (message.DueAt, message.PersonId) = (quiet?.After(due, start, zone) ?? due, personId);
        db.Messages.Add(message);
    }
}
