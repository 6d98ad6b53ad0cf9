using System.Security.Cryptography;
using LooseLantern.Core;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Bookings;
using LooseLantern.Server.Features.Openings;
using LooseLantern.Server.Features.Pages;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Tenancy;
using Microsoft.AspNetCore.WebUtilities;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Guests;

/// <param name="Path">From the root of the site; shown this once, since only its hash is kept.</param>
public sealed record PersonalAddressAnswer(string Path);

/// <summary>
/// Addresses of a page for one guest each. They are the only way in which a guest's fields are filled: an email that
/// somebody types tells nothing of whose it is.
/// </summary>
public sealed class PersonalAddresses(LanternDb db, Tenant tenant, IClock clock)
{
    private const int Bytes = 15;

    /// <exception cref="Refusal">400 for a name or an email that is none.</exception>
    public async Task<PersonalAddressAnswer> MakeAsync(Page page, GuestRequest guest, CancellationToken ct)
    {
        var faults = new Dictionary<string, Phrase[]>();
        if (!Words.FitOneLine(guest.Name))
            faults["name"] = ["guest-name"];
        if (!EmailAddress.IsPlausible(guest.Email?.Trim()))
            faults["email"] = ["email"];
        if (faults.Count > 0)
            throw Refusal.Invalid(faults);
        var secret = Add(page, guest.Name, guest.Email!);
        await db.SaveChangesAsync(ct);
        return new PersonalAddressAnswer(PathOf(page, secret));
    }

    /// <summary>Makes one, which is not saved yet.</summary>
    /// <returns>Its secret, of which only the hash is kept.</returns>
    public string Add(Page page, string name, string email)
    {
        var secret = WebEncoders.Base64UrlEncode(RandomNumberGenerator.GetBytes(Bytes));
        db.PersonalAddresses.Add(
            new PersonalAddress
            {
                WorkspaceId = tenant.WorkspaceId!.Value,
                PageId = page.Id,
                Name = name.Trim(),
                Email = email.Trim(),
                MadeAt = clock.GetCurrentInstant(),
                SecretHash = PrivateLinks.Hash(secret),
            }
        );
        return secret;
    }

    /// <summary>From the root of the site.</summary>
    public static string PathOf(Page page, string secret) => $"{PageView.PathOf(page)}?for={secret}";

    /// <summary>Who opens an address with this secret; null without one.</summary>
    public static KnownGuests? Known(string? secret) =>
        secret is { Length: > 0 and <= 100 } ? new KnownGuests(Address: PrivateLinks.Hash(secret)) : null;

    /// <summary>Whom an address of the page is for; null for nobody, and for a secret that is none.</summary>
    public async Task<GuestRequest?> GuestOfAsync(Guid pageId, string? secret, CancellationToken ct)
    {
        if (secret is not { Length: > 0 and <= 100 })
            return null;
        var hash = PrivateLinks.Hash(secret);
        return await db
            .PersonalAddresses.AsNoTracking()
            .Where(row => row.PageId == pageId && row.SecretHash == hash)
            .Select(row => new GuestRequest(row.Name, row.Email))
            .FirstOrDefaultAsync(ct);
    }
}
