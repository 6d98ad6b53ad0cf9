using System.Security.Cryptography;
using System.Text;
using LooseLantern.Server.Data;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.SignIn;

/// <summary>
/// Counts tries to sign in by the mail address that is typed, whether or not anybody has it: whoever asks learns
/// nothing from when it is closed. A try is counted before it is made, in one statement, so that of a hundred at once
/// no more are let through than of a hundred one after another.
/// </summary>
public sealed class SignInTries(LanternDb db, IClock clock)
{
    public const int Most = 8;

    /// <summary>How long a sign-in is closed after that, counted from the last try that was let through.</summary>
    public static readonly Duration Closed = Duration.FromMinutes(5);

    /// <param name="browser">A browser in which this address signed in before; what others try elsewhere does not close
    /// it to whoever sits there, who has as many tries of their own. Null for any other.</param>
    /// <returns>Whether there is one more.</returns>
    public async Task<bool> TakeAsync(string email, Guid? browser, CancellationToken ct)
    {
        var (key, now) = (KeyOf(email, browser), clock.GetCurrentInstant());
        var since = now - Closed;
        var taken = await db
            .Database.SqlQuery<int>(
                $"""
                INSERT INTO sign_in_tries (key, tries, last_at) VALUES ({key}, 1, {now})
                ON CONFLICT (key) DO UPDATE SET
                    tries = CASE WHEN sign_in_tries.last_at <= {since} THEN 1 ELSE sign_in_tries.tries + 1 END,
                    last_at = CASE WHEN sign_in_tries.last_at > {since} AND sign_in_tries.tries >= {Most} THEN sign_in_tries.last_at ELSE {now} END
                RETURNING tries AS "Value"
                """
            )
            .ToListAsync(ct);
        return taken[0] <= Most;
    }

    /// <summary>After a try that was right: those before it don't count any more.</summary>
    public Task ForgetAsync(string email, Guid? browser, CancellationToken ct)
    {
        var key = KeyOf(email, browser);
        return db.SignInTries.Where(row => row.Key == key).ExecuteDeleteAsync(ct);
    }

    /// <summary>Of addresses that nobody tried for a day, nothing is kept.</summary>
    public Task TidyAsync(CancellationToken ct)
    {
        var old = clock.GetCurrentInstant() - Duration.FromDays(1);
        return db.SignInTries.Where(row => row.LastAt < old).ExecuteDeleteAsync(ct);
    }

    // A hash: addresses that nobody has are typed too, and are none of ours to keep.
    private static byte[] KeyOf(string email, Guid? browser) =>
        SHA256.HashData(Encoding.UTF8.GetBytes($"{browser:N}|{email.Trim().ToUpperInvariant()}"));
}
