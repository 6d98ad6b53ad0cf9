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
    private string? _demo;
    private int _port;

    public string Address => _app!.Urls.First();

    /// <summary>Where mail comes in; a test may put something of its own there before the program starts.</summary>
    public int MailPort { get; set; }

    /// <summary>Where answers to invitations go.</summary>
    public int AnswersPort { get; } = FreePort();

    public MailStore Mail => _app!.Services.GetRequiredService<MailStore>();

    /// <param name="demo">The date (2026-12-07) around which the demo's calendars are made; null for none.</param>
    /// <param name="from">A folder whose calendars and mail it begins with.</param>
    public static async Task<StandIn> StartAsync(string? demo, string? from = null)
    {
        var standIn = new StandIn();
        if (from is not null)
            Copy(new DirectoryInfo(from), standIn._folder);
        standIn.MailPort = FreePort();
        standIn._demo = demo;
        await standIn.StartAgainAsync();
        return standIn;
    }

    /// <summary>Listens again, after <see cref="StopAsync"/>, with all that it kept.</summary>
    public async Task StartAgainAsync()
    {
        _app = StandInApp.Create([
            "--Data",
            Path.Combine(_folder.FullName, "calendars"),
            "--Mail",
            Path.Combine(_folder.FullName, "mail"),
            "--MailPort",
            MailPort.ToString(CultureInfo.InvariantCulture),
            "--urls",
            $"http://127.0.0.1:{_port.ToString(CultureInfo.InvariantCulture)}",
            "--Demo",
            _demo ?? "",
            "--Answers",
            $"{RepliesDomain}=127.0.0.1:{AnswersPort.ToString(CultureInfo.InvariantCulture)}",
        ]);
        await _app.StartAsync();
        _port = new Uri(Address).Port;
    }

    /// <summary>Answers nobody until it starts again.</summary>
    public async Task StopAsync()
    {
        if (_app is not null)
        {
            await _app.StopAsync();
            await _app.DisposeAsync();
        }

        _app = null;
    }

    /// <summary>Copies all calendars and mail into a folder that is made for them.</summary>
    public void CopyTo(string folder) => Copy(_folder, Directory.CreateDirectory(folder));

    /// <summary>Throws all mail away.</summary>
    public void EmptyMail()
    {
        foreach (var box in new DirectoryInfo(Path.Combine(_folder.FullName, "mail")).GetDirectories())
            box.Delete(recursive: true);
    }

    private static void Copy(DirectoryInfo from, DirectoryInfo to)
    {
        foreach (var file in from.GetFiles("*", SearchOption.AllDirectories))
        {
            var target = Path.Combine(to.FullName, Path.GetRelativePath(from.FullName, file.FullName));
            Directory.CreateDirectory(Path.GetDirectoryName(target)!);
            file.CopyTo(target);
        }
    }

    public async ValueTask DisposeAsync()
    {
        await StopAsync();
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
