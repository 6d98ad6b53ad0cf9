using LooseLantern.Server.Features.Profile;

namespace LooseLantern.Server.Features.Guests;

/// <summary>What language somebody without a sign-in reads.</summary>
public static class GuestLanguage
{
    /// <summary>Of the languages we write in, the one the reader likes best (RFC 9110 section 12.5.4).</summary>
    public static string Of(HttpRequest request) =>
        request
            .GetTypedHeaders()
            .AcceptLanguage.OrderByDescending(language => language.Quality ?? 1)
            .Select(language => language.Value.ToString().Split('-')[0].ToLowerInvariant())
            .FirstOrDefault(MeEndpoints.Languages.Contains)
        ?? "en";
}
