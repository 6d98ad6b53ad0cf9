using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Record;

/// <param name="For">The names of the hosts it was done for; empty where it was the person's own work.</param>
public sealed record RecordLine(Instant At, string Person, IReadOnlyList<string> For, string What);

public static class RecordEndpoints
{
    private const int MostLines = 100;

    public static void MapRecord(this IEndpointRouteBuilder api)
    {
        api.MapGet("/record", async (Guid? subject, LanternDb db, CancellationToken ct) =>
                await LinesAsync(
                    db,
                    subject is { } id ? db.Record.Where(entry => entry.SubjectId == id) : db.Record,
                    ct
                )
            )
            .WithName("listRecord")
            .WithTags("Record");

        api.MapGet(
                "/record/lines",
                (
                    [AsParameters] RecordQuery query,
                    string? after,
                    string? before,
                    int? take,
                    RecordLists lists,
                    CancellationToken ct
                ) => lists.ReadAsync(query, ListPlace.Of(after, before, take), ct)
            )
            .WithName("findRecord")
            .WithTags("Record")
            .WithDescription("By person, thing, day and words; the latest first.")
            .ProducesValidationProblem();

        // What others did in a host's name.
        api.MapGet("/me/record", async (Actor actor, LanternDb db, CancellationToken ct) =>
                actor.Required.HostId is { } host
                    ? await LinesAsync(db, db.Record.Where(entry => entry.ForHosts.Contains(host)), ct)
                    : []
            )
            .WithName("listDoneForMe")
            .WithTags("Record");
    }

    private static async Task<List<RecordLine>> LinesAsync(
        LanternDb db,
        IQueryable<RecordEntry> entries,
        CancellationToken ct
    )
    {
        var lines = await entries
            .AsNoTracking()
            .OrderByDescending(entry => entry.At)
            .ThenByDescending(entry => entry.Id)
            .Take(MostLines)
            .ToListAsync(ct);
        var ids = lines.SelectMany(line => line.ForHosts).Distinct().ToList();
        var names = await db
            .Hosts.Where(host => ids.Contains(host.Id))
            .ToDictionaryAsync(host => host.Id, host => host.Name, ct);
        var said = await RecordWords.SaidAsync(db, lines, ct);
        return
        [
            .. lines.Select(
                (line, at) =>
                    new RecordLine(
                        line.At,
                        line.PersonName,
                        [.. line.ForHosts.Where(names.ContainsKey).Select(id => names[id]).Order()],
                        said[at]
                    )
            ),
        ];
    }
}
