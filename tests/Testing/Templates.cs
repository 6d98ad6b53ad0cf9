using LooseLantern.Server.Data;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using NodaTime;
using Npgsql;

namespace LooseLantern.Testing;

/// <summary>
/// Databases that those of the tests are copied from, which takes a third of a second where making the tables, or
/// loading the demo, takes many. Each is made once for a build and a PostgreSQL, whichever test program is first.
/// </summary>
internal static class Templates
{
    /// <summary>The day of the demo that all browser tests begin with.</summary>
    public const string DemoDay = "2026-12-07";

    /// <summary>Monday 7 December 2026, 08:00 in Copenhagen.</summary>
    public static readonly Instant DemoStart = Instant.FromUtc(2026, 12, 7, 7, 0);

    private const long OneAtATime = 0x54656d706c617465;

    private static readonly Lazy<Task<string>> Migrated = new(() => MakeAsync("migrated", MigrateAsync));
    private static readonly Lazy<Task<string>> Demo = new(() => MakeAsync("demo", LoadDemoAsync));

    /// <summary>The name of a database with all tables and nothing in them.</summary>
    public static Task<string> MigratedAsync() => Migrated.Value;

    /// <summary>The name of a database with the demo, and of the folder with what the stand-ins kept of it.</summary>
    public static async Task<(string Database, string Folder)> DemoAsync()
    {
        var name = await Demo.Value;
        return (name, FolderOf(name));
    }

    private static async Task MigrateAsync(string database)
    {
        await using var app = new LanternApp(TestDatabase.ConnectionTo(database), SystemClock.Instance);
        _ = app.Server;
    }

    private static async Task LoadDemoAsync(string database)
    {
        // A kept template starts from its own folder; what an attempt before left there is in its way.
        var folder = Directory.CreateDirectory(FolderOf(FinalName("demo")));
        folder.Delete(recursive: true);
        await using var standIn = await StandIn.StartAsync(DemoDay);
        await using (
            var app = new LanternApp(
                TestDatabase.ConnectionTo(database),
                Server.Hosting.StartedClock.At(DemoStart),
                demo: true,
                standIn: standIn
            )
        )
        {
            _ = app.Server;
            await SettledAsync(app.Services);
        }

        standIn.CopyTo(folder.FullName);
    }

    /// <summary>Waits until all that the demo booked is told of and stands in calendars.</summary>
    private static async Task SettledAsync(IServiceProvider services)
    {
        using var patience = new CancellationTokenSource(TimeSpan.FromMinutes(5));
        while (true)
        {
            await using var scope = services.CreateAsyncScope();
            var db = scope.ServiceProvider.GetRequiredService<LanternDb>();
            var now = scope.ServiceProvider.GetRequiredService<IClock>().GetCurrentInstant();
            var isBusy =
                await db.WrittenEvents.IgnoreQueryFilters().AnyAsync(row => row.DueAt != null, patience.Token)
                || await db
                    .Messages.IgnoreQueryFilters()
                    .AnyAsync(
                        row => row.State == Server.Data.Model.MessageState.Due && row.DueAt <= now,
                        patience.Token
                    );
            if (!isBusy)
                return;
            await Task.Delay(100, patience.Token);
        }
    }

    /// <summary>
    /// Makes a template unless it is there. While it is made it has another name, so that one that was not finished
    /// never counts.
    /// </summary>
    private static async Task<string> MakeAsync(string what, Func<string, Task> fill)
    {
        var name = FinalName(what);
        await using var connection = new NpgsqlConnection(TestDatabase.ConnectionTo("postgres", pooled: false));
        await connection.OpenAsync();
        await RunAsync($"SELECT pg_advisory_lock({OneAtATime})");
        if (await RunAsync($"SELECT 1 FROM pg_database WHERE datname = '{name}'") is not null)
            return name;
        var unfinished = name + "_unfinished";
        await RunAsync($"DROP DATABASE IF EXISTS {unfinished} WITH (FORCE)");
        await RunAsync($"CREATE DATABASE {unfinished}");
        await fill(unfinished);
        // The program's connections outlive it, in the pool that queries use.
        await RunAsync(
            $"SELECT bool_and(pg_terminate_backend(pid, 10000)) FROM pg_stat_activity WHERE datname = '{unfinished}'"
        );
        await RunAsync($"ALTER DATABASE {unfinished} RENAME TO {name}");
        return name;

        async Task<object?> RunAsync(string sql)
        {
            await using var command = new NpgsqlCommand(sql, connection) { CommandTimeout = 600 };
            return await command.ExecuteScalarAsync();
        }
    }

    private static string FinalName(string what) => $"template_{what}_{Build}";

    /// <summary>Deterministic builds of the same sources are the same module.</summary>
    private static string Build { get; } = $"{typeof(LanternDb).Module.ModuleVersionId:N}"[..16];

    private static string FolderOf(string name) =>
        Path.Combine(Environment.GetEnvironmentVariable("LANTERN_TEST_HOME") ?? Path.GetTempPath(), name);
}
