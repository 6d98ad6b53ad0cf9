using System.Security.Cryptography;
using System.Text;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.WebUtilities;

namespace LooseLantern.Server.Features.Bookings;

public sealed record NewSecret(string Secret, byte[] Hash, string Protected);

/// <summary>
/// The secrets in guests' private links: 144 random bits, found by their hash, and kept beside it encrypted because
/// later messages bear the link again. Who reads the database alone can open no link.
/// </summary>
public sealed class PrivateLinks(IDataProtectionProvider protection)
{
    private const int Bytes = 18;

    private readonly IDataProtector _protector = protection.CreateProtector("private-link");

    public NewSecret Create() => Keep(WebEncoders.Base64UrlEncode(RandomNumberGenerator.GetBytes(Bytes)));

    /// <summary>A secret that was made elsewhere, as it is kept.</summary>
    public NewSecret Keep(string secret) => new(secret, Hash(secret), _protector.Protect(secret));

    public static byte[] Hash(string secret) => SHA256.HashData(Encoding.UTF8.GetBytes(secret));

    public string Reveal(string protectedSecret) => _protector.Unprotect(protectedSecret);

    /// <summary>Where a guest opens the booking, from the root of the site.</summary>
    public static string Path(string secret) => $"/booking/{secret}";
}
