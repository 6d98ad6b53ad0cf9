using Npgsql;

namespace LooseLantern.Testing;

/// <summary>
/// A database of its own in the PostgreSQL that ./lantern test has started; dropped when done.
/// </summary>
public sealed class TestDatabase : IAsyncDisposable
{
    private readonly string _name = $"test_{Guid.NewGuid():N}";

    private TestDatabase() { }

    public string ConnectionString => ConnectionTo(_name);

    /// <summary>With all tables, and nothing in them.</summary>
    public static async Task<TestDatabase> CreateAsync() => await CopyAsync(await Templates.MigratedAsync());

    /// <summary>With nothing, not even tables.</summary>
    public static Task<TestDatabase> CreateEmptyAsync() => CopyAsync("template1");

    internal static async Task<TestDatabase> CopyAsync(string template)
    {
        var database = new TestDatabase();
        await RunAsync($"CREATE DATABASE {database._name} TEMPLATE {template}");
        return database;
    }

    internal static string ConnectionTo(string database, bool pooled = true)
    {
        var server = Environment.GetEnvironmentVariable("LANTERN_TEST_DATABASE")
            ?? throw new InvalidOperationException(
                "These tests need a PostgreSQL server: run them with ./lantern test."
            );
        return new NpgsqlConnectionStringBuilder(server)
        {
            Database = database,
            MaxPoolSize = 60,
            Pooling = pooled,
        }.ConnectionString;
    }

    public async ValueTask DisposeAsync()
    {
        await using (var own = new NpgsqlConnection(ConnectionString))
            NpgsqlConnection.ClearPool(own);
        await RunAsync($"DROP DATABASE IF EXISTS {_name} WITH (FORCE)");
    }

    private static async Task RunAsync(string sql)
    {
        await using var connection = new NpgsqlConnection(ConnectionTo("postgres", pooled: false));
        await connection.OpenAsync();
        await using var command = new NpgsqlCommand(sql, connection);
        await command.ExecuteNonQueryAsync();
    }
}
