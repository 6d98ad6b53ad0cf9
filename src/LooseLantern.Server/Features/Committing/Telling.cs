using LooseLantern.Server.Data.Model;
using NodaTime;

namespace LooseLantern.Server.Features.Committing;

/// <summary>Messages about a booking, to be saved with what they speak of.</summary>
internal static class Telling
{
    public static Message Of(MessageKind kind, Booking booking, string name, string address, Instant due)
    {
        var id = Guid.CreateVersion7();
        return new Message
        {
            Id = id,
            WorkspaceId = booking.WorkspaceId,
            Kind = kind,
            BookingId = booking.Id,
            ToName = name,
            ToAddress = address,
            MessageId = $"{id:N}@loose-lantern",
            DueAt = due,
        };
    }
}
