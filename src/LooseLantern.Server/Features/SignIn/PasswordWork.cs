using LooseLantern.Server.Data.Model;
using Microsoft.AspNetCore.Identity;
using Microsoft.Extensions.Options;

namespace LooseLantern.Server.Features.SignIn;

/// <summary>
/// Hashes passwords, which is meant to take long, on half of the cores at the most: however many sign in at once,
/// guests are served by the other half. Whoever has to wait holds no thread.
/// </summary>
public sealed class PasswordWork : IDisposable
{
    // Of nobody's password: what is compared where nobody has the address, so that it takes as long.
    private static readonly Person Nobody = new()
    {
        WorkspaceId = Guid.Empty,
        Name = "",
        Zone = "",
    };

    private readonly SemaphoreSlim _places = new(Math.Max(1, Environment.ProcessorCount / 2));
    private readonly PasswordHasher<Person> _hasher;
    private readonly string _nobodys;

    public PasswordWork(IOptions<PasswordHasherOptions> options)
    {
        _hasher = new PasswordHasher<Person>(options);
        _nobodys = _hasher.HashPassword(Nobody, Guid.NewGuid().ToString());
    }

    /// <summary>Waits for a place to hash in, which is given back when it is disposed.</summary>
    public async Task<IDisposable> PlaceAsync(CancellationToken ct)
    {
        await _places.WaitAsync(ct);
        return new PlaceTaken(_places);
    }

    /// <summary>Whether it is the person's password; for nobody the same work is done, and it never is.</summary>
    public async Task<bool> IsRightAsync(
        UserManager<Person> people,
        Person? person,
        string password,
        CancellationToken ct
    )
    {
        using var place = await PlaceAsync(ct);
        if (person is { PasswordHash: not null })
            return await people.CheckPasswordAsync(person, password);
        _hasher.VerifyHashedPassword(Nobody, _nobodys, password);
        return false;
    }

    public void Dispose() => _places.Dispose();

    private sealed class PlaceTaken(SemaphoreSlim places) : IDisposable
    {
        private int _isGivenBack;

        public void Dispose()
        {
            if (Interlocked.Exchange(ref _isGivenBack, 1) == 0)
                places.Release();
        }
    }
}
