using LooseLantern.Server.Data;
using LooseLantern.Server.Demo;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using NodaTime;

namespace Browser.Tests;

/// <summary>
/// The whole product, served on a real port with the demo of Monday 7 December 2026, for the tests of one class.
/// </summary>
public sealed class Site : IAsyncLifetime
{
    private readonly bool _demo;
    private DemoCopy? _copy;
    private LanternApp? _app;

    public Site()
        : this(demo: true) { }

    internal Site(bool demo) => _demo = demo;

    public string Address { get; private set; } = "";

    /// <summary>Where the stand-ins' screens are.</summary>
    public string Calendars => _copy!.StandIn.Address;

    public async ValueTask InitializeAsync()
    {
        _copy = _demo ? await DemoCopy.WithDemoAsync() : await DemoCopy.EmptyAsync();
        _app = new LanternApp(
            _copy.Database.ConnectionString,
            StartedClock.At(DemoCopy.Start),
            demo: _demo,
            standIn: _copy.StandIn
        );
        _app.UseKestrel(0);
        _app.StartServer();
        Address = _app.ClientOptions.BaseAddress.ToString().TrimEnd('/');
    }

    /// <summary>As if no owner had ever shown that their mail address is theirs.</summary>
    public async Task ForgetProofsAsync()
    {
        await using var scope = _app!.Services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<LanternDb>();
        await db
            .Users.IgnoreQueryFilters()
            .ExecuteUpdateAsync(set => set.SetProperty(row => row.EmailProvenAt, (Instant?)null));
    }

    /// <summary>Adds much more of everything to the demo.</summary>
    internal Task FillAsync(LargeDemoSize size) =>
        LargeDemo.FillOnceAsync(_app!.Services, size, TestContext.Current.CancellationToken);

    public async ValueTask DisposeAsync()
    {
        if (_app is not null)
            await _app.DisposeAsync();
        if (_copy is not null)
            await _copy.DisposeAsync();
    }
}
