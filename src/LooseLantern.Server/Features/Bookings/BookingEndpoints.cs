using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Features.Calendars.Writing;
using LooseLantern.Server.Features.Committing;
using LooseLantern.Server.Hosting;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Bookings;

/// <summary>A booking in the coordinator's list.</summary>
/// <param name="Zone">IANA id of the page's zone.</param>
/// <param name="MayCancel">Whether the person who asks may cancel it.</param>
/// <param name="Outside">What was done to its events in hosts' calendars and waits for an answer; such bookings come first.</param>
public sealed record BookingRow(
    Guid Id,
    Instant Start,
    Instant End,
    Guid PageId,
    string Page,
    string Place,
    string Zone,
    IReadOnlyList<string> Hosts,
    string GuestName,
    string GuestEmail,
    string GuestZone,
    Instant BookedAt,
    IReadOnlyList<OutsideView> Outside,
    Instant? CancelledAt,
    CancelledBy? CancelledBy,
    string CancelWord,
    bool MayCancel);

/// <param name="Word">Why, for the guest; may be empty.</param>
public sealed record CancelForm(string Word = "");

/// <param name="Total">How many there are in all, of which Rows is one run.</param>
public sealed record BookingList(Instant Now, int Total, IReadOnlyList<BookingRow> Rows);

public static class BookingEndpoints
{
    private const int MostRows = 100;

    public static void MapBookings(this IEndpointRouteBuilder api)
    {
        // Those that wait for an answer come first, then upcoming ones soonest first, past ones latest first; a session that is under way is still to come.
        api.MapGet("/bookings", async (bool? past, bool? cancelled, string? search, int? skip, int? take, LanternDb db, OutsideAnswers answers, Allowances allowances, IClock clock, CancellationToken ct) =>
            {
                var now = clock.GetCurrentInstant();
                var bookings = cancelled == true ? db.Bookings.IgnoreQueryFilters([LanternDb.Standing]).AsNoTracking().Where(row => row.CancelledAt != null) : db.Bookings.AsNoTracking();
                if (!string.IsNullOrWhiteSpace(search))
                {
                    var like = $"%{search.Trim().Replace("\\", "\\\\").Replace("%", "\\%").Replace("_", "\\_")}%";
                    bookings = bookings.Where(row => EF.Functions.ILike(row.GuestName, like, "\\")
                        || EF.Functions.ILike(row.GuestEmail, like, "\\") || EF.Functions.ILike(row.Session!.Page!.Title, like, "\\"));
                }

                bookings = cancelled == true
                    ? bookings.OrderByDescending(row => row.CancelledAt).ThenBy(row => row.Id)
                    : past == true
                    ? bookings.Where(row => row.Session!.Time.UpperBound <= now).OrderByDescending(row => row.Session!.Time.LowerBound).ThenBy(row => row.Id)
                    : bookings.Where(row => row.Session!.Time.UpperBound > now)
                        .OrderByDescending(row => db.WrittenEvents.Any(written => written.SessionId == row.SessionId && written.Outside != OutsideChange.None))
                        .ThenBy(row => row.Session!.Time.LowerBound).ThenBy(row => row.Id);

                var total = await bookings.CountAsync(ct);
                var rows = await bookings
                    .Skip(Math.Max(skip ?? 0, 0)).Take(Math.Clamp(take ?? 50, 1, MostRows))
                    .Include(row => row.Session!).ThenInclude(session => session.Page)
                    .Include(row => row.Session!).ThenInclude(session => session.Hosts).ThenInclude(host => host.Host)
                    .AsSplitQuery()
                    .ToListAsync(ct);
                var outside = await answers.OfAsync([.. rows.Select(row => row.SessionId).Distinct()], ct);
                var mayMove = await allowances.HostsAsync(Allowance.Move, ct);
                return new BookingList(now, total, rows.ConvertAll(row => new BookingRow(
                    row.Id, row.Session!.Time.LowerBound, row.Session.Time.UpperBound, row.Session.PageId, row.Session.Page!.Title, row.Session.Page.Place,
                    row.Session.Page.Zone, [.. row.Session.Hosts.OrderBy(host => host.Seat).Select(host => host.Host!.Name)],
                    row.GuestName, row.GuestEmail, row.GuestZone, row.BookedAt, past == true || cancelled == true ? [] : [.. outside[row.SessionId]],
                    row.CancelledAt, row.CancelledBy, row.CancelWord, row.CancelledAt is null && row.Session.Time.UpperBound > now && row.Session.Hosts.TrueForAll(host => mayMove.Contains(host.HostId)))));
            })
            .WithName("listBookings").WithTags("Bookings");

        api.MapPost("/bookings/{id:guid}/cancel", async Task<NoContent> (Guid id, CancelForm form, LanternDb db, Allowances allowances, Cancelling cancelling, CancellationToken ct) =>
            {
                var booking = await db.Bookings.AsNoTracking().Include(row => row.Session).ThenInclude(session => session!.Hosts).FirstOrDefaultAsync(row => row.Id == id, ct) ?? throw Refusal.NotFound("booking");
                await allowances.HoldToAsync(booking.Session!.Hosts.ConvertAll(host => host.HostId), Allowance.Move, ct);
                await cancelling.CancelAsync(id, CancelledBy.Team, form.Word, ct);
                return TypedResults.NoContent();
            })
            .WithName("cancelBooking").WithTags("Bookings").ProducesValidationProblem().ProducesProblem(403).ProducesProblem(404).ProducesProblem(409);
    }
}
