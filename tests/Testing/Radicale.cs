using System.Diagnostics;
using System.Net;
using System.Net.Http.Headers;
using System.Text;

namespace LooseLantern.Testing;

/// <summary>
/// A calendar server that is none of ours: Debian's radicale, on a port and with a folder of its own.
/// </summary>
public sealed class Radicale : IAsyncDisposable
{
    private const string Program = "/usr/bin/radicale";
    private const string Password = "harbour light";

    private readonly DirectoryInfo _folder = Directory.CreateTempSubdirectory("lantern-radicale");
    private readonly HttpClient _http = new();
    private Process? _process;

    public string Address { get; private set; } = "";

    /// <exception cref="InvalidOperationException">When it is not installed, or does not start.</exception>
    public static async Task<Radicale> StartAsync()
    {
        if (!File.Exists(Program))
            throw new InvalidOperationException("radicale is not installed; ./lantern test installs it.");
        var radicale = new Radicale();
        var port = StandIn.FreePort();
        radicale.Address = $"http://127.0.0.1:{port}";
        var passwords = Path.Combine(radicale._folder.FullName, "passwords");
        await File.WriteAllTextAsync(passwords, $"marit:{Password}\n");
        radicale._process = Process.Start(
            new ProcessStartInfo(
                Program,
                [
                    "--config",
                    "",
                    "--hosts",
                    $"127.0.0.1:{port}",
                    "--auth-type",
                    "htpasswd",
                    "--auth-htpasswd-filename",
                    passwords,
                    "--auth-htpasswd-encryption",
                    "plain",
                    "--auth-delay",
                    "0",
                    "--server-max-connections",
                    "100",
                    "--storage-filesystem-folder",
                    Path.Combine(radicale._folder.FullName, "calendars"),
                ]
            )
            {
                RedirectStandardError = true,
                RedirectStandardOutput = true,
            }
        ) ?? throw new InvalidOperationException("radicale did not start.");
        radicale._process.ErrorDataReceived += (_, _) => { };
        radicale._process.BeginErrorReadLine();
        radicale._process.BeginOutputReadLine();
        radicale._http.DefaultRequestHeaders.Authorization = new AuthenticationHeaderValue(
            "Basic",
            Convert.ToBase64String(Encoding.UTF8.GetBytes($"marit:{Password}"))
        );
        // It closes a connection when it likes; none is used twice.
        radicale._http.DefaultRequestHeaders.ConnectionClose = true;
        await radicale.ReadyAsync();
        return radicale;
    }

    /// <summary>As an account of ours is given.</summary>
    public object Account(string? password = null) =>
        new
        {
            server = Address,
            userName = "marit",
            password = password ?? Password,
        };

    public async Task MakeCalendarAsync(string name) =>
        await SendAsync(
            "MKCALENDAR",
            $"/marit/{name}/",
            $"""<?xml version="1.0"?><C:mkcalendar xmlns:C="urn:ietf:params:xml:ns:caldav" xmlns="DAV:"><set><prop><displayname>{name}</displayname></prop></set></C:mkcalendar>"""
        );

    public Task PutAsync(string path, string text) => SendAsync("PUT", path, text, "text/calendar");

    public Task DeleteAsync(string path) => SendAsync("DELETE", path);

    public async Task<string> GetAsync(string path) => await _http.GetStringAsync(Address + path);

    public async Task<bool> HasAsync(string path) => (await _http.GetAsync(Address + path)).IsSuccessStatusCode;

    public async ValueTask DisposeAsync()
    {
        if (_process is not null)
        {
            _process.Kill(entireProcessTree: true);
            await _process.WaitForExitAsync();
            _process.Dispose();
        }

        _http.Dispose();
        _folder.Delete(recursive: true);
    }

    private async Task SendAsync(string method, string path, string? body = null, string type = "application/xml")
    {
        // It drops a connection now and then; whatever is asked here can be asked again.
        for (var attempt = 1; ; attempt++)
        {
            using var request = new HttpRequestMessage(new HttpMethod(method), Address + path);
            if (body is not null)
                request.Content = new StringContent(body, Encoding.UTF8, type);
            try
            {
                using var answer = await _http.SendAsync(request);
                if (attempt > 1 && answer.StatusCode is HttpStatusCode.Conflict or HttpStatusCode.NotFound)
                    return;
                answer.EnsureSuccessStatusCode();
                return;
            }
            catch (HttpRequestException e) when (attempt < 3 && e.HttpRequestError == HttpRequestError.ResponseEnded)
            { }
        }
    }

    /// <summary>Waits until it answers; a start takes a second or two.</summary>
    private async Task ReadyAsync()
    {
        using var patience = new CancellationTokenSource(TimeSpan.FromSeconds(30));
        while (true)
        {
            if (_process!.HasExited)
                throw new InvalidOperationException("radicale stopped while starting.");
            try
            {
                if (
                    (await _http.GetAsync(Address + "/.web/", patience.Token)).StatusCode
                    < HttpStatusCode.InternalServerError
                )
                    return;
            }
            catch (HttpRequestException)
            {
                await Task.Delay(50, patience.Token);
            }
        }
    }
}
