using LooseLantern.Server.Data;
using LooseLantern.Server.Features.Hours;
using Microsoft.EntityFrameworkCore;

namespace LooseLantern.Server.Features.Team;

/// <param name="Hours">Null for a host that is always open.</param>
public sealed record HostView(Guid Id, string Name, string Zone, HoursDocument? Hours);

public sealed record DeskView(Guid Id, string Address, string Name);

public static class TeamEndpoints
{
    public static void MapTeam(this IEndpointRouteBuilder api)
    {
        api.MapGet("/hosts", async (LanternDb db, CancellationToken ct) =>
                (await db.Hosts.AsNoTracking().Include(host => host.Hours).OrderBy(host => host.Name).ToListAsync(ct))
                .ConvertAll(host => new HostView(host.Id, host.Name, host.Zone, host.Hours?.Document)))
            .WithName("listHosts").WithTags("Team");

        api.MapGet("/desks", async (LanternDb db, CancellationToken ct) =>
                await db.Desks.AsNoTracking().OrderBy(desk => desk.Name).Select(desk => new DeskView(desk.Id, desk.Address, desk.Name)).ToListAsync(ct))
            .WithName("listDesks").WithTags("Team");
    }
}
