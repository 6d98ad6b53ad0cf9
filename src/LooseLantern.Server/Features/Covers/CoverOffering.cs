using LooseLantern.Core.Links;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Features.Links;
using LooseLantern.Server.Features.Pages;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Covers;

/// <summary>
/// The link by which guests of what is left choose anew: by the rules of their page, without whom can't come.
/// </summary>
public sealed class CoverOffering(LanternDb db, Allowances allowances, IClock clock)
{
    private const int Days = 14;

    /// <summary>Whose time whoever asks may offer.</summary>
    internal async Task<HashSet<Guid>> HostsAsync(CancellationToken ct)
    {
        var let = await allowances.HostsAsync(Allowance.Offer, ct);
        return
        [
            .. await db
                .Hosts.Where(host => let.Contains(host.Id) && host.RetiredAt == null)
                .Select(host => host.Id)
                .ToListAsync(ct),
        ];
    }

    /// <param name="left">Bookings of one page and one guest, with their sessions and the page, whole.</param>
    /// <param name="hosts">Who may be offered; nobody who can't come.</param>
    /// <returns>Null where a link can't offer it: of a group, and where nobody is left who lets whoever asks offer
    /// their time. Guests have the page then.</returns>
    internal LinkForm? Form(Page page, IReadOnlyList<(Session Session, Booking Booking)> left, IReadOnlySet<Guid> hosts)
    {
        if (page.Places > 1)
            return null;
        var seats = page
            .Seats.OrderBy(seat => seat.Position)
            .Select(seat => new SeatForm(
                [.. seat.Hosts.OrderBy(host => host.Position).Select(host => host.HostId).Where(hosts.Contains)],
                seat.Fill,
                seat.Keeper
            ))
            .ToList();
        if (seats.Exists(seat => seat.HostIds.Count == 0))
            return null;
        var zone = DateTimeZoneProviders.Tzdb[page.Zone];
        var now = clock.GetCurrentInstant().InZone(zone).Date;
        var until = LocalDate.Max(now, left.Max(one => one.Session.Time.LowerBound.InZone(zone).Date)).PlusDays(Days);
        var (booking, details) = (left[0].Booking, page.Details);
        return new LinkForm(
            page.Title,
            page.DeskId,
            page.Description,
            page.PlaceKind,
            page.Place,
            new LinkTimes(
                page.Zone,
                seats,
                [.. left.Select(one => CoverFacts.MinutesOf(one.Session)).Distinct()],
                page.Step,
                page.BufferBefore,
                page.BufferAfter,
                page.Notice,
                new Offer(OfferBy.Free, [], [], [], 0, 24 * 60, until, null),
                [],
                page.CalendarChoices
            ),
            [new LinkGuest(booking.GuestName, booking.GuestEmail)],
            booking.GuestZone,
            booking.GuestLanguage,
            new LinkDetails(
                details.Lead,
                details.AlsoInvited,
                page.Post.HostWords,
                "",
                LeavesFree: false,
                Takes: left.Count,
                Reopens: true,
                until,
                "",
                LinkText.Usual,
                $"“{page.Title}”",
                IsAmongOurselves: false,
                details.Place.HostsRing,
                // They answered them already.
                []
            )
        );
    }
}
