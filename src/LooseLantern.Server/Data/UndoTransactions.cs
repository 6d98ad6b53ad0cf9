using System.Data.Common;
using Microsoft.EntityFrameworkCore.Diagnostics;
using Npgsql;

namespace LooseLantern.Server.Data;

/// <summary>
/// Tells each transaction of an act that can be taken back which act it is, so that triggers keep the rows it changes.
/// </summary>
public sealed class UndoTransactions : DbTransactionInterceptor
{
    private const string Begin = """
        WITH begun AS (INSERT INTO undo_acts (id, workspace_id, person_id, at, until, whole) VALUES ($1, $2, $3, $4, $5, '') ON CONFLICT DO NOTHING)
        SELECT set_config('lantern.act', $1::text, true), set_config('lantern.act_workspace', $2::text, true)
        """;

    public override async ValueTask<DbTransaction> TransactionStartedAsync(
        DbConnection connection,
        TransactionEndEventData eventData,
        DbTransaction result,
        CancellationToken cancellationToken = default
    )
    {
        if (eventData.Context is not LanternDb { Act: { } act })
            return result;
        await using var command = new NpgsqlCommand(Begin, (NpgsqlConnection)connection, (NpgsqlTransaction)result);
        foreach (object value in new object[] { act.Id, act.WorkspaceId, act.PersonId, act.At, act.Until })
            command.Parameters.Add(new NpgsqlParameter { Value = value });
        await command.ExecuteNonQueryAsync(cancellationToken);
        return result;
    }
}
