using Npgsql;

namespace LooseLantern.Testing;

/// <summary>A database of its own in the PostgreSQL that ./lantern test has started; dropped when done.</summary>
public sealed class TestDatabase : IAsyncDisposable
{
    private readonly string _server;
    private readonly string _name = $"test_{Guid.NewGuid():N}";

    private TestDatabase(string server) => _server = server;

    public string ConnectionString =>
        new NpgsqlConnectionStringBuilder(_server) { Database = _name, MaxPoolSize = 60 }.ConnectionString;

    public static async Task<TestDatabase> CreateAsync()
    {
        var server = Environment.GetEnvironmentVariable("LANTERN_TEST_DATABASE")
            ?? throw new InvalidOperationException(
                "These tests need a PostgreSQL server: run them with ./lantern test."
            );
        var database = new TestDatabase(server);
        await database.RunAsync($"CREATE DATABASE {database._name}");
        return database;
    }

    public async ValueTask DisposeAsync()
    {
        NpgsqlConnection.ClearAllPools();
        await RunAsync($"DROP DATABASE IF EXISTS {_name} WITH (FORCE)");
    }

    private async Task RunAsync(string sql)
    {
        await using var connection = new NpgsqlConnection(
            new NpgsqlConnectionStringBuilder(_server) { Database = "postgres", Pooling = false }.ConnectionString
        );
        await connection.OpenAsync();
        await using var command = new NpgsqlCommand(sql, connection);
        await command.ExecuteNonQueryAsync();
    }
}
