using LooseLantern.Server.Data;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.TimeZones;

public static class ZonesEndpoints
{
    private const int MostUsual = 6;
    private const int LatestBookings = 200;

    /// <summary>Open to all: whoever signs up chooses a zone before they have a sign-in.</summary>
    public static void MapZones(this IEndpointRouteBuilder api) =>
        api.MapGet("/zones", async (LanternDb db, Tenant tenant, IClock clock, CancellationToken ct) =>
                new ZonesAnswer(
                    ZoneList.Version,
                    ZoneList.At(clock.GetCurrentInstant()),
                    tenant.WorkspaceId is null ? [] : await UsualAsync(db, ct)
                )
            )
            .AllowAnonymous()
            .WithName("listZones")
            .WithTags("Zones");

    /// <summary>Of hosts and pages, and of the guests of late.</summary>
    private static async Task<IReadOnlyList<string>> UsualAsync(LanternDb db, CancellationToken ct)
    {
        var hosts = await db.Hosts.Select(host => host.Zone).ToListAsync(ct);
        var pages = await db.DeskPages.Select(page => page.Zone).ToListAsync(ct);
        var guests = await db
            .Bookings.OrderByDescending(booking => booking.BookedAt)
            .Select(booking => booking.GuestZone)
            .Take(LatestBookings)
            .ToListAsync(ct);
        return
        [
            .. hosts
                .Concat(pages)
                .Concat(guests)
                .CountBy(zone => zone)
                .OrderByDescending(zone => zone.Value)
                .ThenBy(zone => zone.Key, StringComparer.Ordinal)
                .Take(MostUsual)
                .Select(zone => zone.Key),
        ];
    }
}
