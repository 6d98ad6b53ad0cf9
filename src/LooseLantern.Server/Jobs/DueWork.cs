using System.Diagnostics;
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
/// many (FOR NO KEY UPDATE SKIP LOCKED).</param>
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

    /// <summary>
    /// Whether a stop waits until what was taken is done, and what fails is tried again at once: for what takes no
    /// time, and is in one transaction. Else it falls due when its lease ends.
    /// </summary>
    public bool EndsWhatItTook { get; init; }
}

/// <summary>Works off rows that fall due. Several servers share the work: each takes what no other has.</summary>
public static partial class DueWork
{
    /// <summary>How many are done at once.</summary>
    public const int AtOnce = 8;

    /// <summary>For how long more may be due than is done before no pauses are made for requests.</summary>
    private static readonly TimeSpan MostPausing = TimeSpan.FromSeconds(20);

    private static readonly TimeSpan Together = TimeSpan.FromMilliseconds(15);

    /// <summary>Before what failed is tried again at once, where its kind is.</summary>
    private static readonly TimeSpan[] TriesAgain = [TimeSpan.FromMilliseconds(200), TimeSpan.FromSeconds(2)];

    /// <summary>
    /// Runs until it is stopped. Whatever takes long holds up nothing but its own place among those at once.
    /// </summary>
    /// <param name="wake">Says that something fell due; null where it is only looked for.</param>
    public static async Task RunAsync(
        DueKind kind,
        IServiceScopeFactory scopes,
        IClock clock,
        ILogger logger,
        CancellationToken stopping,
        WorkSignal? wake = null
    )
    {
        wake ??= new WorkSignal();
        var (running, isStarted, behindSince) = (new List<Task>(), false, (long?)null);
        while (!stopping.IsCancellationRequested)
        {
            try
            {
                if (!isStarted)
                    await BringForwardAsync(kind, scopes, clock, stopping);
                isStarted = true;
                var (places, isBehind) = (AtOnce - running.Count, IsBehind(behindSince));
                // What is taken while a stop begins would be nobody's.
                var rows = await ClaimAsync(
                    kind,
                    places,
                    scopes,
                    clock,
                    kind.EndsWhatItTook ? CancellationToken.None : stopping
                );
                // With every place taken more may be due; that is so until one stays free.
                behindSince = rows.Count == places ? behindSince ?? Stopwatch.GetTimestamp() : null;
                foreach (var row in rows)
                    running.Add(DoAsync(kind, row, isBehind, scopes, logger, stopping));
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

            // With all places taken only an end makes room; others that end with it are made up for in one question.
            // Else what falls due meanwhile is looked for.
            if (running.Count == AtOnce)
            {
                await Task.WhenAny(running);
                await Task.WhenAny(Task.WhenAll(running), Task.Delay(Together, CancellationToken.None));
            }
            else
                await wake.WaitAsync(kind.Pause, stopping).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
            running.RemoveAll(task => task.IsCompleted);
        }

        await Task.WhenAll(running);
    }

    private static bool IsBehind(long? since) => since is { } at && Stopwatch.GetElapsedTime(at) > MostPausing;

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
        bool isBehind,
        IServiceScopeFactory scopes,
        ILogger logger,
        CancellationToken stopping
    )
    {
        var ct = kind.EndsWhatItTook ? CancellationToken.None : stopping;
        TimeSpan[] pauses = kind.EndsWhatItTook ? TriesAgain : [];
        for (var tries = 0; ; tries++)
        {
            try
            {
                await using var scope = scopes.CreateAsyncScope();
                using var turn = stopping.IsCancellationRequested
                    ? null
                    : await scope.ServiceProvider.GetRequiredService<WorkPace>().TakeTurnAsync(ct, isBehind);
                scope.ServiceProvider.GetRequiredService<Tenant>().Enter(row.WorkspaceId);
                await kind.DoAsync(scope.ServiceProvider, row.Id, ct);
                return;
            }
            catch (Exception e)
            {
                if (!ct.IsCancellationRequested && e is not NpgsqlException)
                    Failed(logger, e);
                if (tries == pauses.Length || stopping.IsCancellationRequested)
                    return;
                await Task.Delay(pauses[tries], CancellationToken.None);
            }
        }
    }

    [LoggerMessage(Level = LogLevel.Error, Message = "Work that is due could not be done; it is tried again.")]
    private static partial void Failed(ILogger logger, Exception e);
}
