using System.Security.Cryptography;
using System.Text;
using LooseLantern.Core;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Bookings;
using Microsoft.AspNetCore.DataProtection;

namespace LooseLantern.Server.Features.Post;

/// <summary>
/// The mail address of each booking's own, to which answers to its invitation come, and of each letter's. Its secret
/// has 128 bits, in letters that no mail program changes.
/// </summary>
public sealed class ReplyAddresses(IDataProtectionProvider protection, PostSettings settings)
{
    /// <summary>How addresses of others than the guest begin.</summary>
    public const string OthersPrefix = "c.";

    /// <summary>How addresses of letters begin.</summary>
    public const string LettersPrefix = "l.";

    // With the booking's id it fits into the 64 characters that stand before an @ (RFC 5321 section 4.5.3.1.1).
    private const int MarkBytes = 12;

    private readonly IDataProtector _protector = protection.CreateProtector("reply-address");

    public NewSecret Create()
    {
        var secret = Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(16));
        return new NewSecret(secret, PrivateLinks.Hash(secret), _protector.Protect(secret));
    }

    /// <summary>The address; for a booking from before there were any, the one that all mail comes from.</summary>
    public string Reveal(string protectedSecret) =>
        protectedSecret.Length == 0 ? settings.From : Of(_protector.Unprotect(protectedSecret));

    /// <summary>The address that answers to a letter come to.</summary>
    public string RevealOfLetter(string protectedSecret) =>
        $"{LettersPrefix}{_protector.Unprotect(protectedSecret)}@{settings.RepliesDomain}";

    /// <summary>Lets answers to a letter come to an address of its own.</summary>
    public void Await(Message letter)
    {
        var secret = Create();
        (letter.ReplySecretHash, letter.ProtectedReplySecret) = (secret.Hash, secret.Protected);
    }

    public string Of(string secret) => $"b.{secret}@{settings.RepliesDomain}";

    /// <summary>
    /// The address that answers of somebody else come to whom the booking's mail goes to: of their own, and made of the
    /// guest's secret so that nobody who has it learns that.
    /// </summary>
    public string RevealFor(Booking booking, string email) =>
        IsGuests(booking, email) || booking.ProtectedReplySecret.Length == 0
            ? Reveal(booking.ProtectedReplySecret)
            : $"{OthersPrefix}{booking.Id:N}.{MarkOf(booking.ProtectedReplySecret, email)}@{settings.RepliesDomain}";

    /// <summary>Whose address it is, of those who were mailed about the booking; null for nobody's.</summary>
    /// <param name="mark">What stands behind the booking's id in the address.</param>
    public string? OwnerOf(string protectedSecret, string mark, IEnumerable<string> mailed) =>
        protectedSecret.Length == 0
            ? null
            : mailed.FirstOrDefault(email =>
                CryptographicOperations.FixedTimeEquals(
                    Encoding.ASCII.GetBytes(MarkOf(protectedSecret, email)),
                    Encoding.UTF8.GetBytes(mark)
                )
            );

    public static bool IsGuests(Booking booking, string email) =>
        EmailAddress.AreSame(email, booking.GuestEmail) || EmailAddress.AreSame(email, booking.BookerEmail);

    private string MarkOf(string protectedSecret, string email) =>
        Convert.ToHexStringLower(
            HMACSHA256
                .HashData(
                    Encoding.UTF8.GetBytes(_protector.Unprotect(protectedSecret)),
                    Encoding.UTF8.GetBytes(EmailAddress.KeyOf(email))
                )
                .AsSpan(0, MarkBytes)
        );
}
