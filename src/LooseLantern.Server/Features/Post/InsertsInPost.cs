using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Bookings;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;

namespace LooseLantern.Server.Features.Post;

/// <summary>Finds what is to be put in the place of a message's marks.</summary>
public sealed class InsertsInPost(LanternDb db, PrivateLinks links, ReplyAddresses replies)
{
    public async Task<InsertValues> OfAsync(Message message, CancellationToken ct)
    {
        var own = message.ProtectedSecret is { } secret ? links.Reveal(secret) : "";
        if (message.BookingId is not { } bookingId)
            return new InsertValues(
                "",
                message.ProtectedReplySecret is { } reply ? replies.RevealOfLetter(reply) : "",
                own,
                "",
                ""
            );
        var booking = await db
            .Bookings.IgnoreQueryFilters([LanternDb.NotCancelled])
            .AsNoTracking()
            .SingleAsync(row => row.Id == bookingId, ct);
        var room = await db
            .VideoRooms.AsNoTracking()
            .FirstOrDefaultAsync(row => row.SessionId == booking.SessionId && row.Link != null, ct);
        return new InsertValues(
            links.Reveal(booking.ProtectedSecret),
            replies.RevealFor(booking, message.ToEmail),
            own,
            room?.Link ?? ScreenPhrases.Say(booking.GuestLanguage, "place.address-follows"),
            room?.Code ?? ""
        );
    }
}
