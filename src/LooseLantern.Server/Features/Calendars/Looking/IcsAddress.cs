using System.Net;
using LooseLantern.Core;
using LooseLantern.Formats.ICalendar.Reading;
using LooseLantern.Server.Outside;
using NodaTime;

namespace LooseLantern.Server.Features.Calendars.Looking;

/// <param name="File">Null where it has not changed since the entity tag that was sent.</param>
/// <param name="Name">What the calendar calls itself, if it does.</param>
/// <param name="RefreshEvery">How long its publisher asks to wait between looks.</param>
public sealed record FetchedFile(byte[]? File, string? EntityTag, string? Name, Duration? RefreshEvery);

/// <summary>Fetches iCalendar files from addresses.</summary>
public sealed class IcsAddress(OutsideHttp http)
{
    public const int MostBytes = 5 * 1024 * 1024;

    /// <summary>An address as it was typed; webcal is what some programs write for https.</summary>
    public static Uri? Read(string typed)
    {
        var text = typed.Trim();
        if (text.StartsWith("webcal://", StringComparison.OrdinalIgnoreCase))
            text = "https" + text[6..];
        if (text.StartsWith("webcals://", StringComparison.OrdinalIgnoreCase))
            text = "https" + text[7..];
        return WebAddress.Whole(text, most: 2000) is { } whole ? new Uri(whole) : null;
    }

    /// <param name="entityTag">Of what is known already (RFC 9110 section 13.1.2); null to have it whole.</param>
    /// <exception cref="OutsideException">When there is no calendar to be had.</exception>
    public async Task<FetchedFile> FetchAsync(Uri address, string? entityTag, CancellationToken ct)
    {
        var headers = new Dictionary<string, string> { ["Accept"] = "text/calendar, text/plain;q=0.5, */*;q=0.1" };
        if (entityTag is not null)
            headers["If-None-Match"] = entityTag;
        var plain = new UriBuilder(address) { UserName = "", Password = "" }.Uri;
        var answer = await http.SendAsync(
            new OutsideRequest(HttpMethod.Get, plain, CredentialsIn(address), MostBytes) { Headers = headers },
            ct
        );
        if (answer.Status == HttpStatusCode.NotModified && entityTag is not null)
            return new FetchedFile(null, entityTag, null, null);
        if (!answer.IsGood)
        {
            throw answer.Status switch
            {
                HttpStatusCode.Unauthorized or HttpStatusCode.Forbidden => new OutsideException(
                    OutsideFault.NotLetIn,
                    $"{address.Host} does not let us read this address."
                ),
                HttpStatusCode.NotFound or HttpStatusCode.Gone => new OutsideException(
                    OutsideFault.Gone,
                    $"{address.Host} has nothing at this address (any more)."
                ),
                _ => new OutsideException(
                    OutsideFault.Unreachable,
                    $"{address.Host} has trouble of its own ({(int)answer.Status})."
                ),
            };
        }

        try
        {
            var file = CalendarFile.Parse(answer.Body);
            return new FetchedFile(answer.Body, answer.Headers.ETag?.ToString(), file.Name, file.RefreshEvery);
        }
        catch (CalendarFileException e)
        {
            throw new OutsideException(OutsideFault.Odd, $"What {address.Host} sends is no calendar. {e.Message}");
        }
    }

    private static Credentials? CredentialsIn(Uri address) =>
        address.UserInfo.Split(':', 2) is [{ Length: > 0 } name, var password]
            ? new Credentials(Uri.UnescapeDataString(name), Uri.UnescapeDataString(password))
            : null;
}
