using System.Globalization;
using System.Text.Json;
using LooseLantern.Server.Hosting;
using Microsoft.AspNetCore.WebUtilities;

namespace LooseLantern.Server.Data;

/// <summary>Rows of a list that stand together, in their order.</summary>
/// <param name="From">SQL from which rows are taken: the tables after FROM, then WHERE with whatever must hold.</param>
/// <param name="Key">What they are ordered by, never null; rows that agree in it go by id.</param>
/// <param name="Id">The column of their ids.</param>
public sealed record ListBlock(
    string From,
    string Key,
    string Id,
    bool Latest = false,
    ListKeyKind Kind = ListKeyKind.Instant
);

public enum ListKeyKind
{
    Instant,
    Text,
}

/// <summary>
/// Which run of a list is asked for: the first, or what comes after or before a place that was told of.
/// </summary>
/// <param name="Most">How many rows.</param>
public sealed record ListPlace(string? After, string? Before, int Most)
{
    public const int Usual = 30;

    /// <param name="take">As it was asked for; null for as many as usual.</param>
    public static ListPlace Of(string? after, string? before, int? take, int most = 100) =>
        new(after, before, Math.Clamp(take ?? Usual, 1, most));
}

/// <summary>A run of a list, by ids in their order.</summary>
/// <param name="Total">How many there are in all, or <see cref="ListRuns.MostCounted"/> and one where there are more.
/// </param>
/// <param name="Before">The place that the run before it is asked by; null where it is the first.</param>
/// <param name="After">The place that the run after it is asked by; null where it is the last.</param>
public sealed record ListRun(IReadOnlyList<Guid> Ids, int Total, string? Before, string? After);

/// <summary>
/// Reads lists run by run, by where the last one ended and not by counting: however far down a run lies, the index that
/// the order goes by leads to it, and rows that come or go meanwhile leave none out and show none twice.
/// </summary>
public static class ListRuns
{
    /// <summary>Of more nobody needs to know how many: counting them would take longer than reading the run.</summary>
    public const int MostCounted = 10_000;

    /// <param name="blocks">One block after another.</param>
    /// <param name="all">SQL from which the rows of all blocks are counted.</param>
    /// <param name="values">By their names in the SQL.</param>
    /// <param name="found">SQL of a query that the blocks read as "found", which is asked once; null for none.</param>
    /// <exception cref="Refusal">400 for a place that was never told of.</exception>
    public static async Task<ListRun> ReadAsync(
        LanternDb db,
        IReadOnlyList<ListBlock> blocks,
        string all,
        IReadOnlyDictionary<string, object> values,
        ListPlace place,
        CancellationToken ct,
        string? found = null
    )
    {
        var (isBack, key) = place.Before is { } before
            ? (true, KeyOf(before, "before", blocks))
            : (false, place.After is { } after ? KeyOf(after, "after", blocks) : null);
        var placed = new Dictionary<string, object>(values)
        {
            // One more tells whether there are more.
            ["most"] = place.Most + 1,
            ["key"] = key?.Value ?? "",
            ["key_id"] = key?.Id ?? Guid.Empty,
        };
        var trip = new RoundTrip(db);
        var asked = trip.Ask(
            (found is null ? "" : $"WITH found AS MATERIALIZED ({found}) ") + Sql(blocks, all, key, isBack),
            placed,
            row => new ListKey(row.GetInt32(0), row.GetString(1), row.GetGuid(2))
        );
        await trip.RunAsync(ct);
        var total = int.Parse(asked.Row.Value, CultureInfo.InvariantCulture);
        var rows = asked.Rows.Skip(1).Take(place.Most).ToList();
        if (isBack)
            rows.Reverse();
        var isMore = asked.Rows.Count - 1 > place.Most;
        // What stood there may be gone by now: then the way back is by the place itself.
        var (first, last) = rows.Count > 0 ? (rows[0], rows[^1]) : (key, key);
        return new ListRun(
            rows.ConvertAll(row => row.Id),
            total,
            (isBack ? isMore : key is not null) ? first?.ToString() : null,
            isBack || isMore ? last?.ToString() : null
        );
    }

    private static string Sql(IReadOnlyList<ListBlock> blocks, string all, ListKey? key, bool isBack)
    {
        // One block is read after another, and none after the row that is the last: that rows of UNION ALL come in the
        // order of its parts is so where nothing is read in parallel, and no connection of ours does.
        var parts = new List<string>
        {
            $"(SELECT -1 AS block, CAST(count(*) AS text) AS key, CAST('{Guid.Empty}' AS uuid) AS id FROM (SELECT 1 FROM {all} LIMIT {MostCounted + 1}) AS one)",
        };
        for (var at = 0; at < blocks.Count; at++)
        {
            var i = isBack ? blocks.Count - 1 - at : at;
            if (key is not null && (isBack ? i > key.Block : i < key.Block))
                continue;
            var block = blocks[i];
            var (way, beyond) = block.Latest != isBack ? ("DESC", "<") : ("ASC", ">");
            var type = block.Kind == ListKeyKind.Instant ? "timestamptz" : "text";
            var past =
                key?.Block == i ? $" AND ({block.Key}, {block.Id}) {beyond} (CAST(@key AS {type}), @key_id)" : "";
            parts.Add(
                $"""
                (SELECT {i} AS block, CAST({block.Key} AS text) AS key, {block.Id} AS id
                FROM {block.From}{past} ORDER BY {block.Key} {way}, {block.Id} {way} LIMIT @most)
                """
            );
        }

        return string.Join(" UNION ALL ", parts) + " LIMIT @most + 1";
    }

    private static ListKey KeyOf(string text, string field, IReadOnlyList<ListBlock> blocks)
    {
        if (ListKey.Read(text) is not { } key || key.Block < 0 || key.Block >= blocks.Count)
            throw Refusal.Invalid(field, "list-place");
        if (blocks[key.Block].Kind == ListKeyKind.Text)
            return key.Value.Contains('\0', StringComparison.Ordinal)
                ? throw Refusal.Invalid(field, "list-place")
                : key;
        // Told in the database's way, and asked in one that it reads whatever was sent.
        return DateTimeOffset.TryParse(key.Value, CultureInfo.InvariantCulture, out var at)
            ? key with
            {
                Value = at.ToString("O", CultureInfo.InvariantCulture),
            }
            : throw Refusal.Invalid(field, "list-place");
    }

    /// <summary>Where a row stands in its list.</summary>
    private sealed record ListKey(int Block, string Value, Guid Id)
    {
        public static ListKey? Read(string text)
        {
            try
            {
                return JsonSerializer.Deserialize<ListKey>(WebEncoders.Base64UrlDecode(text)) is { Value: not null } key
                    ? key
                    : null;
            }
            catch (Exception e) when (e is FormatException or JsonException)
            {
                return null;
            }
        }

        public override string ToString() => WebEncoders.Base64UrlEncode(JsonSerializer.SerializeToUtf8Bytes(this));
    }
}
