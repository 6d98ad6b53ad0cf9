using LooseLantern.Server.Data;
using LooseLantern.Server.Tenancy;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using NodaTime.Testing;

[assembly: AssemblyFixture(typeof(Server.Tests.World))]

namespace Server.Tests;

/// <summary>
/// One server over a real PostgreSQL for all tests; each test signs up a workspace of its own, so none is in another's
/// way.
/// </summary>
public sealed class World : IAsyncLifetime
{
    private readonly StandIn? _standIn;

    public World() { }

    /// <param name="standIn">Where mail goes; without it mail waits.</param>
    internal World(StandIn standIn) => _standIn = standIn;

    /// <summary>Monday 7 December 2026, 08:00 in Copenhagen.</summary>
    public static readonly Instant Now = Instant.FromUtc(2026, 12, 7, 7, 0);

    private static int _count;

    private TestDatabase? _database;
    private LanternApp? _app;

    /// <summary>Only to be moved in a world of a test's own.</summary>
    public FakeClock Clock { get; } = new(Now);

    public LanternApp App => _app!;

    public string ConnectionString => _database!.ConnectionString;

    public async ValueTask InitializeAsync()
    {
        _database = await TestDatabase.CreateAsync();
        _app = new LanternApp(_database.ConnectionString, Clock, standIn: _standIn, patience: TimeSpan.FromSeconds(5));
        _ = _app.Server;
    }

    public async ValueTask DisposeAsync()
    {
        if (_app is not null)
            await _app.DisposeAsync();
        if (_database is not null)
            await _database.DisposeAsync();
    }

    public static string Unique(string word) => $"{word}-{Interlocked.Increment(ref _count)}";

    /// <summary>Somebody outside, with neither cookie nor token.</summary>
    public HttpClient Guest() => App.CreateDefaultClient(new GuestWords());

    /// <summary>Somebody's browser, with cookies of its own.</summary>
    public HttpClient Browser() =>
        App.CreateClient(new WebApplicationFactoryClientOptions { AllowAutoRedirect = false });

    /// <summary>A new workspace in Copenhagen and its coordinator, signed in.</summary>
    public async Task<Coordinator> SignUpAsync()
    {
        var desk = Unique("desk");
        var person = new Coordinator(Browser(), desk);
        var answer = await person.PostAsync(
            "/api/sign-up",
            new
            {
                workspace = "Yard " + desk,
                zone = "Europe/Copenhagen",
                name = "Ada Wharf",
                email = $"ada@{desk}.example",
                password = "harbour at first light",
                deskName = "Desk of " + desk,
                deskAddress = desk,
            }
        );
        answer.StatusCode.ShouldBe(HttpStatusCode.NoContent);
        person.ForgetToken();
        await person.LearnAsync();
        return person;
    }

    /// <summary>Asks the database directly, across all workspaces.</summary>
    public async Task<T> LookAsync<T>(Func<LanternDb, Task<T>> look)
    {
        await using var scope = App.Services.CreateAsyncScope();
        return await look(scope.ServiceProvider.GetRequiredService<LanternDb>());
    }

    /// <summary>Works with the database as a request of that workspace would.</summary>
    public async Task<T> WithinAsync<T>(Guid workspace, Func<LanternDb, Task<T>> work)
    {
        await using var scope = App.Services.CreateAsyncScope();
        scope.ServiceProvider.GetRequiredService<Tenant>().Enter(workspace);
        return await work(scope.ServiceProvider.GetRequiredService<LanternDb>());
    }

    public Task<Guid> WorkspaceOfAsync(string desk) =>
        LookAsync(db =>
            db.Desks.IgnoreQueryFilters().Where(row => row.Address == desk).Select(row => row.WorkspaceId).SingleAsync()
        );
}
