using System.Diagnostics;
using System.Globalization;
using System.Text.RegularExpressions;
using Npgsql;

namespace LooseLantern.Bench.Requests;

/// <summary>What the database does without us: transactions of one statement under the same constraint.</summary>
internal static partial class Bare
{
    public const string Table = """
        CREATE EXTENSION IF NOT EXISTS btree_gist;
        CREATE TABLE IF NOT EXISTS bare (host int, holder int, span tstzrange,
            EXCLUDE USING gist (host WITH =, holder WITH <>, span WITH &&));
        CREATE TABLE IF NOT EXISTS bare_pages (id int PRIMARY KEY);
        INSERT INTO bare_pages VALUES (1) ON CONFLICT DO NOTHING;
        CREATE SEQUENCE IF NOT EXISTS bare_n;
        """;

    private const string Insert = """
        INSERT INTO bare SELECT n % 50, n, tstzrange(timestamptz '2026-12-07' + (n / 50) * interval '30 min', timestamptz '2026-12-07' + (n / 50 + 1) * interval '30 min')
        FROM (SELECT nextval('bare_n')::int AS n) x;
        """;

    /// <summary>Transactions a second, as pgbench counts them.</summary>
    public static async Task<double> PgbenchAsync(string connectionString, int clients, int seconds)
    {
        var connection = new NpgsqlConnectionStringBuilder(connectionString);
        var script = Path.GetTempFileName();
        await File.WriteAllTextAsync(script, Insert.ReplaceLineEndings(" "));
        var bin =
            Directory
                .GetDirectories("/usr/lib/postgresql")
                .OrderBy(path => int.Parse(Path.GetFileName(path), CultureInfo.InvariantCulture))
                .Last() + "/bin/pgbench";
        using var process = Process.Start(
            new ProcessStartInfo(
                bin,
                [
                    "-n",
                    "-h",
                    connection.Host!,
                    "-p",
                    connection.Port.ToString(CultureInfo.InvariantCulture),
                    "-U",
                    connection.Username!,
                    "-c",
                    clients.ToString(CultureInfo.InvariantCulture),
                    "-j",
                    "2",
                    "-T",
                    seconds.ToString(CultureInfo.InvariantCulture),
                    "-f",
                    script,
                    connection.Database!,
                ]
            )
            {
                RedirectStandardOutput = true,
                RedirectStandardError = true,
            }
        )!;
        var output = await process.StandardOutput.ReadToEndAsync();
        await process.WaitForExitAsync();
        File.Delete(script);
        return double.Parse(Tps().Match(output).Groups[1].Value, CultureInfo.InvariantCulture);
    }

    /// <summary>
    /// So many at once for one time of three hosts, each locking first: how long until the last has its answer.
    /// </summary>
    public static async Task<double> CrowdAsync(string connectionString, int people)
    {
        var pool = new NpgsqlConnectionStringBuilder(connectionString) { MaxPoolSize = 40 }.ConnectionString;
        await using var source = NpgsqlDataSource.Create(pool);
        // Connections are there before it begins.
        await Task.WhenAll(
            Enumerable
                .Range(0, 40)
                .Select(async _ =>
                {
                    await using var warm = await source.OpenConnectionAsync();
                    await Task.Delay(50);
                })
        );
        var watch = Stopwatch.StartNew();
        await Task.WhenAll(
            Enumerable
                .Range(0, people)
                .Select(async person =>
                {
                    await using var connection = await source.OpenConnectionAsync();
                    await using var transaction = await connection.BeginTransactionAsync();
                    await using (
                        var locking = new NpgsqlCommand("SELECT 1 FROM bare_pages WHERE id = 1 FOR UPDATE", connection)
                    )
                        await locking.ExecuteNonQueryAsync();
                    await using var insert = new NpgsqlCommand(
                        """
                        INSERT INTO bare SELECT h, $1, tstzrange('2040-01-01', '2040-01-02') FROM generate_series(1001, 1003) h
                        WHERE NOT EXISTS (SELECT 1 FROM bare WHERE host = h AND span && tstzrange('2040-01-01', '2040-01-02')) LIMIT 1
                        """,
                        connection
                    );
                    insert.Parameters.Add(new NpgsqlParameter { Value = person });
                    await insert.ExecuteNonQueryAsync();
                    await transaction.CommitAsync();
                })
        );
        return watch.Elapsed.TotalMilliseconds;
    }

    [GeneratedRegex(@"tps = ([\d.]+)")]
    private static partial Regex Tps();
}
