using System.Data.Common;
using Microsoft.EntityFrameworkCore.Diagnostics;
using NodaTime;
using Npgsql;

namespace LooseLantern.Server.Data;

/// <summary>
/// Tells each transaction of an act that can be taken back which act it is, so that triggers keep the rows it changes.
/// What is over for an hour goes on the way.
/// </summary>
public sealed class UndoTransactions : DbTransactionInterceptor
{
    private static readonly Duration KeptAfter = Duration.FromHours(1);

    private const string Begin = """
        WITH over AS (DELETE FROM undo_acts WHERE workspace_id = $2 AND until < $6),
            begun AS (INSERT INTO undo_acts (id, workspace_id, person_id, at, until, whole) VALUES ($1, $2, $3, $4, $5, '') ON CONFLICT DO NOTHING)
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
        foreach (
            object value in new object[]
            {
                act.Id,
                act.WorkspaceId,
                act.PersonId,
                act.At,
                act.Until,
                act.At - KeptAfter,
            }
        )
            command.Parameters.Add(new NpgsqlParameter { Value = value });
        await command.ExecuteNonQueryAsync(cancellationToken);
        return result;
    }
}
