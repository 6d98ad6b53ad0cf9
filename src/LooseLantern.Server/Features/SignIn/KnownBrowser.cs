using System.Security.Cryptography;
using System.Text;
using Microsoft.AspNetCore.DataProtection;

namespace LooseLantern.Server.Features.SignIn;

/// <summary>
/// Remembers in a browser which mail addresses signed in there, for a year. It lets nobody in: it only keeps who sits
/// there from being shut out by what others try elsewhere.
/// </summary>
public sealed class KnownBrowser(IDataProtectionProvider protection)
{
    private const string Cookie = "lantern-known";
    private const int MostAddresses = 8;

    private readonly IDataProtector _protector = protection.CreateProtector("known-browser");

    /// <summary>The browser's id where the address signed in there before.</summary>
    public Guid? Of(HttpContext context, string email) =>
        Read(context) is var (id, addresses) && addresses.Contains(Mark(email)) ? id : null;

    public void Remember(HttpContext context, string email)
    {
        var (id, addresses) = Read(context) ?? (Guid.NewGuid(), []);
        IEnumerable<string> kept = [Mark(email), .. addresses.Where(other => other != Mark(email))];
        context.Response.Cookies.Append(
            Cookie,
            _protector.Protect($"{id:N} {string.Join(' ', kept.Take(MostAddresses))}"),
            new CookieOptions
            {
                HttpOnly = true,
                SameSite = SameSiteMode.Lax,
                Secure = context.Request.IsHttps,
                MaxAge = TimeSpan.FromDays(365),
                IsEssential = true,
                Path = "/api",
            }
        );
    }

    private (Guid Id, string[] Addresses)? Read(HttpContext context)
    {
        if (context.Request.Cookies[Cookie] is not { Length: > 0 } kept)
            return null;
        try
        {
            var parts = _protector.Unprotect(kept).Split(' ');
            return (Guid.Parse(parts[0]), parts[1..]);
        }
        catch (Exception e) when (e is CryptographicException or FormatException)
        {
            return null;
        }
    }

    private static string Mark(string email) =>
        Convert.ToBase64String(SHA256.HashData(Encoding.UTF8.GetBytes(email.Trim().ToUpperInvariant())), 0, 12);
}
