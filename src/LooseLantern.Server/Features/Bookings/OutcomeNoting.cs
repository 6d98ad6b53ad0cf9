using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Record;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Bookings;

public sealed record OutcomeForm(BookingOutcome Outcome);

/// <summary>Notes whether a guest came; the guest hears nothing of it.</summary>
public sealed class OutcomeNoting(LanternDb db, RecordKeeping record, IClock clock)
{
    /// <exception cref="Refusal">404 where there is none, 409 for one that is cancelled, waits for a yes, or has not
    /// begun.</exception>
    public async Task NoteAsync(Guid bookingId, OutcomeForm form, CancellationToken ct)
    {
        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        // As it is once nobody else changes it.
        await db.Database.ExecuteSqlAsync($"SELECT 1 FROM bookings WHERE id = {bookingId} FOR NO KEY UPDATE", ct);
        var booking = await db
            .Bookings.IgnoreQueryFilters([LanternDb.NotCancelled])
            .Include(row => row.Session!)
                .ThenInclude(session => session.Hosts)
            .FirstOrDefaultAsync(row => row.Id == bookingId, ct)
            ?? throw Refusal.NotFound("booking");
        if (booking.CancelledAt is not null)
            throw new Refusal(StatusCodes.Status409Conflict, "cancelled");
        if (booking.WaitsUntil is not null || booking.Session!.Time.LowerBound > clock.GetCurrentInstant())
            throw new Refusal(StatusCodes.Status409Conflict, "not-begun");
        if (booking.Outcome == form.Outcome)
            return;
        booking.Outcome = form.Outcome;
        record.Note(
            bookingId,
            form.Outcome switch
            {
                BookingOutcome.Happened => $"Noted that {RecordWords.Guest} came",
                BookingOutcome.Missed => $"Noted that {RecordWords.Guest} did not come",
                _ => $"Took back what was noted of {RecordWords.Guest}",
            },
            booking.Session.Hosts.Select(host => host.HostId)
        );
        await db.SaveChangesAsync(ct);
        await transaction.CommitAsync(ct);
    }
}
