using System.Globalization;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Storage;
using Npgsql;

namespace LooseLantern.Server.Data;

/// <summary>What is asked in a <see cref="RoundTrip"/>; there once that was made.</summary>
public sealed class Asked<T>
{
    private List<T>? _rows;

    /// <exception cref="InvalidOperationException">Before the trip was made.</exception>
    public IReadOnlyList<T> Rows => _rows ?? throw new InvalidOperationException("The round trip was not made yet.");

    /// <summary>The one row that is expected.</summary>
    public T Row => Rows[0];

    internal void Fill(List<T> rows) => _rows = rows;
}

/// <summary>
/// Several questions to the database in one round trip, one after another on the connection at hand, and within its
/// transaction where one is open. Statements are plain SQL with their values beside them: the filters of
/// <see cref="LanternDb"/> do not apply, so each names its workspace.
/// </summary>
public sealed class RoundTrip(LanternDb db)
{
    // A statement that answers no rows has no result to read.
    private readonly List<(NpgsqlBatchCommand Command, Func<NpgsqlDataReader, CancellationToken, Task>? Read)> _asked =
    [];

    /// <param name="sql">One statement; what is interpolated becomes its parameters, and must not be null.</param>
    /// <param name="row">Reads one row, in the order of the columns.</param>
    public Asked<T> Ask<T>(FormattableString sql, Func<NpgsqlDataReader, T> row)
    {
        var answer = new Asked<T>();
        _asked.Add((Command(sql), (reader, ct) => FillAsync(answer, reader, row, ct)));
        return answer;
    }

    /// <summary>A statement that changes rows and answers none.</summary>
    public void Do(FormattableString sql) => _asked.Add((Command(sql), null));

    /// <summary>The same, with its values by name, for what several statements ask alike.</summary>
    /// <param name="values">By their names in the statement, which follow an @.</param>
    public void Do(string sql, IReadOnlyDictionary<string, object> values) => _asked.Add((Command(sql, values), null));

    /// <inheritdoc cref="Do(string, IReadOnlyDictionary{string, object})"/>
    public Asked<T> Ask<T>(string sql, IReadOnlyDictionary<string, object> values, Func<NpgsqlDataReader, T> row)
    {
        var answer = new Asked<T>();
        _asked.Add((Command(sql, values), (reader, ct) => FillAsync(answer, reader, row, ct)));
        return answer;
    }

    /// <summary>A new row, all of whose values are known; it is not tracked.</summary>
    /// <exception cref="InvalidOperationException">The row is of another workspace than the one at hand.</exception>
    public void Insert(IBelongsToWorkspace row) => _asked.Add((RowInserts.Command(db, row), null));

    /// <summary>
    /// Commits the transaction at hand with what was asked before, as the last: where anything of it fails nothing of
    /// the transaction is kept. Whoever began it only disposes of it then.
    /// </summary>
    public void Commit() => Do($"COMMIT");

    public async Task RunAsync(CancellationToken ct)
    {
        if (_asked.Count == 0)
            return;
        await db.Database.OpenConnectionAsync(ct);
        try
        {
            await using var batch = new NpgsqlBatch(
                (NpgsqlConnection)db.Database.GetDbConnection(),
                (NpgsqlTransaction?)db.Database.CurrentTransaction?.GetDbTransaction()
            );
            foreach (var (command, _) in _asked)
                batch.BatchCommands.Add(command);
            await using var reader = await batch.ExecuteReaderAsync(ct);
            foreach (
                var read in _asked.Select(asked => asked.Read).OfType<Func<NpgsqlDataReader, CancellationToken, Task>>()
            )
            {
                await read(reader, ct);
                await reader.NextResultAsync(ct);
            }
        }
        finally
        {
            await db.Database.CloseConnectionAsync();
            _asked.Clear();
        }
    }

    private static async Task FillAsync<T>(
        Asked<T> answer,
        NpgsqlDataReader reader,
        Func<NpgsqlDataReader, T> row,
        CancellationToken ct
    )
    {
        var rows = new List<T>();
        while (await reader.ReadAsync(ct))
            rows.Add(row(reader));
        answer.Fill(rows);
    }

    private static NpgsqlBatchCommand Command(string sql, IReadOnlyDictionary<string, object> values)
    {
        var command = new NpgsqlBatchCommand(sql);
        foreach (var (name, value) in values)
            command.Parameters.Add(new NpgsqlParameter(name, value));
        return command;
    }

    private static NpgsqlBatchCommand Command(FormattableString sql)
    {
        var names = new object[sql.ArgumentCount];
        for (var i = 0; i < names.Length; i++)
            names[i] = "$" + (i + 1).ToString(CultureInfo.InvariantCulture);
        var command = new NpgsqlBatchCommand(string.Format(CultureInfo.InvariantCulture, sql.Format, names));
        foreach (var value in sql.GetArguments())
            command.Parameters.Add(new NpgsqlParameter { Value = value });
        return command;
    }
}
