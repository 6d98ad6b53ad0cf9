using LooseLantern.Server.Data.Model;
using Microsoft.Extensions.Caching.Memory;

namespace LooseLantern.Server.Features.Pages.Kept;

/// <summary>
/// Pages in memory, so many at the most; those that nobody asked for lately go first. What is here is only used once
/// the database has said that nothing of it changed (<see cref="PageReading"/>).
/// </summary>
public sealed class KeptPages : IDisposable
{
    private const int Most = 4_000;

    /// <summary>Notes of changes are kept longer than this.</summary>
    private static readonly TimeSpan Longest = TimeSpan.FromMinutes(10);

    private readonly MemoryCache _kept = new(new MemoryCacheOptions { SizeLimit = Most });
    private readonly MemoryCache _addresses = new(new MemoryCacheOptions { SizeLimit = Most });

    public KeptPage? Find(Guid id) => _kept.Get<KeptPage>(id);

    /// <summary>The published page of a desk that was last read at that address.</summary>
    public KeptPage? Find(string desk, string page) =>
        _addresses.TryGetValue<Guid>((desk, page), out var id)
        && Find(id) is { Page: { State: PageState.Published, Offer: null } found } kept
        && found.Desk!.Address == desk
        && found.Address == page
            ? kept
            : null;

    public void Keep(KeptPage kept)
    {
        var page = kept.Page;
        _kept.Set(page.Id, kept, Entry());
        if (page.Offer is null)
            _addresses.Set((page.Desk!.Address, page.Address), page.Id, Entry());
    }

    public void Forget(Guid id) => _kept.Remove(id);

    public void Dispose()
    {
        _kept.Dispose();
        _addresses.Dispose();
    }

    private static MemoryCacheEntryOptions Entry() => new() { Size = 1, AbsoluteExpirationRelativeToNow = Longest };
}
