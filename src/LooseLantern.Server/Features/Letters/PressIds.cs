using System.Security.Cryptography;
using System.Text;
using LooseLantern.Server.Data;
using Microsoft.EntityFrameworkCore;

namespace LooseLantern.Server.Features.Letters;

/// <summary>The ids of what presses make: the same press again comes to the same ids.</summary>
public static class PressIds
{
    /// <summary>The id that a thing made by a press has, of who pressed alone.</summary>
    /// <param name="what">What kind of thing it is, or which of several.</param>
    /// <param name="key">Of the press.</param>
    public static Guid Of(Guid workspace, Guid person, string what, string key) =>
        new(SHA256.HashData(Encoding.UTF8.GetBytes($"{what} {workspace:D} {person:D} {key}")).AsSpan(0, 16));

    /// <summary>Waits for others that make the same, until the transaction at hand ends.</summary>
    public static Task TakeTurnAsync(LanternDb db, Guid id, CancellationToken ct) =>
        db.Database.ExecuteSqlAsync($"SELECT pg_advisory_xact_lock(hashtextextended({$"press {id}"}, 0))", ct);
}
