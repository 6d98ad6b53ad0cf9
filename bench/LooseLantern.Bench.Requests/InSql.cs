using System.Diagnostics;
using LooseLantern.Core.Openings;
using NodaTime;
using Npgsql;
using Server.Tests.Faults;

namespace LooseLantern.Bench.Requests;

/// <summary>
/// The openings of a panel of 50 hosts over 90 days in PostgreSQL, beside the core in the same run: two queries that
/// give the same answer, one that asks each start of each host, and one that reckons with multiranges. Tables are
/// indexed, analysed and in memory.
/// </summary>
internal static class InSql
{
    private const string Tables = """
        CREATE EXTENSION IF NOT EXISTS btree_gist;
        CREATE TABLE panel_hosts (host int PRIMARY KEY, seat int NOT NULL, zone text NOT NULL);
        CREATE TABLE panel_open (host int, weekday int, from_minute int, to_minute int);
        CREATE TABLE panel_off (host int, first date, last date);
        CREATE TABLE panel_busy (host int, span tstzrange);
        """;

    private const string Indexes = """
        CREATE INDEX ON panel_open (host, weekday);
        CREATE INDEX ON panel_off (host);
        CREATE INDEX ON panel_busy USING gist (host, span);
        ANALYZE;
        """;

    // The open stretches of each host, of which none touches the next, as far as a start may lie.
    private const string Stretches = """
        WITH stretches AS MATERIALIZED (
            SELECT h.host, h.seat, greatest((d + from_minute * interval '1 min') AT TIME ZONE zone, @earliest) AS start,
                least((d + to_minute * interval '1 min') AT TIME ZONE zone - interval '45 min', @to - interval '1 s') AS stop
            FROM panel_hosts h, generate_series(@from::timestamp - interval '1 day', @to::timestamp + interval '1 day', interval '1 day') g,
                date_trunc('day', g) d, panel_open o
            WHERE o.host = h.host AND o.weekday = extract(isodow FROM d)
                AND NOT EXISTS (SELECT 1 FROM panel_off f WHERE f.host = h.host AND d::date BETWEEN f.first AND f.last))
        """;

    // The grid from a time on.
    private const string Grid =
        "generate_series(date_bin('15 min', {0} + interval '15 min' - interval '1 us', 'epoch'), {1}, interval '15 min') t";

    private static readonly string EachStart = $"""
        {Stretches}
        SELECT count(*) FROM (
            SELECT t FROM stretches s, {string.Format(null, Grid, "s.start", "s.stop")}
            WHERE NOT EXISTS (SELECT 1 FROM panel_busy b WHERE b.host = s.host
                AND b.span && tstzrange(t - interval '10 min', t + interval '55 min'))
            GROUP BY t HAVING count(DISTINCT seat) = 3) x
        """;

    private static readonly string Multiranges = $$"""
        {{Stretches}},
        busy AS MATERIALIZED (
            SELECT host, range_agg(tstzrange(lower(span) - interval '55 min', upper(span) + interval '10 min', '()')) AS times
            FROM panel_busy GROUP BY host),
        free AS MATERIALIZED (
            SELECT s.seat, unnest(range_agg(tstzrange(s.start, s.stop, '[]')) - b.times) AS run
            FROM stretches s JOIN busy b USING (host) WHERE s.stop >= s.start GROUP BY s.host, s.seat, b.times)
        SELECT count(*) FROM (
            SELECT t FROM free, {{string.Format(null, Grid, "lower(run)", "upper(run)")}} WHERE run @> t
            GROUP BY t HAVING count(DISTINCT seat) = 3) x
        """;

    public static async Task RunAsync()
    {
        await using var cluster = await FaultCluster.StartAsync();
        await using var connection = new NpgsqlConnection(cluster.ConnectionString);
        await connection.OpenAsync();
        await DoAsync(connection, "SET jit = off; SET TimeZone = 'UTC'");
        var input = Panel.Of(50, 90);
        await FillAsync(connection, input);
        var core = Median(200, () => OpeningsComputation.Openings(input));
        Console.WriteLine($"openings of 50 hosts over 90 days: {OpeningsComputation.Openings(input).Count}");
        Console.WriteLine($"  core                 {core, 10:0.00} ms");
        foreach (var (name, query) in new[] { ("start by start", EachStart), ("multiranges", Multiranges) })
        {
            long found = 0;
            var took = Median(5, () => found = Ask(connection, query, input));
            Console.WriteLine($"  SQL, {name, -15} {took, 10:0.00} ms, {took / core:0} times ({found} openings)");
        }
    }

    private static double Median(int rounds, Action one)
    {
        var took = new List<double>();
        for (var round = -rounds; round < rounds; round++)
        {
            var watch = Stopwatch.StartNew();
            one();
            if (round >= 0)
                took.Add(watch.Elapsed.TotalMilliseconds);
        }

        return took.Order().ElementAt(rounds / 2);
    }

    private static long Ask(NpgsqlConnection connection, string query, OpeningsInput input)
    {
        var zone = input.Page.Zone;
        using var command = new NpgsqlCommand(query, connection);
        command.Parameters.AddWithValue("from", zone.AtStartOfDay(input.From).ToDateTimeUtc());
        command.Parameters.AddWithValue("to", zone.AtStartOfDay(input.To.PlusDays(1)).ToDateTimeUtc());
        command.Parameters.AddWithValue(
            "earliest",
            (input.Now + Duration.FromMinutes(input.Page.Notice)).ToDateTimeUtc()
        );
        return (long)command.ExecuteScalar()!;
    }

    private static async Task FillAsync(NpgsqlConnection connection, OpeningsInput input)
    {
        await DoAsync(connection, Tables);
        for (var at = 0; at < input.Hosts.Count; at++)
        {
            var host = input.Hosts[at];
            var seat = input.Page.LineUp.Index().First(one => one.Item.AnyOf.Contains(host.Id)).Index;
            await DoAsync(connection, $"INSERT INTO panel_hosts VALUES ({at}, {seat}, '{host.Hours!.Zone.Id}')");
            foreach (var (day, times) in host.Hours.Week)
            {
                foreach (var time in times)
                    await DoAsync(
                        connection,
                        $"INSERT INTO panel_open VALUES ({at}, {(int)day}, {time.From}, {time.To})"
                    );
            }

            foreach (var off in host.Hours.Changes)
                await DoAsync(connection, $"INSERT INTO panel_off VALUES ({at}, '{off.From:R}', '{off.To:R}')");
            await using var writer = await connection.BeginBinaryImportAsync(
                "COPY panel_busy FROM STDIN (FORMAT binary)"
            );
            foreach (var span in host.Busy)
                await WriteAsync(writer, at, span);
            await writer.CompleteAsync();
        }

        await DoAsync(connection, Indexes);
    }

    private static async Task WriteAsync(NpgsqlBinaryImporter writer, int host, Core.Span span)
    {
        await writer.StartRowAsync();
        await writer.WriteAsync(host);
        await writer.WriteAsync(
            new NpgsqlTypes.NpgsqlRange<DateTime>(span.Start.ToDateTimeUtc(), true, span.End.ToDateTimeUtc(), false)
        );
    }

    private static async Task DoAsync(NpgsqlConnection connection, string sql)
    {
        await using var command = new NpgsqlCommand(sql, connection);
        await command.ExecuteNonQueryAsync();
    }
}
