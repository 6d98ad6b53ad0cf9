using System.Globalization;
using System.Net;
using System.Net.Sockets;
using LooseLantern.StandIns;
using LooseLantern.StandIns.Mail;
using Microsoft.AspNetCore.Builder;
using Microsoft.Extensions.DependencyInjection;

namespace LooseLantern.Testing;

/// <summary>
/// The stand-ins for a calendar server, a mail server and a maker of video rooms, on ports and with folders of their
/// own.
/// </summary>
public sealed class StandIn : IAsyncDisposable
{
    /// <summary>The domain of bookings' own addresses.</summary>
    public const string RepliesDomain = "replies.loose-lantern.example";

    private readonly DirectoryInfo _folder = Directory.CreateTempSubdirectory("lantern-calendars");
    private WebApplication? _app;

    public string Address => _app!.Urls.First();

    /// <summary>Where mail comes in; a test may put something of its own there before the program starts.</summary>
    public int MailPort { get; set; }

    /// <summary>Where answers to invitations go.</summary>
    public int AnswersPort { get; } = FreePort();

    public MailStore Mail => _app!.Services.GetRequiredService<MailStore>();

    /// <param name="waiting">The port at which mail is waited for already; a free one unless said.</param>
    /// <param name="demo">The date (2026-12-07) around which the demo's calendars are made; null for none.</param>
    public static async Task<StandIn> StartAsync(string? demo, int? waiting = null)
    {
        var standIn = new StandIn();
        standIn.MailPort = waiting ?? FreePort();
        standIn._app = StandInApp.Create([
            "--Data",
            Path.Combine(standIn._folder.FullName, "calendars"),
            "--Mail",
            Path.Combine(standIn._folder.FullName, "mail"),
            "--MailPort",
            standIn.MailPort.ToString(CultureInfo.InvariantCulture),
            "--urls",
            "http://127.0.0.1:0",
            "--Demo",
            demo ?? "",
            "--Answers",
            $"{RepliesDomain}=127.0.0.1:{standIn.AnswersPort.ToString(CultureInfo.InvariantCulture)}",
        ]);
        await standIn._app.StartAsync();
        return standIn;
    }

    public async ValueTask DisposeAsync()
    {
        if (_app is not null)
        {
            await _app.StopAsync();
            await _app.DisposeAsync();
        }

        _app = null;
        if (_folder.Exists)
            _folder.Delete(recursive: true);
        _folder.Refresh();
    }

    internal static int FreePort()
    {
        using var listener = new TcpListener(IPAddress.Loopback, 0);
        listener.Start();
        return ((IPEndPoint)listener.LocalEndpoint).Port;
    }
}
