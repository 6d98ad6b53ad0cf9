using System.Security.Cryptography;
using LooseLantern.Server.Features.Bookings;

namespace LooseLantern.Server.Features.Links;

/// <summary>
/// Addresses of links: words of the topic, which read well, then a random part of 130 bits, by which a link is found.
/// It is kept as its hash, and beside it encrypted, since mail bears it again.
/// </summary>
public sealed class LinkAddresses(PrivateLinks secrets)
{
    public const string Root = "times";

    // Small letters and digits that are not taken for one another.
    private const string Letters = "abcdefghjkmnpqrstuvwxyz023456789";
    private const int RandomLetters = 26;
    private const int MostOfTopic = 40;

    public NewSecret Create() => secrets.Keep(RandomNumberGenerator.GetString(Letters, RandomLetters));

    public string Reveal(string protectedSecret) => secrets.Reveal(protectedSecret);

    /// <summary>From the root of the site.</summary>
    public static string Path(string topic, string secret) => $"/{Root}/{topic}-{secret}";

    /// <summary>The hash by which an address is found, whatever its topic; null for one that is none.</summary>
    public static byte[]? HashOf(string address)
    {
        var secret = address[(address.LastIndexOf('-') + 1)..];
        return secret.Length == RandomLetters ? PrivateLinks.Hash(secret) : null;
    }

    /// <summary>A title as words of an address; never empty.</summary>
    public static string TopicOf(string title)
    {
        var plain = string.Concat(
            title
                .Normalize(System.Text.NormalizationForm.FormD)
                .ToLowerInvariant()
                .Select(letter =>
                    char.IsAsciiLetterLower(letter) || char.IsAsciiDigit(letter) ? letter
                    : char.IsLetterOrDigit(letter) || char.IsWhiteSpace(letter) || char.IsPunctuation(letter) ? ' '
                    : '\0'
                )
                .Where(letter => letter != '\0')
        );
        var topic = "";
        foreach (var word in plain.Split(' ', StringSplitOptions.RemoveEmptyEntries))
        {
            if (topic.Length + word.Length + 1 > MostOfTopic)
                break;
            topic = topic.Length == 0 ? word : $"{topic}-{word}";
        }

        return topic.Length >= 2 ? topic : "a-time";
    }
}
