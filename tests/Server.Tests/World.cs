using LooseLantern.Server.Data;
using LooseLantern.Server.Features.SignUp;
using LooseLantern.Server.Tenancy;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using NodaTime.Testing;

[assembly: AssemblyFixture(typeof(Server.Tests.World))]

namespace Server.Tests;

/// <summary>How much a world mails to strangers; the program's own bounds are in most tests' way.</summary>
internal sealed record MailLimits(int FirstDayMails = 1_000_000, int CompanionMinutes = 0, int ProveFrom = 0)
{
    public static readonly MailLimits None = new();
}

/// <summary>
/// One server over a real PostgreSQL for all tests; each test signs up a workspace of its own, so none is in another's
/// way.
/// </summary>
public sealed class World : IAsyncLifetime
{
    private readonly StandIn? _standIn;
    private readonly MailLimits _limits = MailLimits.None;

    public World() { }

    /// <param name="standIn">Where mail goes; without it mail waits.</param>
    internal World(StandIn standIn, MailLimits? limits = null) =>
        (_standIn, _limits) = (standIn, limits ?? MailLimits.None);

    /// <summary>Monday 7 December 2026, 08:00 in Copenhagen.</summary>
    public static readonly Instant Now = Instant.FromUtc(2026, 12, 7, 7, 0);

    private static int _count;

    private TestDatabase? _database;
    private LanternApp? _app;

    /// <summary>Only to be moved in a world of a test's own.</summary>
    public FakeClock Clock { get; } = new(Now);

    public LanternApp App => _app!;

    /// <summary>Where its list of erasures is kept outside the database.</summary>
    public string Erasures { get; } = Path.Combine(Path.GetTempPath(), $"lantern-erasures-{Guid.NewGuid():N}");

    public string ConnectionString => _database!.ConnectionString;

    public async ValueTask InitializeAsync()
    {
        _database = await TestDatabase.CreateAsync();
        _app = new LanternApp(_database.ConnectionString, Clock, standIn: _standIn, patience: TimeSpan.FromSeconds(5))
        {
            FirstDayMails = _limits.FirstDayMails,
            CompanionMinutes = _limits.CompanionMinutes,
            ProveFrom = _limits.ProveFrom,
            Erasures = Erasures,
        };
        _ = _app.Server;
    }

    public async ValueTask DisposeAsync()
    {
        if (_app is not null)
            await _app.DisposeAsync();
        if (_database is not null)
            await _database.DisposeAsync();
        File.Delete(Erasures);
    }

    public static string Unique(string word) => $"{word}-{Interlocked.Increment(ref _count)}";

    /// <summary>Somebody outside, with neither cookie nor token.</summary>
    public HttpClient Guest() => App.CreateDefaultClient(new GuestWords());

    /// <summary>Somebody's browser, with cookies of its own.</summary>
    public HttpClient Browser() =>
        App.CreateClient(new WebApplicationFactoryClientOptions { AllowAutoRedirect = false });

    /// <summary>A new workspace in Copenhagen and its coordinator, signed in.</summary>
    /// <param name="isProven">Whether the owner has proven the address, so that strangers are mailed.</param>
    public async Task<Coordinator> SignUpAsync(bool isProven = true)
    {
        var desk = Unique("desk");
        var person = new Coordinator(Browser(), desk);
        await OpenAsync(person, desk, isProven);
        person.ForgetToken();
        await person.LearnAsync();
        return person;
    }

    private async Task OpenAsync(Coordinator person, string desk, bool isProven)
    {
        var request = new SignUpRequest(
            "Yard " + desk,
            "Europe/Copenhagen",
            "Ada Wharf",
            $"ada@{desk}.example",
            "harbour at first light",
            "Desk of " + desk,
            desk
        );
        if (_standIn is null)
        {
            (await person.PostAsync("/api/sign-up", request)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
            return;
        }

        // As if by a mailed link, some days ago; the mail itself would lie in the box that a test counts.
        await using (var scope = App.Services.CreateAsyncScope())
        {
            var opening = scope.ServiceProvider.GetRequiredService<SigningUp>();
            var owner = await opening.OpenAsync(request, link: null, default);
            if (isProven)
                await opening.ProveAsync(owner, Now - Duration.FromDays(7), default);
        }

        (await person.PostAsync("/api/sign-in", new { request.Email, request.Password })).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );
    }

    /// <summary>
    /// Asks the database directly, across all workspaces, once all messages of what was done are written.
    /// </summary>
    public async Task<T> LookAsync<T>(Func<LanternDb, Task<T>> look)
    {
        await using var scope = App.Services.CreateAsyncScope();
        await ToldAsync(scope.ServiceProvider.GetRequiredService<LanternDb>());
        return await look(scope.ServiceProvider.GetRequiredService<LanternDb>());
    }

    /// <summary>Works with the database as a request of that workspace would.</summary>
    public async Task<T> WithinAsync<T>(Guid workspace, Func<LanternDb, Task<T>> work)
    {
        await using var scope = App.Services.CreateAsyncScope();
        await ToldAsync(scope.ServiceProvider.GetRequiredService<LanternDb>());
        scope.ServiceProvider.GetRequiredService<Tenant>().Enter(workspace);
        return await work(scope.ServiceProvider.GetRequiredService<LanternDb>());
    }

    private static async Task ToldAsync(LanternDb db)
    {
        using var tooLong = new CancellationTokenSource(TimeSpan.FromSeconds(30));
        while (await db.Tellings.IgnoreQueryFilters().AnyAsync(tooLong.Token))
            await Task.Delay(10, tooLong.Token);
    }

    public Task<Guid> WorkspaceOfAsync(string desk) =>
        LookAsync(db =>
            db.Desks.IgnoreQueryFilters().Where(row => row.Address == desk).Select(row => row.WorkspaceId).SingleAsync()
        );
}
