using LooseLantern.Server.Data;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Tenancy;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Record;

/// <summary>Which lines of the record are asked for; what is left out asks for nothing.</summary>
/// <remarks>Words stand in what was done; what guests are called is not kept there. Dates are local ones of
/// whoever reads, both included.</remarks>
public sealed record RecordQuery
{
    [FromQuery(Name = "words")]
    public string? Words { get; init; }

    [FromQuery(Name = "person")]
    public Guid? Person { get; init; }

    [FromQuery(Name = "subject")]
    public Guid? Subject { get; init; }

    [FromQuery(Name = "from")]
    public string? From { get; init; }

    [FromQuery(Name = "to")]
    public string? To { get; init; }
}

/// <param name="For">The names of the hosts it was done for; empty where it was the person's own work.</param>
/// <param name="Way">The screen of what it was done to; null where that is gone, or has none.</param>
public sealed record RecordRow(
    Guid Id,
    Instant At,
    Guid PersonId,
    string Person,
    IReadOnlyList<string> For,
    string What,
    Guid SubjectId,
    string? Way
);

/// <param name="Total">How many lines there are in all, of which Rows is one run; 10,001 stands for more.</param>
/// <param name="Before">What the run before is asked by; null where this is the first.</param>
/// <param name="After">What the run after is asked by; null where this is the last.</param>
public sealed record RecordRun(int Total, IReadOnlyList<RecordRow> Rows, string? Before, string? After);

/// <summary>The record of who did what, the latest first.</summary>
public sealed class RecordLists(LanternDb db, Tenant tenant, Actor actor)
{
    /// <exception cref="Refusal">400 for a place that was never told of, no date, or dates that are
    /// swapped.</exception>
    public async Task<RecordRun> ReadAsync(RecordQuery query, ListPlace place, CancellationToken ct)
    {
        var values = new Dictionary<string, object> { ["workspace"] = tenant.WorkspaceId!.Value };
        var all = "record r WHERE r.workspace_id = @workspace" + await WhereAsync(query, values, ct);
        var run = await ListRuns.ReadAsync(db, [new(all, "r.at", "r.id", Latest: true)], all, values, place, ct);
        var found = await db
            .Record.AsNoTracking()
            .Where(row => run.Ids.Contains(row.Id))
            .ToDictionaryAsync(row => row.Id, ct);
        var lines = run.Ids.Where(found.ContainsKey).Select(id => found[id]).ToList();
        var hosts = lines.SelectMany(line => line.ForHosts).Distinct().ToList();
        var names = await db
            .Hosts.Where(host => hosts.Contains(host.Id))
            .ToDictionaryAsync(host => host.Id, host => host.Name, ct);
        var said = await RecordWords.SaidAsync(db, lines, ct);
        var ways = await WaysAsync([.. lines.Select(line => line.SubjectId).Distinct()], ct);
        return new RecordRun(
            run.Total,
            [
                .. lines.Select(
                    (line, at) =>
                        new RecordRow(
                            line.Id,
                            line.At,
                            line.PersonId,
                            line.PersonName,
                            [.. line.ForHosts.Where(names.ContainsKey).Select(id => names[id]).Order()],
                            said[at],
                            line.SubjectId,
                            ways.GetValueOrDefault(line.SubjectId)
                        )
                ),
            ],
            run.Before,
            run.After
        );
    }

    private async Task<string> WhereAsync(RecordQuery query, Dictionary<string, object> values, CancellationToken ct)
    {
        var sql = "";
        if (!string.IsNullOrWhiteSpace(query.Words))
        {
            values["like"] = Words.Containing(query.Words);
            sql += " AND r.what ILIKE @like";
        }

        if (query.Person is { } person)
        {
            values["person"] = person;
            sql += " AND r.person_id = @person";
        }

        if (query.Subject is { } subject)
        {
            values["subject"] = subject;
            sql += " AND r.subject_id = @subject";
        }

        var (from, to) = (IsoDates.Read("from", query.From), IsoDates.Read("to", query.To));
        if (from is null && to is null)
            return sql;
        if (to < from)
            throw Refusal.Invalid("to", "dates-swapped");
        var zone = await ReadersZone.OfAsync(db, actor, ct);
        if (from is { } first)
        {
            values["from"] = first.AtStartOfDayInZone(zone).ToInstant();
            sql += " AND r.at >= @from";
        }

        if (to is { } last)
        {
            values["until"] = last.PlusDays(1).AtStartOfDayInZone(zone).ToInstant();
            sql += " AND r.at < @until";
        }

        return sql;
    }

    /// <summary>Where each of these is shown, as far as it is there still.</summary>
    private async Task<Dictionary<Guid, string>> WaysAsync(Guid[] subjects, CancellationToken ct)
    {
        var (trip, workspace) = (new RoundTrip(db), tenant.WorkspaceId!.Value);
        var asked = trip.Ask(
            $"""
            SELECT id, '/work/bookings/' || id FROM bookings WHERE workspace_id = {workspace} AND id = ANY({subjects})
            UNION ALL SELECT id, CASE WHEN offer IS NULL THEN '/work/pages/' ELSE '/work/links/' END || id FROM pages WHERE workspace_id = {workspace} AND id = ANY({subjects}) AND (offer IS NULL OR {actor.Required.Coordinates})
            UNION ALL SELECT id, '/work/guests/' || id FROM guests WHERE workspace_id = {workspace} AND id = ANY({subjects}) AND merged_into IS NULL
            UNION ALL SELECT id, '/work/hours' FROM hours WHERE workspace_id = {workspace} AND id = ANY({subjects})
            UNION ALL SELECT id, '/work/team' FROM hosts WHERE workspace_id = {workspace} AND id = ANY({subjects}) AND retired_at IS NULL
            """,
            row => (Id: row.GetGuid(0), Way: row.GetString(1))
        );
        if (subjects.Length > 0)
            await trip.RunAsync(ct);
        return subjects.Length == 0
            ? []
            : asked.Rows.DistinctBy(row => row.Id).ToDictionary(row => row.Id, row => row.Way);
    }
}
