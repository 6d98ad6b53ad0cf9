using LooseLantern.Core;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Calendars.Writing;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Reserving;

/// <param name="People">Everybody the guest brings along.</param>
public sealed record CompanionsForm(IReadOnlyList<Companion> People);

/// <summary>
/// Changes whom a guest brings along. They take no place and no time of anybody; they are invited, and hosts are told.
/// </summary>
public sealed class BringingAlong(LanternDb db, EventWishes wishes, PostWriting post, IClock clock)
{
    /// <exception cref="Refusal">400 naming whom to mend, or for more than the page lets; 409 for a booking that is
    /// cancelled or has begun. Nothing is written then.</exception>
    public async Task BringAsync(Guid bookingId, CompanionsForm form, CancellationToken ct)
    {
        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        await PageLock.OfBookingAsync(db, bookingId, ct);
        db.ChangeTracker.Clear();
        var booking = await db
            .Bookings.Include(row => row.Session!)
                .ThenInclude(session => session.Hosts)
            .Include(row => row.Session!)
                .ThenInclude(session => session.Page)
            .AsSplitQuery()
            .FirstOrDefaultAsync(row => row.Id == bookingId, ct)
            ?? throw new Refusal(
                StatusCodes.Status409Conflict,
                "cancelled",
                "This booking is cancelled.",
                "Reserve another time instead."
            );
        if (booking.Session!.Time.LowerBound <= clock.GetCurrentInstant())
            throw new Refusal(StatusCodes.Status409Conflict, "over", "This booking has begun or is over.");
        Check(form, booking);
        var people = form.People.Select(one => new Companion(one.Name.Trim(), one.Email.Trim())).ToList();
        if (people.SequenceEqual(booking.Companions))
            return;
        var former = booking.Companions.Where(was => !people.Exists(one => IsSame(one.Email, was.Email))).ToList();
        booking.Companions = people;
        booking.Sequence++;
        await wishes.ForSessionAsync(booking.Session, ct);
        await db.SaveChangesAsync(ct);
        await post.TellAsync([bookingId], new Telling(Occasion.CompanyChanged) { FormerCompanions = former }, ct);
        await db.SaveChangesAsync(ct);
        await transaction.CommitAsync(ct);
    }

    private static void Check(CompanionsForm form, Booking booking)
    {
        var most = booking.Session!.Page!.Changes.MostBrought;
        var faults = new Dictionary<string, string[]>();
        if (form.People.Any(one => one is null))
            throw Refusal.Invalid("people", "Name each by name and email.");
        if (form.People.Count > most)
            faults["people"] =
            [
                most == 0 ? "Nobody can be brought along to this." : $"Bring {most} people along at the most.",
            ];
        for (var i = 0; i < form.People.Count; i++)
        {
            var one = form.People[i];
            if (one.Name is null || (one.Name.Length > 0 && !Words.FitOneLine(one.Name)))
                faults[$"people[{i}].name"] = ["Give the name in up to 120 characters, or leave it empty."];
            if (!EmailAddress.IsPlausible(one.Email?.Trim()))
                faults[$"people[{i}].email"] = [EmailAddress.Mend];
            else if (IsSame(one.Email!, booking.GuestEmail))
                faults[$"people[{i}].email"] = ["This is the address of whoever booked; they come anyway."];
            else if (form.People.Take(i).Any(other => IsSame(other.Email ?? "", one.Email!)))
                faults[$"people[{i}].email"] = ["This address stands there twice; take one away."];
        }

        if (faults.Count > 0)
            throw Refusal.Invalid(faults);
    }

    private static bool IsSame(string one, string other) =>
        one.Trim().Equals(other.Trim(), StringComparison.OrdinalIgnoreCase);
}
