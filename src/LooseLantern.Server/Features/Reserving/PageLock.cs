using LooseLantern.Server.Data;
using Microsoft.EntityFrameworkCore;

namespace LooseLantern.Server.Features.Reserving;

/// <summary>
/// Whatever changes a booking takes turns by the lock of its page, within the caller's transaction, so that no two
/// changes read the same and one is lost.
/// </summary>
public static class PageLock
{
    public static Task OfBookingAsync(LanternDb db, Guid bookingId, CancellationToken ct) =>
        db.Database.ExecuteSqlAsync(
            $"SELECT 1 FROM pages WHERE id = (SELECT s.page_id FROM bookings b JOIN sessions s ON s.id = b.session_id WHERE b.id = {bookingId}) FOR UPDATE",
            ct
        );
}
