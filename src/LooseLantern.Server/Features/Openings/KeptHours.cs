using System.Text.Json;
using LooseLantern.Core.Hours;
using LooseLantern.Server.Data;
using LooseLantern.Server.Features.Hours;
using LooseLantern.Server.Hosting;
using Microsoft.Extensions.Caching.Memory;

namespace LooseLantern.Server.Features.Openings;

/// <summary>
/// Sets of hours as Core has them, kept in memory by id and version: of one version what is in it never changes. Hosts
/// who follow one set share one object.
/// </summary>
public sealed class KeptHours : IDisposable
{
    private const int Most = 5_000;

    private readonly MemoryCache _kept = new(new MemoryCacheOptions { SizeLimit = Most });

    /// <param name="wanted">Of the workspace at hand.</param>
    public async Task<IReadOnlyDictionary<(Guid Id, int Version), HoursSet>> OfAsync(
        LanternDb db,
        IReadOnlyCollection<(Guid Id, int Version)> wanted,
        CancellationToken ct
    )
    {
        var found = new Dictionary<(Guid, int), HoursSet>();
        var missing = new List<Guid>();
        foreach (var key in wanted)
        {
            if (_kept.TryGetValue<HoursSet>(key, out var hours))
                found[key] = hours!;
            else
                missing.Add(key.Id);
        }

        if (missing.Count == 0)
            return found;
        var ids = missing.Distinct().ToArray();
        var trip = new RoundTrip(db);
        var rows = trip.Ask($"SELECT id, version, document FROM hours WHERE id = ANY({ids})", row =>
            (Key: (row.GetGuid(0), row.GetInt32(1)), Document: row.GetString(2))
        );
        await trip.RunAsync(ct);
        foreach (var (key, document) in rows.Rows)
        {
            var hours = JsonSerializer.Deserialize<HoursDocument>(document, Json.Options)!.ToCore();
            _kept.Set(key, hours, new MemoryCacheEntryOptions { Size = 1 });
            found[key] = hours;
        }

        // Changed between the two questions: what is so now is as right as what was.
        foreach (var key in wanted.Where(key => !found.ContainsKey(key)))
            found[key] = found.First(pair => pair.Key.Item1 == key.Id).Value;
        return found;
    }

    public void Dispose() => _kept.Dispose();
}
