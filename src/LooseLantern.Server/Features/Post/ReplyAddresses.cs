using System.Security.Cryptography;
using LooseLantern.Server.Features.Bookings;
using Microsoft.AspNetCore.DataProtection;

namespace LooseLantern.Server.Features.Post;

/// <summary>
/// The mail address of each booking's own, to which answers to its invitation come. Its secret has 128 bits, in letters
/// that no mail program changes.
/// </summary>
public sealed class ReplyAddresses(IDataProtectionProvider protection, PostSettings settings)
{
    private readonly IDataProtector _protector = protection.CreateProtector("reply-address");

    public NewSecret Create()
    {
        var secret = Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(16));
        return new NewSecret(secret, PrivateLinks.Hash(secret), _protector.Protect(secret));
    }

    /// <summary>The address; for a booking from before there were any, the one that all mail comes from.</summary>
    public string Reveal(string protectedSecret) =>
        protectedSecret.Length == 0 ? settings.From : Of(_protector.Unprotect(protectedSecret));

    public string Of(string secret) => $"b.{secret}@{settings.RepliesDomain}";
}
