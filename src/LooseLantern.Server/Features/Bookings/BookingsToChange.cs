using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;

namespace LooseLantern.Server.Features.Bookings;

/// <summary>Finds bookings that somebody of the team wants to change, if they may.</summary>
public sealed class BookingsToChange(LanternDb db, Allowances allowances)
{
    /// <exception cref="Refusal">404 where there is none that stands, 403 where its hosts don't let the person who
    /// asks.</exception>
    public async Task<Booking> FindAsync(Guid id, CancellationToken ct)
    {
        var booking = await BookingRows
            .Whole(db.Bookings.IgnoreQueryFilters([LanternDb.NotCancelled]).AsNoTracking())
            .FirstOrDefaultAsync(row => row.Id == id, ct)
            ?? throw Refusal.NotFound("booking");
        await allowances.RequireAsync(booking.Session!.Hosts.ConvertAll(host => host.HostId), Allowance.Move, ct);
        return booking;
    }
}
