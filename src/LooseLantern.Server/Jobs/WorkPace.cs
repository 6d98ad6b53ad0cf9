using System.Diagnostics;

namespace LooseLantern.Server.Jobs;

/// <summary>
/// Has work beside requests give way to people who wait: while requests are being answered its pieces begin one after
/// another with pauses between, so that most of the machine is theirs. Nobody waits for it long all the same: whoever
/// falls behind asks no more (<see cref="DueWork"/>).
/// </summary>
public sealed class WorkPace
{
    /// <summary>Between the beginnings of two pieces while requests are answered.</summary>
    private static readonly TimeSpan Apart = TimeSpan.FromMilliseconds(60);

    private static readonly TimeSpan LooksAgain = TimeSpan.FromMilliseconds(5);

    private readonly SemaphoreSlim _next = new(1);
    private int _answering;
    private long _began;

    /// <summary>Middleware that counts the requests that are being answered; streams of news don't count.</summary>
    public static async Task Count(HttpContext context, RequestDelegate next)
    {
        var path = context.Request.Path;
        if (!path.StartsWithSegments("/api") || path.Value!.EndsWith("/changes", StringComparison.Ordinal))
        {
            await next(context);
            return;
        }

        using (context.RequestServices.GetRequiredService<WorkPace>().Answering())
            await next(context);
    }

    /// <summary>Somebody waits for an answer until this is disposed.</summary>
    public IDisposable Answering()
    {
        Interlocked.Increment(ref _answering);
        return new Waiting(this);
    }

    /// <summary>Until the next piece may begin.</summary>
    public async Task TakeTurnAsync(CancellationToken ct)
    {
        if (Volatile.Read(ref _answering) == 0)
            return;
        await _next.WaitAsync(ct);
        try
        {
            while (Volatile.Read(ref _answering) > 0 && Stopwatch.GetElapsedTime(_began) < Apart)
                await Task.Delay(LooksAgain, ct);
            _began = Stopwatch.GetTimestamp();
        }
        finally
        {
            _next.Release();
        }
    }

    private sealed class Waiting(WorkPace pace) : IDisposable
    {
        private int _isOver;

        public void Dispose()
        {
            if (Interlocked.Exchange(ref _isOver, 1) == 0)
                Interlocked.Decrement(ref pace._answering);
        }
    }
}
