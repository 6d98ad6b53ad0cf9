using System.Globalization;
using System.Security.Cryptography;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Bookings;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Hosting;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Guests;

/// <summary>
/// Sees whether an address is its guest's own, by a code of six digits that is mailed to it. Codes are guessed in vain:
/// after a few wrong ones none of that address counts any more, and only so many are sent in a while.
/// </summary>
public sealed class EmailProof(
    LanternDb db,
    PersonPost post,
    LettingOut letting,
    IDataProtectionProvider protection,
    IClock clock
)
{
    public const int MostWrongTries = 5;
    public const int MostCodes = 3;

    public static readonly Duration Validity = Duration.FromMinutes(15);

    // The same that post reveals a message's own secret by.
    private readonly IDataProtector _protector = protection.CreateProtector("private-link");

    /// <exception cref="Refusal">422 "code-needed" where no code was typed, with a code on its way; 422 "code-held"
    /// where none can be mailed now; 400 naming code where it is not the one that counts.</exception>
    /// <param name="isAsked">Whether it is to be proven though the page does not want that.</param>
    public async Task RequireAsync(
        Page page,
        string email,
        string language,
        string? typed,
        bool isAsked,
        CancellationToken ct
    )
    {
        if (!page.Details.After.ProvesEmail && !isAsked)
            return;
        var (address, now) = (email.Trim().ToLowerInvariant(), clock.GetCurrentInstant());
        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        // Whoever tries many at once waits for their turn, so that every wrong one is counted.
        await db.Database.ExecuteSqlAsync(
            $"SELECT pg_advisory_xact_lock(hashtextextended({page.Id + address}, 0))",
            ct
        );
        var codes = await db
            .EmailCodes.Where(row => row.PageId == page.Id && row.Email == address && row.MadeAt > now - Validity)
            .OrderByDescending(row => row.MadeAt)
            .ToListAsync(ct);
        var isSpent = codes.Sum(code => code.WrongTries) >= MostWrongTries;
        if (string.IsNullOrWhiteSpace(typed))
        {
            var isSent = codes.Count < MostCodes && !isSpent;
            if (isSent && !await letting.MayBeAskedAsync(ct))
                throw new Refusal(StatusCodes.Status422UnprocessableEntity, "code-held");
            if (isSent)
                await SendAsync(page, email.Trim(), address, language, now, ct);
            await db.SaveChangesAsync(ct);
            await transaction.CommitAsync(ct);
            if (!isSent)
                throw new Refusal(StatusCodes.Status422UnprocessableEntity, "code-needed", "code-needed.wait");
            throw new Refusal(StatusCodes.Status422UnprocessableEntity, "code-needed");
        }

        var hash = HashOf(page.Id, address, typed.Trim());
        if (!isSpent && codes.Exists(code => CryptographicOperations.FixedTimeEquals(code.CodeHash, hash)))
            return;
        if (codes.Count > 0)
            codes[0].WrongTries++;
        await db.SaveChangesAsync(ct);
        await transaction.CommitAsync(ct);
        throw Refusal.Invalid("code", isSpent ? "code-spent" : "code-wrong");
    }

    private async Task SendAsync(
        Page page,
        string email,
        string address,
        string language,
        Instant now,
        CancellationToken ct
    )
    {
        var code = RandomNumberGenerator.GetInt32(1_000_000).ToString("000000", CultureInfo.InvariantCulture);
        db.EmailCodes.Add(
            new EmailCode
            {
                WorkspaceId = page.WorkspaceId,
                PageId = page.Id,
                Email = address,
                CodeHash = HashOf(page.Id, address, code),
                MadeAt = now,
            }
        );
        await post.CodeAsync(page, email, language, _protector.Protect(code), now + Validity, ct);
    }

    private static byte[] HashOf(Guid page, string address, string code) =>
        PrivateLinks.Hash($"{page:N} {address} {code}");
}
