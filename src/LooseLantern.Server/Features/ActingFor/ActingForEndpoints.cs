using LooseLantern.Server.Data;
using LooseLantern.Server.Features.Record;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.ActingFor;

/// <summary>What a host lets one coordinator do for them; all false for nothing.</summary>
public sealed record Grant(bool MayOffer, bool MayBook, bool MayMove, bool SeesTitles);

/// <summary>A coordinator beside what they may do for the host at hand.</summary>
public sealed record CoordinatorGrant(Guid PersonId, string Name, Grant Grant);

public static class ActingForEndpoints
{
    private static readonly Grant Nothing = new(false, false, false, false);

    /// <summary>A host's own choice of who acts for them. Nobody else can make it, owners included.</summary>
    public static void MapActingFor(this IEndpointRouteBuilder api)
    {
        var acting = api.MapGroup("/me/acting").WithTags("Acting for");

        acting
            .MapGet("/", async (Actor actor, LanternDb db, CancellationToken ct) =>
            {
                var (me, host) = (actor.Required.Id, HostOf(actor));
                var grants = await db
                    .ActingFor.AsNoTracking()
                    .Where(grant => grant.HostId == host)
                    .ToDictionaryAsync(grant => grant.PersonId, ct);
                var people = await db
                    .Users.AsNoTracking()
                    .Where(person =>
                        person.Id != me && person.LeftAt == null && (person.IsCoordinator || person.IsOwner)
                    )
                    .OrderBy(person => person.Name)
                    .Select(person => new { person.Id, person.Name })
                    .ToListAsync(ct);
                return people.ConvertAll(person => new CoordinatorGrant(
                    person.Id,
                    person.Name,
                    grants.TryGetValue(person.Id, out var grant) ? Of(grant) : Nothing
                ));
            })
            .WithName("listGrants")
            .ProducesProblem(409);

        acting
            .MapPut(
                "/{personId:guid}",
                async (
                    Guid personId,
                    Grant request,
                    Actor actor,
                    LanternDb db,
                    Tenant tenant,
                    RecordKeeping record,
                    IClock clock,
                    CancellationToken ct
                ) =>
                {
                    var host = HostOf(actor);
                    var person = await db
                        .Users.AsNoTracking()
                        .FirstOrDefaultAsync(row => row.Id == personId && row.LeftAt == null, ct)
                        ?? throw Refusal.NotFound("person");
                    if (!person.IsCoordinator && !person.IsOwner)
                        throw Refusal.Invalid("personId", Phrase.Of("no-coordinator", ("name", person.Name)));
                    var row = await db.ActingFor.FirstOrDefaultAsync(
                        grant => grant.HostId == host && grant.PersonId == personId,
                        ct
                    );
                    if (request == Nothing)
                    {
                        if (row is not null)
                            db.ActingFor.Remove(row);
                    }
                    else
                    {
                        if (row is null)
                        {
                            row = new Data.Model.ActingFor
                            {
                                WorkspaceId = tenant.WorkspaceId!.Value,
                                HostId = host,
                                PersonId = personId,
                                Since = clock.GetCurrentInstant(),
                            };
                            db.ActingFor.Add(row);
                        }

                        (row.MayOffer, row.MayBook, row.MayMove, row.SeesTitles) = (
                            request.MayOffer,
                            request.MayBook,
                            request.MayMove,
                            request.SeesTitles
                        );
                    }

                    record.Note(personId, $"Let {person.Name} {Words(request)}");
                    await db.SaveChangesAsync(ct);
                    return new CoordinatorGrant(personId, person.Name, request);
                }
            )
            .WithName("setGrant")
            .ProducesValidationProblem()
            .ProducesProblem(404)
            .ProducesProblem(409);
    }

    private static Guid HostOf(Actor actor) =>
        actor.Required.HostId ?? throw new Refusal(StatusCodes.Status409Conflict, "no-host");

    private static Grant Of(Data.Model.ActingFor row) => new(row.MayOffer, row.MayBook, row.MayMove, row.SeesTitles);

    private static string Words(Grant grant)
    {
        var may = new List<string>();
        if (grant.MayOffer)
            may.Add("offer their time");
        if (grant.MayBook)
            may.Add("book it");
        if (grant.MayMove)
            may.Add("move their bookings");
        if (grant.SeesTitles)
            may.Add("see titles");
        return may.Count == 0 ? "do nothing for them any more" : string.Join(", ", may);
    }
}
