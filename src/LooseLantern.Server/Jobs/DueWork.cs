using LooseLantern.Server.Data;
using LooseLantern.Server.Tenancy;
using NodaTime;
using Npgsql;

namespace LooseLantern.Server.Jobs;

/// <summary>A row that is due, and the workspace it is of.</summary>
public sealed record DueRow(Guid Id, Guid WorkspaceId);

/// <summary>A kind of work that rows fall due for.</summary>
/// <param name="Pause">How long to wait where nothing is due.</param>
/// <param name="Lease">Longer than one piece of it may take: what a server took and never ended is taken by another
/// then.</param>
/// <param name="ClaimAsync">Takes rows that are due at an instant and that nobody has, until another instant, up to so
/// many (FOR UPDATE SKIP LOCKED).</param>
/// <param name="DoAsync">Does one, with the services of a request in its workspace.</param>
public sealed record DueKind(
    TimeSpan Pause,
    Duration Lease,
    Func<LanternDb, Instant, Instant, int, CancellationToken, Task<List<DueRow>>> ClaimAsync,
    Func<IServiceProvider, Guid, CancellationToken, Task> DoAsync
)
{
    /// <summary>
    /// Brings forward, at a start, what was put off: nothing waits for a pause that ended while nobody ran, or for a
    /// clock that was ahead.
    /// </summary>
    public Func<LanternDb, Instant, CancellationToken, Task> BringForwardAsync { get; init; } =
        (_, _, _) => Task.CompletedTask;
}

/// <summary>Works off rows that fall due. Several servers share the work: each takes what no other has.</summary>
public static partial class DueWork
{
    /// <summary>How many are done at once.</summary>
    public const int AtOnce = 8;

    /// <summary>
    /// Runs until it is stopped. Whatever takes long holds up nothing but its own place among those at once.
    /// </summary>
    public static async Task RunAsync(
        DueKind kind,
        IServiceScopeFactory scopes,
        IClock clock,
        ILogger logger,
        CancellationToken stopping
    )
    {
        var (running, isStarted) = (new List<Task>(), false);
        while (!stopping.IsCancellationRequested)
        {
            try
            {
                if (!isStarted)
                    await BringForwardAsync(kind, scopes, clock, stopping);
                isStarted = true;
                foreach (var row in await ClaimAsync(kind, AtOnce - running.Count, scopes, clock, stopping))
                    running.Add(DoAsync(kind, row, scopes, logger, stopping));
            }
            catch (Exception e) when (!stopping.IsCancellationRequested)
            {
                // The database may only be restarting; the rows are due still.
                if (e is not NpgsqlException)
                    Failed(logger, e);
            }
            catch (OperationCanceledException)
            {
                break;
            }

            // With all places taken only an end makes room; else what falls due meanwhile is looked for.
            if (running.Count == AtOnce)
                await Task.WhenAny(running);
            else
                await Task.Delay(kind.Pause, stopping).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
            running.RemoveAll(task => task.IsCompleted);
        }

        await Task.WhenAll(running);
    }

    private static async Task BringForwardAsync(
        DueKind kind,
        IServiceScopeFactory scopes,
        IClock clock,
        CancellationToken ct
    )
    {
        await using var scope = scopes.CreateAsyncScope();
        await kind.BringForwardAsync(
            scope.ServiceProvider.GetRequiredService<LanternDb>(),
            clock.GetCurrentInstant(),
            ct
        );
    }

    private static async Task<List<DueRow>> ClaimAsync(
        DueKind kind,
        int most,
        IServiceScopeFactory scopes,
        IClock clock,
        CancellationToken ct
    )
    {
        await using var scope = scopes.CreateAsyncScope();
        var now = clock.GetCurrentInstant();
        return await kind.ClaimAsync(
            scope.ServiceProvider.GetRequiredService<LanternDb>(),
            now,
            now + kind.Lease,
            most,
            ct
        );
    }

    /// <summary>
    /// Does one and never fails: what went wrong is told, and the row falls due again when its lease ends.
    /// </summary>
    private static async Task DoAsync(
        DueKind kind,
        DueRow row,
        IServiceScopeFactory scopes,
        ILogger logger,
        CancellationToken ct
    )
    {
        try
        {
            await using var scope = scopes.CreateAsyncScope();
            scope.ServiceProvider.GetRequiredService<Tenant>().Enter(row.WorkspaceId);
            await kind.DoAsync(scope.ServiceProvider, row.Id, ct);
        }
        catch (Exception e)
        {
            if (!ct.IsCancellationRequested && e is not NpgsqlException)
                Failed(logger, e);
        }
    }

    [LoggerMessage(Level = LogLevel.Error, Message = "Work that is due could not be done; it is tried again.")]
    private static partial void Failed(ILogger logger, Exception e);
}
