using LooseLantern.StandIns.Calendars;
using Microsoft.AspNetCore.Builder;

namespace LooseLantern.Testing;

/// <summary>The calendar stand-in, on a port and with a folder of its own.</summary>
public sealed class StandIn : IAsyncDisposable
{
    private readonly DirectoryInfo _folder = Directory.CreateTempSubdirectory("lantern-calendars");
    private WebApplication? _app;

    public string Address => _app!.Urls.First();

    /// <param name="demo">The date (2026-12-07) around which the demo's calendars are made; null for none.</param>
    public static async Task<StandIn> StartAsync(string? demo)
    {
        var standIn = new StandIn();
        standIn._app = CalendarStandIn.Create(["--Data", standIn._folder.FullName, "--urls", "http://127.0.0.1:0", "--Demo", demo ?? ""]);
        await standIn._app.StartAsync();
        return standIn;
    }

    public async ValueTask DisposeAsync()
    {
        if (_app is not null) await _app.DisposeAsync();
        _folder.Delete(recursive: true);
    }
}
