using LooseLantern.Core;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Calendars.Writing;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Reserving;

/// <param name="People">Everybody the guest brings along who is to be invited.</param>
/// <param name="Party">How many come in all, the guest too; null for the guest and those who are named.</param>
public sealed record CompanionsForm(IReadOnlyList<Companion> People, int? Party = null) : IMailsTo
{
    public IEnumerable<(string Field, string? Address)> MailsTo() => IMailsTo.Of("people", People, one => one.Email);
}

/// <summary>
/// Changes whom a guest brings along. Each takes a place of a group page, and none where there is one place a session.
/// Who is named is invited, and hosts are told.
/// </summary>
public sealed class BringingAlong(LanternDb db, TimeLocks locks, EventWishes wishes, Tellings tellings, IClock clock)
{
    /// <exception cref="Refusal">400 naming whom to mend, or for more than the page lets; 409 for a booking that is
    /// cancelled or has begun. Nothing is written then.</exception>
    /// <param name="byTeam">Whether somebody of the team does it, whom the page's limit does not bind.</param>
    public async Task BringAsync(Guid bookingId, CompanionsForm form, CancellationToken ct, bool byTeam = false)
    {
        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        await locks.TakeAsync(new TimeLock { PageOfBooking = bookingId }, ct);
        var booking = await db
            .Bookings.Include(row => row.Session!)
                .ThenInclude(session => session.Hosts)
            .Include(row => row.Session!)
                .ThenInclude(session => session.Page)
            .AsSplitQuery()
            .FirstOrDefaultAsync(row => row.Id == bookingId, ct)
            ?? throw new Refusal(StatusCodes.Status409Conflict, "cancelled");
        if (booking.Session!.Time.LowerBound <= clock.GetCurrentInstant())
            throw new Refusal(StatusCodes.Status409Conflict, "over", "over.begun");
        Check(form, booking, byTeam ? PostWriting.MostCompanions : booking.Session.Page!.Changes.MostBrought);
        var people = form.People.Select(one => new Companion(one.Name.Trim(), one.Email.Trim())).ToList();
        var party = PartySize.Of(form.Party, people.Count, booking.Session.Page!);
        if (people.SequenceEqual(booking.Companions) && party == booking.Party)
            return;
        await RequireRoomAsync(booking, party, ct);
        var former = booking
            .Companions.Take(PostWriting.MostCompanions)
            .Where(was => !people.Exists(one => IsSame(one.Email, was.Email)))
            .ToList();
        (booking.Companions, booking.Party) = (people, party);
        booking.Sequence++;
        tellings.Add(
            booking.Session.PageId,
            [bookingId],
            new Telling(Occasion.CompanyChanged) { FormerCompanions = former }
        );
        await wishes.SaveAsync([booking.Session], ct);
        await transaction.CommitAsync(ct);
    }

    /// <summary>Under the page's lock, so that no place is given away twice.</summary>
    private async Task RequireRoomAsync(Booking booking, int party, CancellationToken ct)
    {
        var places = booking.Session!.Page!.Places;
        if (places == 1 || party <= booking.Party)
            return;
        var others = await db
            .Bookings.Where(row => row.SessionId == booking.SessionId && row.Id != booking.Id)
            .SumAsync(row => row.Party, ct);
        if (others + party > places)
            throw PlacesLeft.TooFew(places - others, party);
    }

    private static void Check(CompanionsForm form, Booking booking, int most)
    {
        var faults = new Dictionary<string, Phrase[]>();
        if (form.People.Any(one => one is null))
            throw Refusal.Invalid("people", "along-whole");
        if (form.People.Count > most)
            faults["people"] = [most == 0 ? "nobody-along" : Phrase.Of("too-many-along", ("most", most))];
        for (var i = 0; i < form.People.Count; i++)
        {
            var one = form.People[i];
            if (one.Name is null || (one.Name.Length > 0 && !Words.FitOneLine(one.Name)))
                faults[$"people[{i}].name"] = ["name-or-none"];
            if (!EmailAddress.IsPlausible(one.Email?.Trim()))
                faults[$"people[{i}].email"] = ["email"];
            else if (IsSame(one.Email!, booking.GuestEmail))
                faults[$"people[{i}].email"] = ["along-self"];
            else if (form.People.Take(i).Any(other => IsSame(other.Email ?? "", one.Email!)))
                faults[$"people[{i}].email"] = ["along-twice"];
        }

        if (faults.Count > 0)
            throw Refusal.Invalid(faults);
    }

    private static bool IsSame(string one, string other) => EmailAddress.AreSame(one, other);
}
