using Npgsql;

namespace LooseLantern.Server.Jobs;

/// <summary>A row that is due, and the workspace it is of.</summary>
public sealed record DueRow(Guid Id, Guid WorkspaceId);

/// <summary>The loop of what works off rows that fall due.</summary>
public static partial class DueWork
{
    /// <summary>Runs rounds until it is stopped, with a pause after each that found nothing to do or failed.</summary>
    /// <param name="round">Returns whether there was something to do.</param>
    public static async Task RunAsync(Func<CancellationToken, Task<bool>> round, TimeSpan pause, ILogger logger, CancellationToken stopping)
    {
        try
        {
            while (true)
            {
                var isBusy = false;
                try
                {
                    isBusy = await round(stopping);
                }
                catch (Exception e) when (e is not OperationCanceledException || !stopping.IsCancellationRequested)
                {
                    // Whatever it was, the rows are due still; the database may only be restarting.
                    if (e is not NpgsqlException) Failed(logger, e);
                }

                if (!isBusy) await Task.Delay(pause, stopping);
            }
        }
        catch (OperationCanceledException)
        {
            // Stopped.
        }
    }

    [LoggerMessage(Level = LogLevel.Error, Message = "Work that is due could not be done; it is tried again.")]
    private static partial void Failed(ILogger logger, Exception e);
}
