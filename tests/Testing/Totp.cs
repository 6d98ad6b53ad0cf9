using System.Buffers.Binary;
using System.Globalization;
using System.Security.Cryptography;

namespace LooseLantern.Testing;

/// <summary>
/// An authenticator: time-based codes of six digits and half a minute (RFC 6238), by the system's clock as the server
/// has it for them.
/// </summary>
public static class Totp
{
    private const string Base32 = "ABCDEFGHIJKLMNOPQRSTUVWXYZ234567";

    /// <summary>What is shown so many half minutes from now.</summary>
    public static string Code(string key, int ahead = 0)
    {
        var bits = string.Concat(
            key.Select(letter => Convert.ToString(Base32.IndexOf(letter, StringComparison.Ordinal), 2).PadLeft(5, '0'))
        );
        var secret = Enumerable
            .Range(0, bits.Length / 8)
            .Select(index => Convert.ToByte(bits.Substring(index * 8, 8), 2))
            .ToArray();
        var counter = new byte[8];
        BinaryPrimitives.WriteInt64BigEndian(counter, DateTimeOffset.UtcNow.ToUnixTimeSeconds() / 30 + ahead);
#pragma warning disable CA5350 // The algorithm that authenticators have.
        var hash = HMACSHA1.HashData(secret, counter);
#pragma warning restore CA5350
        var offset = hash[^1] & 0xF;
        return ((BinaryPrimitives.ReadInt32BigEndian(hash.AsSpan(offset)) & 0x7FFFFFFF) % 1_000_000).ToString(
            "000000",
            CultureInfo.InvariantCulture
        );
    }
}
