using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Bookings;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Tenancy;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.SignIn;

/// <summary>A new password for who forgot theirs, by a link that goes to their own address and works once.</summary>
public sealed class PasswordResetting(
    LanternDb db,
    Tenant tenant,
    UserManager<Person> people,
    PrivateLinks links,
    PersonPost post,
    SignInSessions sessions,
    SignInTries tries,
    PasswordWork work,
    IClock clock
)
{
    private const int MostOpen = 3;

    public static readonly Duration Validity = Duration.FromHours(2);

    /// <summary>
    /// Sends a link, if somebody has the address. Whether anybody does is told to nobody; and nobody's box is filled by
    /// asking again and again.
    /// </summary>
    public async Task SendAsync(string email, CancellationToken ct)
    {
        if (await people.FindByEmailAsync(email) is not { LeftAt: null } person)
            return;
        tenant.Enter(person.WorkspaceId);
        var now = clock.GetCurrentInstant();
        if (
            await db.PasswordResets.CountAsync(
                row => row.PersonId == person.Id && row.ExpiresAt > now && row.UsedAt == null,
                ct
            ) >= MostOpen
        )
            return;
        var secret = links.Create();
        db.PasswordResets.Add(
            new PasswordReset
            {
                WorkspaceId = person.WorkspaceId,
                PersonId = person.Id,
                SecretHash = secret.Hash,
                ExpiresAt = now + Validity,
            }
        );
        await post.PasswordResetAsync(person, secret.Protected, now + Validity, ct);
        await db.SaveChangesAsync(ct);
    }

    /// <exception cref="Refusal">404 for a link that never was, 410 for one that was used or has run out, 400 for a
    /// password that is too weak. Nothing is written then.</exception>
    public async Task SetAsync(string secret, string password, CancellationToken ct)
    {
        var hash = PrivateLinks.Hash(secret);
        var found = await db
            .PasswordResets.IgnoreQueryFilters()
            .AsNoTracking()
            .FirstOrDefaultAsync(row => row.SecretHash == hash, ct)
            ?? throw Refusal.NotFound("link");
        tenant.Enter(found.WorkspaceId);
        using var place = await work.PlaceAsync(ct);
        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        await db.Database.ExecuteSqlAsync($"SELECT 1 FROM password_resets WHERE id = {found.Id} FOR NO KEY UPDATE", ct);
        var reset = await db.PasswordResets.SingleAsync(row => row.Id == found.Id, ct);
        var person = await people.Users.SingleAsync(row => row.Id == reset.PersonId, ct);
        var now = clock.GetCurrentInstant();
        if (reset.UsedAt is not null || reset.ExpiresAt <= now || person.LeftAt is not null)
            throw new Refusal(StatusCodes.Status410Gone, "link-over");
        var workspace = await db.Workspaces.AsNoTracking().SingleAsync(ct);
        Passwords.Require("password", password, person.Name, person.Email!, workspace.Name);

        // All links of the person are over with this one.
        await db
            .PasswordResets.Where(row => row.PersonId == person.Id && row.UsedAt == null)
            .ExecuteUpdateAsync(set => set.SetProperty(row => row.UsedAt, now), ct);
        person.PasswordHash = people.PasswordHasher.HashPassword(person, password);
        await people.UpdateSecurityStampAsync(person);
        await tries.ForgetAsync(person.Email!, null, ct);
        await sessions.CloseAllAsync(person.Id, null, ct);
        await transaction.CommitAsync(ct);
    }
}
