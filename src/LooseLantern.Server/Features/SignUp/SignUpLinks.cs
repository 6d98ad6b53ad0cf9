using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Bookings;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.SignUp;

/// <summary>
/// The links by which workspaces are made where a mail server is set. Who asks for one is told the same whether or not
/// the address signs in already: only its own mail tells that.
/// </summary>
public sealed class SignUpLinks(LanternDb db, PrivateLinks links, IClock clock)
{
    // Nobody's box is filled by asking again and again.
    private const int MostOpen = 3;

    public static readonly Duration Validity = Duration.FromHours(2);

    public async Task MakeAsync(string email, string language, CancellationToken ct)
    {
        var (now, upper) = (clock.GetCurrentInstant(), email.ToUpperInvariant());
        await db.SignUpLinks.Where(row => row.ExpiresAt < now - Validity).ExecuteDeleteAsync(ct);
        if (await db.SignUpLinks.CountAsync(row => row.Email.ToUpper() == upper && row.ExpiresAt > now, ct) >= MostOpen)
            return;
        var secret = links.Create();
        db.SignUpLinks.Add(
            new SignUpLink
            {
                Email = email,
                Language = language,
                IsKnown = await db.Users.IgnoreQueryFilters().AnyAsync(row => row.NormalizedEmail == upper, ct),
                SecretHash = secret.Hash,
                ProtectedSecret = secret.Protected,
                MadeAt = now,
                ExpiresAt = now + Validity,
                DueAt = now,
            }
        );
        await db.SaveChangesAsync(ct);
    }

    /// <exception cref="Refusal">404 for a link that never was, 410 for one that was used or has run out.</exception>
    public async Task<SignUpLink> FindAsync(string secret, CancellationToken ct)
    {
        var hash = PrivateLinks.Hash(secret);
        var row = await db.SignUpLinks.AsNoTracking().FirstOrDefaultAsync(link => link.SecretHash == hash, ct)
            ?? throw Refusal.NotFound("link");
        return row.UsedAt is null && !row.IsKnown && row.ExpiresAt > clock.GetCurrentInstant() ? row : throw Over();
    }

    /// <summary>In the transaction of what it makes: opened twice at once, it makes one workspace.</summary>
    public async Task UseAsync(Guid id, CancellationToken ct)
    {
        var now = clock.GetCurrentInstant();
        if (
            await db
                .SignUpLinks.Where(row => row.Id == id && row.UsedAt == null)
                .ExecuteUpdateAsync(set => set.SetProperty(row => row.UsedAt, now), ct) == 0
        )
            throw Over();
    }

    private static Refusal Over() => new(StatusCodes.Status410Gone, "link-over");
}
