using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Post;

/// <param name="Total">How many there are in all, of which Rows is one run; 10,001 stands for more.</param>
/// <param name="IsSending">Whether a mail server is set; where none is, mail waits.</param>
/// <param name="Before">What the run before is asked by; null where this is the first.</param>
/// <param name="After">What the run after is asked by; null where this is the last.</param>
public sealed record PostList(
    Instant Now,
    int Total,
    bool IsSending,
    IReadOnlyList<PostRow> Rows,
    string? Before,
    string? After
);

/// <summary>
/// Lists of messages: what failed before all else, then the latest first, what is held back too; what waits for its
/// hour comes last, and by itself it is listed as it falls due.
/// </summary>
public sealed class PostLists(LanternDb db, Tenant tenant, PostSettings settings, IClock clock)
{
    // As the index ix_messages_words has it.
    private const string Written = "(m.to_name || E'\\n' || m.to_email || E'\\n' || m.subject)";

    private const string ForItsHour = "(m.state = 'Due' AND m.due_at > @now AND m.held_back IS NULL)";

    /// <param name="state">Null for all.</param>
    /// <param name="search">In subjects, names and addresses of readers; null or blank for all.</param>
    /// <exception cref="Refusal">400 for a place that was never told of.</exception>
    public async Task<PostList> ReadAsync(MessageState? state, string? search, ListPlace place, CancellationToken ct)
    {
        var now = clock.GetCurrentInstant();
        var asked = state is { } one ? $" AND m.state = '{one}'" : "";
        var isSearched = !string.IsNullOrWhiteSpace(search);
        // What is searched for is found once, with all that its order goes by.
        var searched = $"""
            SELECT m.id, m.state, m.due_at, m.held_back, m.written_at FROM messages m
            WHERE m.workspace_id = @workspace{asked} AND {Written} ILIKE @like
            """;
        var all = isSearched ? "found m WHERE true" : $"messages m WHERE m.workspace_id = @workspace{asked}";
        var run = await ListRuns.ReadAsync(
            db,
            state == MessageState.Due
                ? [new(all, "m.due_at", "m.id")]
                :
                [
                    new($"{all} AND m.state = 'Failed'", "m.written_at", "m.id", Latest: true),
                    new($"{all} AND m.state <> 'Failed' AND NOT {ForItsHour}", "m.written_at", "m.id", Latest: true),
                    new($"{all} AND {ForItsHour}", "m.written_at", "m.id", Latest: true),
                ],
            all,
            new Dictionary<string, object>
            {
                ["workspace"] = tenant.WorkspaceId!.Value,
                ["now"] = now,
                ["like"] = Words.Containing(search ?? ""),
            },
            place,
            ct,
            isSearched ? searched : null
        );
        var rows = await db
            .Messages.AsNoTracking()
            .Where(row => run.Ids.Contains(row.Id))
            .ToDictionaryAsync(row => row.Id, ct);
        return new PostList(
            now,
            run.Total,
            settings.Host is not null,
            [.. run.Ids.Where(rows.ContainsKey).Select(id => PostEndpoints.RowOf(rows[id]))],
            run.Before,
            run.After
        );
    }
}
