using LooseLantern.Server.Hosting;

namespace Browser.Tests;

/// <summary>
/// The whole product, served on a real port with the demo of Monday 7 December 2026, for the tests of one class.
/// </summary>
public sealed class Site : IAsyncLifetime
{
    public static readonly Instant Started = Instant.FromUtc(2026, 12, 7, 7, 0);

    private readonly bool _demo;
    private TestDatabase? _database;
    private StandIn? _standIn;
    private LanternApp? _app;

    public Site()
        : this(demo: true) { }

    internal Site(bool demo) => _demo = demo;

    public string Address { get; private set; } = "";

    /// <summary>Where the stand-ins' screens are.</summary>
    public string Calendars => _standIn!.Address;

    public async ValueTask InitializeAsync()
    {
        _database = await TestDatabase.CreateAsync();
        _standIn = await StandIn.StartAsync(_demo ? "2026-12-07" : null);
        _app = new LanternApp(_database.ConnectionString, StartedClock.At(Started), demo: _demo, standIn: _standIn);
        _app.UseKestrel(0);
        _app.StartServer();
        Address = _app.ClientOptions.BaseAddress.ToString().TrimEnd('/');
    }

    public async ValueTask DisposeAsync()
    {
        if (_app is not null)
            await _app.DisposeAsync();
        if (_standIn is not null)
            await _standIn.DisposeAsync();
        if (_database is not null)
            await _database.DisposeAsync();
    }
}
