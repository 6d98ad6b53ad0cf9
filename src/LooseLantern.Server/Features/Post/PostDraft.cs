using LooseLantern.Server.Data.Model;
using NodaTime;

namespace LooseLantern.Server.Features.Post;

/// <summary>Messages as they are first written: due at once.</summary>
public static class PostDraft
{
    /// <summary>A mail that can't be written is kept as failed: it must not undo what it would speak of.</summary>
    public static Message Of(AboutBooking about, MessageKind kind, Reader reader, Func<WrittenMail> write, Instant now)
    {
        try
        {
            return Of(about, kind, reader, write(), now);
        }
        catch (Exception e) when (PostFaults.IsOfMessage(e))
        {
            var message = Of(about, kind, reader, new WrittenMail(about.Page.Title, "", ""), now);
            PostFaults.Fail(message, e);
            return message;
        }
    }

    private static Message Of(AboutBooking about, MessageKind kind, Reader reader, WrittenMail mail, Instant now) =>
        Of(about.Booking.WorkspaceId, about.Page.Desk!.Name, kind, reader, mail, now, about.Booking.Id);

    public static Message Of(
        Guid workspaceId,
        string from,
        MessageKind kind,
        Reader reader,
        WrittenMail mail,
        Instant now,
        Guid? bookingId = null,
        Guid? id = null
    )
    {
        id ??= Guid.CreateVersion7();
        return new Message
        {
            Id = id.Value,
            WorkspaceId = workspaceId,
            Kind = kind,
            BookingId = bookingId,
            ToName = reader.Name,
            ToEmail = reader.Email,
            MessageId = $"{id:N}@loose-lantern.example",
            WrittenAt = now,
            DueAt = now,
            FromName = from,
            Subject = mail.Subject,
            Text = mail.Text,
            Html = mail.Html,
            OwnWordsFault = mail.OwnWordsFault is { } fault ? PostFaults.Short(fault) : null,
        };
    }
}
