using System.Security.Cryptography;
using System.Text.Json;
using LooseLantern.Server.Features.Guests.First;
using LooseLantern.Server.Features.Openings;
using LooseLantern.Server.Hosting;
using Microsoft.Extensions.Caching.Memory;
using NodaTime;
using Npgsql;

namespace LooseLantern.Server.Features.Guests;

/// <summary>What a guest asks for, as it is written in the request.</summary>
/// <param name="For">The secret of an address of their own.</param>
public sealed record OpeningsAsked(
    string Desk,
    string Page,
    string? From,
    string? To,
    string? Duration,
    string? Zone,
    string? Party,
    string? For = null
)
{
    /// <summary>What it takes in memory, about: whoever asks may write at length.</summary>
    public int Bytes =>
        sizeof(char)
        * (Desk.Length + Page.Length + new[] { From, To, Duration, Zone, Party, For }.Sum(part => part?.Length ?? 0));
}

/// <summary>An answer as it was sent, with all it takes to know whether it is so still.</summary>
/// <param name="Body">JSON in UTF-8.</param>
/// <param name="Tag">Its entity tag (RFC 9110 section 8.8.3).</param>
/// <param name="Read">What it was worked out from.</param>
public sealed record KeptAnswer(byte[] Body, string Tag, FactsRead Read)
{
    private FirstOpenings? _first;

    /// <summary>The same for a first answer, worked out once it is asked for.</summary>
    public FirstOpenings First =>
        _first ??= FirstOpenings.Of(
            JsonSerializer.Deserialize<OpeningsAnswer>(Body, Json.Options)
                ?? throw new InvalidOperationException("An answer without a body was kept.")
        );

    public static KeptAnswer Of(byte[] body, FactsRead read) =>
        new(body, $"W/\"{Convert.ToHexStringLower(SHA256.HashData(body).AsSpan(0, 12))}\"", read);
}

/// <summary>
/// Answers to guests who ask for openings, in memory, so many bytes at the most; those that nobody asked for lately go
/// first. One is given again only while the clock has not passed what changes it by itself, and once the database has
/// said in one small question that nothing it was worked out from changed: no guest sees a time that was taken before
/// they asked. No booking goes by it.
/// </summary>
public sealed class KeptOpenings(NpgsqlDataSource database, IClock clock) : IDisposable
{
    private const long MostBytes = 64 * 1024 * 1024;

    // What the rest of an entry takes, about.
    private const int Overhead = 8_000;

    /// <summary>Notes of changes are kept longer than this.</summary>
    private static readonly TimeSpan Longest = TimeSpan.FromMinutes(10);

    private readonly MemoryCache _kept = new(new MemoryCacheOptions { SizeLimit = MostBytes });

    /// <summary>The answer, where it is so still.</summary>
    public async Task<KeptAnswer?> FindAsync(OpeningsAsked asked, CancellationToken ct)
    {
        if (_kept.Get<KeptAnswer>(asked) is not { } found)
            return null;
        if (clock.GetCurrentInstant() < found.Read.GoodUntil && await IsUnchangedAsync(found.Read, ct))
            return found;
        _kept.Remove(asked);
        return null;
    }

    public void Keep(OpeningsAsked asked, KeptAnswer answer) =>
        _kept.Set(
            asked,
            answer,
            new MemoryCacheEntryOptions
            {
                Size = answer.Body.Length + asked.Bytes + Overhead,
                AbsoluteExpirationRelativeToNow = Longest,
            }
        );

    public void Dispose() => _kept.Dispose();

    private async Task<bool> IsUnchangedAsync(FactsRead read, CancellationToken ct)
    {
        await using var command = database.CreateCommand(
            """
            SELECT NOT EXISTS (
                SELECT 1 FROM unnest($1) AS thing (id) CROSS JOIN LATERAL (
                    SELECT 1 FROM fact_changes WHERE of = thing.id AND (kind = 1 OR of = ANY($2))
                        AND xid >= pg_snapshot_xmin($3::pg_snapshot) AND NOT pg_visible_in_snapshot(xid, $3::pg_snapshot)
                    LIMIT 1) AS changed)
            """
        );
        command.Parameters.Add(new NpgsqlParameter<Guid[]> { TypedValue = read.Of });
        command.Parameters.Add(new NpgsqlParameter<Guid[]> { TypedValue = read.OfThemselves });
        command.Parameters.Add(new NpgsqlParameter<string> { TypedValue = read.Snapshot });
        return (bool)(await command.ExecuteScalarAsync(ct))!;
    }
}
