using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Features.Calendars.Writing;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Bookings;

/// <summary>A booking in the coordinator's list.</summary>
/// <param name="Zone">IANA id of the page's zone.</param>
/// <param name="PageId">Of the page, or of the availability link, that it was made by.</param>
/// <param name="MayChange">Whether the person who asks may move or cancel it.</param>
/// <param name="Outside">What was done to its events in hosts' calendars and waits for an answer; such bookings come
/// first.</param>
/// <param name="Reply">What the guest's calendar answered to the invitation.</param>
/// <param name="WishStart">The time the guest asks for instead; null where they ask for none.</param>
/// <param name="Flags">What the page's screening noted.</param>
/// <param name="WaitsUntil">Until when it waits for a yes; null for one that stands.</param>
/// <param name="Places">How many people one session of the page takes.</param>
/// <param name="Party">How many people come by this booking.</param>
/// <param name="BookerName">Who booked it for the guest; empty where the guest did.</param>
/// <param name="IsAmongOurselves">Whether it has no guest, and who arranged it stands in the guest's place.</param>
/// <param name="GuestId">The guest as the team knows them; null for a time among ourselves.</param>
/// <param name="BookerId">The same of who booked it for the guest; null where the guest did.</param>
/// <param name="Outcome">Whether the guest came, as the team noted it.</param>
public sealed record BookingRow(
    Guid Id,
    Guid SessionId,
    Instant Start,
    Instant End,
    Guid PageId,
    bool IsOfLink,
    string Page,
    string Place,
    string Zone,
    IReadOnlyList<string> Hosts,
    string GuestName,
    string GuestEmail,
    string GuestZone,
    Instant BookedAt,
    IReadOnlyList<OutsideView> Outside,
    IReadOnlyList<string> Flags,
    GuestReply Reply,
    Instant? WishStart,
    Instant? WishEnd,
    Instant? WaitsUntil,
    Instant? CancelledAt,
    CancelledBy? CancelledBy,
    string CancelWord,
    bool MayChange,
    int Places,
    int Party,
    string BookerName,
    string BookerEmail,
    bool IsAmongOurselves,
    Guid? GuestId,
    Guid? BookerId,
    BookingOutcome Outcome
);

/// <summary>Bookings as the team reads them.</summary>
public sealed class BookingRows(OutsideAnswers answers, Allowances allowances)
{
    /// <summary>With all that a row tells.</summary>
    public static IQueryable<Booking> Whole(IQueryable<Booking> bookings) =>
        bookings
            .Include(row => row.Session!)
                .ThenInclude(session => session.Page)
            .Include(row => row.Session!)
                .ThenInclude(session => session.Hosts)
                    .ThenInclude(host => host.Host)
            .AsSplitQuery();

    /// <param name="withOutside">Whether what waits for an answer is told; of what is over, nothing is.</param>
    public async Task<List<BookingRow>> OfAsync(
        List<Booking> bookings,
        bool withOutside,
        Instant now,
        CancellationToken ct
    )
    {
        var outside = await answers.OfAsync([.. bookings.Select(row => row.SessionId).Distinct()], ct);
        var mayMove = await allowances.HostsAsync(Allowance.Move, ct);
        return bookings.ConvertAll(row =>
        {
            var (session, page) = (row.Session!, row.Session!.Page!);
            return new BookingRow(
                row.Id,
                row.SessionId,
                session.Time.LowerBound,
                session.Time.UpperBound,
                session.PageId,
                page.Offer is not null,
                page.Title,
                page.Place,
                page.Zone,
                [.. session.Hosts.OrderBy(host => host.Seat).Select(host => host.Host!.Name)],
                row.GuestName,
                row.GuestEmail,
                row.GuestZone,
                row.BookedAt,
                withOutside ? [.. outside[row.SessionId]] : [],
                row.Flags,
                row.Reply,
                row.WishStart,
                row.WishEnd,
                row.WaitsUntil,
                row.CancelledAt,
                row.CancelledBy,
                row.CancelWord,
                row.CancelledAt is null
                    && session.Time.UpperBound > now
                    && session.Hosts.TrueForAll(host => mayMove.Contains(host.HostId)),
                page.Places,
                row.Party,
                row.BookerName,
                row.BookerEmail,
                row.IsAmongOurselves,
                row.GuestId,
                row.BookerId,
                row.Outcome
            );
        });
    }
}
