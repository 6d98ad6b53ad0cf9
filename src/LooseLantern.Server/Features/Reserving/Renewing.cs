using LooseLantern.Server.Data.Model;

namespace LooseLantern.Server.Features.Reserving;

/// <summary>A booking that has another time is another thing to answer to.</summary>
internal static class Renewing
{
    public static void Renew(Booking booking)
    {
        booking.Sequence++;
        booking.AnswerStamp = null;
        booking.Outcome = BookingOutcome.None;
        (booking.Reply, booking.RepliedAt, booking.WishStart, booking.WishEnd) = (GuestReply.None, null, null, null);
    }
}
