using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Calendars.Writing;
using LooseLantern.Server.Features.GuestBook;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Reserving;

/// <summary>
/// Changes what a guest answered, as long as the appointment has not begun. Hosts read it in their calendars and in the
/// booking.
/// </summary>
public sealed class AnswerChanging(LanternDb db, TimeLocks locks, EventWishes wishes, IClock clock)
{
    /// <exception cref="Refusal">409 for a booking that is cancelled or has begun. Nothing is written then.</exception>
    public async Task ChangeAsync(
        Guid bookingId,
        IReadOnlyList<GivenAnswer> answers,
        string[] flags,
        CancellationToken ct
    )
    {
        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        await locks.TakeAsync(new TimeLock { PageOfBooking = bookingId }, ct);
        var booking = await db
            .Bookings.Include(row => row.Session!)
                .ThenInclude(session => session.Hosts)
            .AsSplitQuery()
            .FirstOrDefaultAsync(row => row.Id == bookingId, ct)
            ?? throw new Refusal(StatusCodes.Status409Conflict, "cancelled");
        if (booking.Session!.Time.LowerBound <= clock.GetCurrentInstant())
            throw new Refusal(StatusCodes.Status409Conflict, "over", "over.begun");
        if (answers.SequenceEqual(booking.Answers))
            return;
        (booking.Answers, booking.Flags) = (answers, flags);
        await wishes.SaveAsync([booking.Session], ct);
        await FillAsync(booking, ct);
        await transaction.CommitAsync(ct);
    }

    private async Task FillAsync(Booking booking, CancellationToken ct)
    {
        var questions = await db
            .Pages.AsNoTracking()
            .Where(page => page.Id == booking.Session!.PageId)
            .Select(page => page.Questions)
            .SingleAsync(ct);
        if (questions.All(question => question.Fills is null))
            return;
        var fields = await db.Workspaces.AsNoTracking().Select(row => row.GuestFields).SingleAsync(ct);
        var trip = new RoundTrip(db);
        FieldsFilling.Fill(trip, booking.Id, GuestFieldValues.Of(questions, booking.Answers, fields));
        await trip.RunAsync(ct);
    }
}
