using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Bookings;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.SignIn;

/// <param name="Email">The address that is proven.</param>
/// <param name="Waiting">How many mails waited for it, and go out now.</param>
public sealed record ProvenAddress(string Email, int Waiting);

/// <summary>Lets people of the team show, by a link that is mailed to it, that their address is theirs.</summary>
public sealed class AddressProving(LanternDb db, Tenant tenant, PrivateLinks links, PersonPost post, IClock clock)
{
    private const int MostOpen = 3;

    public static readonly Duration Validity = Duration.FromHours(24);

    /// <summary>Mails a link; none to who needs none, and no more than a few at a time.</summary>
    /// <exception cref="Refusal">429 where as many are out as there may be.</exception>
    public async Task AskAsync(Guid personId, CancellationToken ct)
    {
        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        await db.Database.ExecuteSqlAsync(
            $"""SELECT 1 FROM "AspNetUsers" WHERE id = {personId} FOR NO KEY UPDATE""",
            ct
        );
        var (person, now) = (
            await db.Users.AsNoTracking().SingleAsync(row => row.Id == personId, ct),
            clock.GetCurrentInstant()
        );
        if (person.EmailProvenAt is not null)
            return;
        var open = await db
            .AddressProofs.Where(row => row.PersonId == personId && row.ExpiresAt > now && row.UsedAt == null)
            .Select(row => row.ExpiresAt)
            .ToListAsync(ct);
        if (open.Count >= MostOpen)
            throw new Refusal(StatusCodes.Status429TooManyRequests, "proofs-out")
            {
                RetryAfter = (open.Min() - now).ToTimeSpan(),
            };
        var secret = links.Create();
        db.AddressProofs.Add(
            new AddressProof
            {
                WorkspaceId = person.WorkspaceId,
                PersonId = personId,
                SecretHash = secret.Hash,
                ExpiresAt = now + Validity,
            }
        );
        await post.ProveAddressAsync(person, secret.Protected, now + Validity, ct);
        await db.SaveChangesAsync(ct);
        await transaction.CommitAsync(ct);
    }

    /// <exception cref="Refusal">404 for a link that never was, 410 for one that was used or has run out.</exception>
    public async Task<ProvenAddress> ProveAsync(string secret, CancellationToken ct)
    {
        var hash = PrivateLinks.Hash(secret);
        var found = await db
            .AddressProofs.IgnoreQueryFilters()
            .AsNoTracking()
            .FirstOrDefaultAsync(row => row.SecretHash == hash, ct)
            ?? throw Refusal.NotFound("link");
        tenant.Enter(found.WorkspaceId);
        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        await db.Database.ExecuteSqlAsync($"SELECT 1 FROM address_proofs WHERE id = {found.Id} FOR NO KEY UPDATE", ct);
        var proof = await db.AddressProofs.SingleAsync(row => row.Id == found.Id, ct);
        var (person, now) = (
            await db.Users.SingleAsync(row => row.Id == proof.PersonId, ct),
            clock.GetCurrentInstant()
        );
        if (proof.UsedAt is not null || proof.ExpiresAt <= now || person.LeftAt is not null)
            throw new Refusal(StatusCodes.Status410Gone, "link-over");
        (proof.UsedAt, person.EmailProvenAt) = (now, person.EmailProvenAt ?? now);
        var workspace = await db.Workspaces.SingleAsync(ct);
        if (person.IsOwner)
            workspace.MailOpenedAt ??= now;
        await db.SaveChangesAsync(ct);
        // Those behind what is held back, which wait for their turn, are counted too.
        var waiting = person.IsOwner
            ? await db.Messages.CountAsync(
                row => row.State == MessageState.Due && (row.HeldBack == MessageHold.Unproven || row.DueAt <= now),
                ct
            )
            : 0;
        if (person.IsOwner)
            await db
                .Messages.Where(row => row.HeldBack == MessageHold.Unproven && row.State == MessageState.Due)
                .ExecuteUpdateAsync(set => set.SetProperty(row => row.DueAt, now), ct);
        await transaction.CommitAsync(ct);
        return new ProvenAddress(person.Email!, waiting);
    }
}
