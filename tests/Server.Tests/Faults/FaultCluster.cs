using System.Diagnostics;
using System.Globalization;
using Npgsql;

namespace Server.Tests.Faults;

/// <summary>
/// A PostgreSQL of its own that keeps what it said it keeps (synchronous commit, which that of the other tests has
/// off), so that it can be killed.
/// </summary>
internal sealed class FaultCluster : IAsyncDisposable
{
    private const int LinesOfOne = 12;

    private readonly DirectoryInfo _folder = Directory.CreateTempSubdirectory("lantern-faults");
    private readonly int _port = FreePorts.One();

    private static string Bin =>
        Directory
            .GetDirectories("/usr/lib/postgresql")
            .OrderBy(path => int.Parse(Path.GetFileName(path), CultureInfo.InvariantCulture))
            .Last() + "/bin";

    private string Log => Path.Combine(_folder.FullName, "log");

    private string Data => Path.Combine(_folder.FullName, "data");

    public string ConnectionString =>
        new NpgsqlConnectionStringBuilder
        {
            Host = "127.0.0.1",
            Port = _port,
            Username = "lantern",
            Database = "lantern",
            SslMode = SslMode.Disable,
            MaxPoolSize = 40,
        }.ConnectionString;

    public static async Task<FaultCluster> StartAsync()
    {
        var cluster = new FaultCluster();
        if (Environment.UserName == "root")
            await RunAsync("chown", "postgres", cluster._folder.FullName);
        await AsPostgresAsync(
            Bin + "/initdb",
            "-D",
            cluster.Data,
            "-U",
            "lantern",
            "--auth=trust",
            "--encoding=UTF8",
            "--locale=C.UTF-8",
            "--no-instructions"
        );
        await cluster.StartAgainAsync();
        await using var connection = new NpgsqlConnection(
            new NpgsqlConnectionStringBuilder(cluster.ConnectionString) { Database = "postgres" }.ConnectionString
        );
        await connection.OpenAsync();
        await using var command = new NpgsqlCommand("CREATE DATABASE lantern", connection);
        await command.ExecuteNonQueryAsync();
        return cluster;
    }

    public Task StartAgainAsync() =>
        AsPostgresAsync(
            Bin + "/pg_ctl",
            "-D",
            Data,
            "-s",
            "-w",
            "-t",
            "60",
            "-l",
            Log,
            "-o",
            $"-p {_port} -c listen_addresses=127.0.0.1 -c unix_socket_directories='' -c max_connections=120 -c track_commit_timestamp=on",
            "start"
        );

    /// <summary>Ends it without a word to anybody: what was not written to its log is gone.</summary>
    public Task KillAsync() => AsPostgresAsync(Bin + "/pg_ctl", "-D", Data, "-s", "-w", "-m", "immediate", "stop");

    /// <summary>
    /// What it says of transactions that waited for each other in a ring, each with who held what.
    /// </summary>
    public IReadOnlyList<string> Deadlocks()
    {
        var lines = File.ReadAllLines(Log);
        return
        [
            .. lines
                .Index()
                .Where(line => line.Item.Contains("deadlock detected", StringComparison.Ordinal))
                .Select(line => string.Join('\n', lines.Skip(line.Index).Take(LinesOfOne))),
        ];
    }

    public async ValueTask DisposeAsync()
    {
        NpgsqlConnection.ClearAllPools();
        await KillAsync();
        _folder.Delete(recursive: true);
    }

    private static Task AsPostgresAsync(params string[] command) =>
        Environment.UserName == "root"
            ? RunAsync("runuser", ["-u", "postgres", "--", .. command])
            : RunAsync(command[0], command[1..]);

    private static async Task RunAsync(string program, params string[] arguments)
    {
        // What pg_ctl starts would keep a pipe open for as long as it runs; initdb says much and starts nothing.
        var isInitdb = arguments.Concat([program]).Any(one => one.EndsWith("/initdb", StringComparison.Ordinal));
        using var process = Process.Start(
            new ProcessStartInfo(program, arguments) { WorkingDirectory = "/", RedirectStandardOutput = isInitdb }
        )!;
        if (isInitdb)
            await process.StandardOutput.ReadToEndAsync();
        await process.WaitForExitAsync();
        if (process.ExitCode != 0)
            throw new InvalidOperationException($"{program} {string.Join(' ', arguments)} failed.");
    }
}
