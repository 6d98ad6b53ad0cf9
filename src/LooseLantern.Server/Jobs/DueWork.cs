using LooseLantern.Server.Data;
using LooseLantern.Server.Tenancy;
using NodaTime;
using Npgsql;

namespace LooseLantern.Server.Jobs;

/// <summary>A row that is due, and the workspace it is of.</summary>
public sealed record DueRow(Guid Id, Guid WorkspaceId);

/// <summary>A kind of work that rows fall due for.</summary>
/// <param name="Pause">How long to wait where nothing is due.</param>
/// <param name="Lease">Longer than one piece of it may take: what a server took and never ended is taken by another then.</param>
/// <param name="ClaimAsync">Takes some rows that are due at an instant and that nobody has, until another instant (FOR UPDATE SKIP LOCKED).</param>
/// <param name="DoAsync">Does one, with the services of a request in its workspace.</param>
public sealed record DueKind(
    TimeSpan Pause,
    Duration Lease,
    Func<LanternDb, Instant, Instant, CancellationToken, Task<List<DueRow>>> ClaimAsync,
    Func<IServiceProvider, Guid, CancellationToken, Task> DoAsync)
{
    /// <summary>Brings forward, at a start, what was put off: nothing waits for a pause that ended while nobody ran, or for a clock that was ahead.</summary>
    public Func<LanternDb, Instant, CancellationToken, Task> BringForwardAsync { get; init; } = (_, _, _) => Task.CompletedTask;
}

/// <summary>Works off rows that fall due. Several servers share the work: each takes what no other has.</summary>
public static partial class DueWork
{
    /// <summary>How many are done at once.</summary>
    public const int AtOnce = 4;

    /// <summary>Runs until it is stopped.</summary>
    public static async Task RunAsync(DueKind kind, IServiceScopeFactory scopes, IClock clock, ILogger logger, CancellationToken stopping)
    {
        try
        {
            for (var isStarted = false; ;)
            {
                var isBusy = false;
                try
                {
                    if (!isStarted) await BringForwardAsync(kind, scopes, clock, stopping);
                    isStarted = true;
                    isBusy = await RoundAsync(kind, scopes, clock, stopping);
                }
                catch (Exception e) when (e is not OperationCanceledException || !stopping.IsCancellationRequested)
                {
                    // Whatever it was, the rows are due still; the database may only be restarting.
                    if (e is not NpgsqlException) Failed(logger, e);
                }

                if (!isBusy) await Task.Delay(kind.Pause, stopping);
            }
        }
        catch (OperationCanceledException)
        {
            // Stopped.
        }
    }

    private static async Task BringForwardAsync(DueKind kind, IServiceScopeFactory scopes, IClock clock, CancellationToken ct)
    {
        await using var scope = scopes.CreateAsyncScope();
        await kind.BringForwardAsync(scope.ServiceProvider.GetRequiredService<LanternDb>(), clock.GetCurrentInstant(), ct);
    }

    private static async Task<bool> RoundAsync(DueKind kind, IServiceScopeFactory scopes, IClock clock, CancellationToken ct)
    {
        List<DueRow> due;
        await using (var scope = scopes.CreateAsyncScope())
        {
            var now = clock.GetCurrentInstant();
            due = await kind.ClaimAsync(scope.ServiceProvider.GetRequiredService<LanternDb>(), now, now + kind.Lease, ct);
        }

        await Task.WhenAll(due.Select(async row =>
        {
            await using var scope = scopes.CreateAsyncScope();
            scope.ServiceProvider.GetRequiredService<Tenant>().Enter(row.WorkspaceId);
            await kind.DoAsync(scope.ServiceProvider, row.Id, ct);
        }));
        return due.Count > 0;
    }

    [LoggerMessage(Level = LogLevel.Error, Message = "Work that is due could not be done; it is tried again.")]
    private static partial void Failed(ILogger logger, Exception e);
}
