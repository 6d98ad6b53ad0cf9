using System.Net;
using System.Net.Http.Headers;
using System.Net.Sockets;
using System.Text;

namespace LooseLantern.Server.Outside;

/// <summary>
/// A name and password to send along; only ever to the origin that is asked, and only where nobody can listen.
/// </summary>
public sealed record Credentials(string UserName, string Password)
{
    public string Basic => Convert.ToBase64String(Encoding.UTF8.GetBytes($"{UserName}:{Password}"));
}

/// <param name="MostBytes">The longest body that is read of the answer.</param>
public sealed record OutsideRequest(
    HttpMethod Method,
    Uri Address,
    Credentials? As = null,
    int MostBytes = 4 * 1024 * 1024
)
{
    /// <summary>Further headers, by name.</summary>
    public IReadOnlyDictionary<string, string> Headers { get; init; } = new Dictionary<string, string>();

    /// <summary>Sent as UTF-8.</summary>
    public string? Body { get; init; }

    public string MediaType { get; init; } = "application/xml";
}

/// <param name="Address">What answered at last, after any redirection.</param>
public sealed record OutsideAnswer(HttpStatusCode Status, Uri Address, HttpResponseHeaders Headers, byte[] Body)
{
    public bool IsGood => (int)Status is >= 200 and < 300;
}

/// <summary>
/// Asks other servers by HTTP, none of which is trusted: it never connects into our own network (checked on the address
/// that is connected to, so also after a redirection or a change of a name), and time and size of what is read have
/// bounds.
/// </summary>
public sealed class OutsideHttp : IDisposable
{
    private const int MostRedirections = 5;

    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(15);
    private static readonly TimeSpan ConnectPatience = TimeSpan.FromSeconds(6);

    private readonly InsideAddresses _inside;
    private readonly TimeSpan _patience;
    private readonly HttpClient _http;

    public OutsideHttp(InsideAddresses inside, IConfiguration configuration)
    {
        _inside = inside;
        _patience = configuration.GetValue<int?>("Outside:PatienceMilliseconds") is { } set
            ? TimeSpan.FromMilliseconds(set)
            : Patience;
        _http = new HttpClient(
            new SocketsHttpHandler
            {
                AllowAutoRedirect = false,
                UseProxy = false,
                UseCookies = false,
                AutomaticDecompression = DecompressionMethods.GZip | DecompressionMethods.Deflate,
                ConnectCallback = ConnectAsync,
                ConnectTimeout = ConnectPatience,
                PooledConnectionLifetime = TimeSpan.FromMinutes(2),
                MaxResponseHeadersLength = 64,
            }
        )
        {
            Timeout = Timeout.InfiniteTimeSpan,
        };
        _http.DefaultRequestHeaders.UserAgent.Add(new ProductInfoHeaderValue("LooseLantern", "1.0"));
    }

    public void Dispose() => _http.Dispose();

    /// <exception cref="OutsideException">When there is no answer that can be read; an answer of any status is
    /// one.</exception>
    public async Task<OutsideAnswer> SendAsync(OutsideRequest request, CancellationToken ct)
    {
        using var time = CancellationTokenSource.CreateLinkedTokenSource(ct);
        time.CancelAfter(_patience);
        var address = request.Address;
        try
        {
            for (var redirections = 0; ; redirections++)
            {
                await RequireSafeAsync(address, request.As, time.Token);
                using var answer = await AskAsync(request, address, time.Token);
                if (NextOf(answer, address) is not { } next)
                    return new OutsideAnswer(
                        answer.StatusCode,
                        address,
                        answer.Headers,
                        await ReadAsync(answer, request.MostBytes, time.Token)
                    );
                if (redirections == MostRedirections)
                    throw new OutsideException(OutsideFault.SentOn, $"{address.Host} sends on and on, to no end.");
                if (request.As is not null && !IsSameOrigin(request.Address, next))
                    throw new OutsideException(
                        OutsideFault.SentOn,
                        $"{address.Host} sends on to {next.Scheme}://{next.Authority}. If you trust that server with your password, give its address instead."
                    );
                address = next;
            }
        }
        catch (OperationCanceledException) when (!ct.IsCancellationRequested)
        {
            throw new OutsideException(
                OutsideFault.TooSlow,
                $"{address.Host} did not answer within {(int)Math.Ceiling(_patience.TotalSeconds)} seconds."
            );
        }
        catch (Exception e) when (e is HttpRequestException or IOException or SocketException or InvalidDataException)
        {
            if (Found(e) is { } known)
                throw known;
            throw new OutsideException(OutsideFault.Unreachable, WordsOf(e, address));
        }
    }

    /// <summary>
    /// Some servers drop a connection now and then without a word. All that is asked here comes to the same when it is
    /// asked again (RFC 9110 section 9.2.2), so that is done once.
    /// </summary>
    private async Task<HttpResponseMessage> AskAsync(OutsideRequest request, Uri address, CancellationToken ct)
    {
        for (var isSecond = false; ; isSecond = true)
        {
            using var message = MessageOf(request, address);
            try
            {
                return await _http.SendAsync(message, HttpCompletionOption.ResponseHeadersRead, ct);
            }
            catch (HttpRequestException e) when (!isSecond && e.HttpRequestError == HttpRequestError.ResponseEnded)
            {
                // Once more.
            }
        }
    }

