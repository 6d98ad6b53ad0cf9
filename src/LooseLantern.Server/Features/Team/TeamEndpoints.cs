using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Features.Hours;
using LooseLantern.Server.Features.SignIn;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace LooseLantern.Server.Features.Team;

/// <summary>A host of the team.</summary>
/// <param name="HoursId">The named hours; null for a host that is always open.</param>
/// <param name="MayOffer">Whether the person who asks may offer this host's time.</param>
public sealed record HostView(
    Guid Id,
    HostKind Kind,
    Guid? PersonId,
    string Name,
    string Zone,
    Guid? HoursId,
    HoursDocument? Hours,
    int Weight,
    int? DailyCap,
    int? WeeklyCap,
    bool MayOffer
);

/// <param name="Effects">What other hours did to each page's openings in the next four weeks.</param>
public sealed record HostSaved(HostView Host, IReadOnlyList<PageEffect> Effects);

/// <param name="HostId">Their own time, where they are a host.</param>
public sealed record PersonView(
    Guid Id,
    string Name,
    string Email,
    bool IsOwner,
    bool IsCoordinator,
    Guid? HostId,
    string Line,
    string Zone,
    bool HasPortrait,
    bool SecondFactor
);

public static class TeamEndpoints
{
    public static void MapTeam(this IEndpointRouteBuilder api)
    {
        var team = api.MapGroup("").WithTags("Team");

        team.MapGet("/hosts", async (LanternDb db, Allowances allowances, CancellationToken ct) =>
            {
                var allowed = await allowances.HostsAsync(Allowance.Offer, ct);
                var hosts = await db
                    .Hosts.AsNoTracking()
                    .Include(host => host.Hours)
                    .Where(host => host.RetiredAt == null)
                    .OrderBy(host => host.Name)
                    .ToListAsync(ct);
                return hosts.ConvertAll(host => Of(host, allowed));
            })
            .WithName("listHosts");

        team.MapPost(
                "/hosts",
                async Task<Created<HostView>> (
                    PlaceForm form,
                    HostEditing editing,
                    Allowances allowances,
                    CancellationToken ct
                ) =>
                {
                    var host = await editing.AddPlaceAsync(form, ct);
                    return TypedResults.Created(
                        $"/api/hosts/{host.Id}",
                        Of(host, await allowances.HostsAsync(Allowance.Offer, ct))
                    );
                }
            )
            .WithName("addHost")
            .RequireAuthorization(Roles.Coordinator)
            .ProducesValidationProblem();

        team.MapPut(
                "/hosts/{id:guid}",
                async (Guid id, HostForm form, HostEditing editing, Allowances allowances, CancellationToken ct) =>
                {
                    var (host, did) = await editing.ChangeAsync(id, form, ct);
                    return new HostSaved(Of(host, await allowances.HostsAsync(Allowance.Offer, ct)), did);
                }
            )
            .WithName("changeHost")
            .RequireAuthorization(Roles.Coordinator)
            .ProducesValidationProblem()
            .ProducesProblem(403)
            .ProducesProblem(404);

        // A person's hours are also their own to choose.
        team.MapPut("/me/hours", async (OwnHoursRequest request, HostEditing editing, CancellationToken ct) =>
                await editing.ChooseOwnHoursAsync(request.HoursId, ct)
            )
            .WithName("chooseHours")
            .ProducesValidationProblem()
            .ProducesProblem(409);

        team.MapDelete("/hosts/{id:guid}", async Task<NoContent> (Guid id, HostEditing editing, CancellationToken ct) =>
            {
                await editing.RetireAsync(id, ct);
                return TypedResults.NoContent();
            })
            .WithName("retireHost")
            .RequireAuthorization(Roles.Coordinator)
            .ProducesProblem(404)
            .ProducesProblem(409);

        team.MapGet("/people", async (LanternDb db, CancellationToken ct) => await PeopleAsync(db, null, ct))
            .WithName("listPeople");

        team.MapPut(
                "/people/{id:guid}/roles",
                async (Guid id, RolesForm form, PeopleEditing editing, LanternDb db, CancellationToken ct) =>
                {
                    await editing.ChangeRolesAsync(id, form, ct);
                    return (await PeopleAsync(db, id, ct))[0];
                }
            )
            .WithName("changeRoles")
            .RequireAuthorization(Roles.Owner)
            .ProducesValidationProblem()
            .ProducesProblem(404)
            .ProducesProblem(409);

        team.MapPost(
                "/people/{id:guid}/leave",
                async (Guid id, LeaveForm form, Leaving leaving, CancellationToken ct) =>
                    await leaving.LeaveAsync(id, form, ct)
            )
            .WithName("leave")
            .RequireAuthorization(Roles.Owner)
            .ProducesValidationProblem()
            .ProducesProblem(404)
            .ProducesProblem(409);
    }

    private static HostView Of(Host host, HashSet<Guid> allowed) =>
        new(
            host.Id,
            host.Kind,
            host.PersonId,
            host.Name,
            host.Zone,
            host.HoursId,
            host.Hours?.Document,
            host.Weight,
            host.DailyCap,
            host.WeeklyCap,
            allowed.Contains(host.Id)
        );

    private static async Task<List<PersonView>> PeopleAsync(LanternDb db, Guid? only, CancellationToken ct) =>
        await db
            .Users.AsNoTracking()
            .Where(person => person.LeftAt == null && (only == null || person.Id == only))
            .OrderBy(person => person.Name)
            .Select(person => new PersonView(
                person.Id,
                person.Name,
                person.Email!,
                person.IsOwner,
                person.IsCoordinator,
                db.Hosts.Where(host => host.PersonId == person.Id && host.RetiredAt == null)
                    .Select(host => (Guid?)host.Id)
                    .FirstOrDefault(),
                person.Line,
                person.Zone,
                db.Portraits.Any(portrait => portrait.PersonId == person.Id),
                person.TwoFactorEnabled
            ))
            .ToListAsync(ct);
}
