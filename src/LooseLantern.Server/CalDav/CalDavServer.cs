using System.Net;
using System.Text;
using LooseLantern.Server.Outside;

namespace LooseLantern.Server.CalDav;

/// <param name="EntityTag">As the server sent it, quotes and all; null where it sent none.</param>
public sealed record DavObject(string Path, string? EntityTag, byte[] Body);

/// <summary>The requests of CalDAV (RFC 4791) that we make, to one server as one of its users.</summary>
public sealed class CalDavServer(OutsideHttp http, Uri origin, Credentials credentials)
{
    private const int MostBytesOfMany = 24 * 1024 * 1024;
    private const int MostBytesOfOne = 1024 * 1024;

    private static readonly HttpMethod PropFindMethod = new("PROPFIND");
    private static readonly HttpMethod ReportMethod = new("REPORT");

    public Uri Origin => origin;

    internal async Task<MultiStatus> PropFindAsync(string path, string depth, string body, CancellationToken ct) =>
        Dav.Read(Good(await SendAsync(PropFindMethod, path, body, depth, ct)));

    /// <summary>A PROPFIND whose answer may be of any kind, for finding out what is there.</summary>
    internal Task<OutsideAnswer> TryPropFindAsync(string path, string depth, string body, CancellationToken ct) =>
        SendAsync(PropFindMethod, path, body, depth, ct);

    internal Task<OutsideAnswer> ReportAsync(string path, string depth, string body, CancellationToken ct) =>
        SendAsync(ReportMethod, path, body, depth, ct);

    /// <summary>The object at a path, or null where there is none.</summary>
    public async Task<DavObject?> GetAsync(string path, CancellationToken ct)
    {
        var answer = await http.SendAsync(
            new OutsideRequest(HttpMethod.Get, At(path), credentials, MostBytesOfOne),
            ct
        );
        if (answer.Status is HttpStatusCode.NotFound or HttpStatusCode.Gone)
            return null;
        Good(answer);
        return new DavObject(path, answer.Headers.ETag?.ToString(), answer.Body);
    }

    /// <summary>Puts an object at a path.</summary>
    /// <param name="entityTag">What must be there now (RFC 9110 section 13.1.1); null where nothing may be there, empty
    /// for whatever is there.</param>
    /// <returns>False where something else is there, or nothing is: nothing was written then. Else the new entity tag,
    /// where the server tells it.</returns>
    public async Task<(bool IsWritten, string? EntityTag)> PutAsync(
        string path,
        string text,
        string? entityTag,
        CancellationToken ct
    )
    {
        var (name, value) = entityTag is null ? ("If-None-Match", "*") : ("If-Match", entityTag);
        var answer = await http.SendAsync(
            new OutsideRequest(HttpMethod.Put, At(path), credentials)
            {
                Body = text,
                MediaType = "text/calendar",
                Headers =
                    value.Length == 0
                        ? new Dictionary<string, string>()
                        : new Dictionary<string, string> { [name] = value },
            },
            ct
        );
        if (answer.Status is HttpStatusCode.PreconditionFailed)
            return (false, null);
        Good(answer);
        return (true, answer.Headers.ETag?.ToString());
    }

    /// <returns>False where something else is there; nothing was deleted then. What is gone already counts as
    /// deleted.</returns>
    public async Task<bool> DeleteAsync(string path, string? entityTag, CancellationToken ct)
    {
        var answer = await http.SendAsync(
            new OutsideRequest(HttpMethod.Delete, At(path), credentials)
            {
                Headers = entityTag is null
                    ? new Dictionary<string, string>()
                    : new Dictionary<string, string> { ["If-Match"] = entityTag },
            },
            ct
        );
        if (answer.Status is HttpStatusCode.NotFound or HttpStatusCode.Gone)
            return true;
        if (answer.Status is HttpStatusCode.PreconditionFailed)
            return false;
        Good(answer);
        return true;
    }

    /// <exception cref="OutsideException">Where the status is none of success.</exception>
    internal static OutsideAnswer Good(OutsideAnswer answer)
    {
        if (answer.IsGood)
            return answer;
        var host = answer.Address.Host;
        var (fault, words) = answer.Status switch
        {
            HttpStatusCode.Unauthorized => (OutsideFault.NotLetIn, $"{host} does not accept the name or the password."),
            HttpStatusCode.Forbidden => (OutsideFault.NotLetIn, $"{host} does not allow this to the name given."),
            HttpStatusCode.NotFound or HttpStatusCode.Gone => (
                OutsideFault.Gone,
                $"The calendar is not at {host} any more."
            ),
            >= HttpStatusCode.InternalServerError => (
                OutsideFault.Unreachable,
                $"{host} has trouble of its own ({(int)answer.Status})."
            ),
            _ => (OutsideFault.Odd, $"{host} answered in a way that makes no sense here ({(int)answer.Status})."),
        };
        throw new OutsideException(fault, words, (int)answer.Status);
    }

    private Uri At(string path) => new(origin, path);

    private Task<OutsideAnswer> SendAsync(
        HttpMethod method,
        string path,
        string body,
        string depth,
        CancellationToken ct
    ) =>
        http.SendAsync(
            new OutsideRequest(method, At(path), credentials, MostBytesOfMany)
            {
                Body = body,
                Headers = new Dictionary<string, string> { ["Depth"] = depth },
            },
            ct
        );

    internal static byte[] Bytes(string calendarData) => Encoding.UTF8.GetBytes(calendarData);
}