    private static OutsideException? Found(Exception? e) =>
        e is null ? null : e as OutsideException ?? Found(e.InnerException);

    private static string WordsOf(Exception e, Uri address) =>
        e is HttpRequestException { HttpRequestError: var kind }
            ? kind switch
            {
                HttpRequestError.NameResolutionError => $"There is no server {address.Host}.",
                HttpRequestError.SecureConnectionError => $"{address.Host} has no certificate that can be trusted.",
                HttpRequestError.ConnectionError => $"{address.Authority} can’t be connected to.",
                _ => $"The connection to {address.Host} broke off.",
            }
            : $"The connection to {address.Host} broke off.";

    private static HttpRequestMessage MessageOf(OutsideRequest request, Uri address)
    {
        var message = new HttpRequestMessage(request.Method, address);
        if (request.As is { } credentials)
            message.Headers.Authorization = new AuthenticationHeaderValue("Basic", credentials.Basic);
        if (request.Body is { } body)
            message.Content = new StringContent(
                body,
                Encoding.UTF8,
                new MediaTypeHeaderValue(request.MediaType, "utf-8")
            );
        foreach (var (name, value) in request.Headers)
            message.Headers.TryAddWithoutValidation(name, value);
        return message;
    }

    private static Uri? NextOf(HttpResponseMessage answer, Uri asked)
    {
        if (
            answer.StatusCode
            is not (
                HttpStatusCode.MovedPermanently
                or HttpStatusCode.Found
                or HttpStatusCode.TemporaryRedirect
                or HttpStatusCode.PermanentRedirect
            )
        )
            return null;
        if (answer.Headers.Location is not { } location)
            return null;
        var next = new Uri(asked, location);
        return next.Scheme is "http" or "https"
            ? next
            : throw new OutsideException(
                OutsideFault.SentOn,
                $"{asked.Host} sends on to something that is no web address."
            );
    }

    private static bool IsSameOrigin(Uri one, Uri other) =>
        one.Host.Equals(other.Host, StringComparison.OrdinalIgnoreCase)
        && (
            (one.Scheme == other.Scheme && one.Port == other.Port) || (one.Scheme == "http" && other.Scheme == "https")
        );

    /// <summary>A password goes over https alone, but to what the operator has listed.</summary>
    private async Task RequireSafeAsync(Uri address, Credentials? credentials, CancellationToken ct)
    {
        if (credentials is null || address.Scheme == "https")
            return;
        foreach (var found in await ResolveAsync(address.Host, ct))
        {
            if (!_inside.IsListed(found, address.Port))
                throw new OutsideException(
                    OutsideFault.SentOn,
                    $"{address.Host} would get your password by http, which others can read; use an address that begins with https."
                );
        }
    }

    private static async Task<IPAddress[]> ResolveAsync(string host, CancellationToken ct)
    {
        if (IPAddress.TryParse(host.Trim('[', ']'), out var address))
            return [address];
        try
        {
            return await Dns.GetHostAddressesAsync(host, ct);
        }
        catch (SocketException)
        {
            throw new OutsideException(OutsideFault.Unreachable, $"There is no server {host}.");
        }
    }

    private async ValueTask<Stream> ConnectAsync(SocketsHttpConnectionContext context, CancellationToken ct)
    {
        var (host, port) = (context.DnsEndPoint.Host, context.DnsEndPoint.Port);
        var open = (await ResolveAsync(host, ct)).Where(address => _inside.MayConnect(address, port)).ToArray();
        if (open.Length == 0)
            throw new OutsideException(
                OutsideFault.Inside,
                $"{host} is an address inside a private network, which is not asked. Whoever runs this site can list it."
            );
        var socket = new Socket(SocketType.Stream, ProtocolType.Tcp) { NoDelay = true };
        try
        {
            await socket.ConnectAsync(open, port, ct);
            return new NetworkStream(socket, ownsSocket: true);
        }
        catch
        {
            socket.Dispose();
            throw;
        }
    }

    private static async Task<byte[]> ReadAsync(HttpResponseMessage answer, int most, CancellationToken ct)
    {
        if (answer.Content.Headers.ContentLength > most)
            throw TooLarge(answer, most);
        await using var stream = await answer.Content.ReadAsStreamAsync(ct);
        using var bytes = new MemoryStream();
        var part = new byte[64 * 1024];
        for (int read; (read = await stream.ReadAsync(part, ct)) > 0; )
        {
            if (bytes.Length + read > most)
                throw TooLarge(answer, most);
            bytes.Write(part, 0, read);
        }

        return bytes.ToArray();
    }

    private static OutsideException TooLarge(HttpResponseMessage answer, int most) =>
        new(
            OutsideFault.TooLarge,
            $"{answer.RequestMessage!.RequestUri!.Host} sent more than {most / 1024 / 1024} MB, which is more than is read."
        );
}
