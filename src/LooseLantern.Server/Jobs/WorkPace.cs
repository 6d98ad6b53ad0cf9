using System.Diagnostics;

namespace LooseLantern.Server.Jobs;

/// <summary>
/// Has work beside requests give way to people who wait: while requests are being answered its pieces begin one after
/// another with pauses between, so that most of the machine is theirs; and for as long as somebody may ask again soon
/// few are done at once, since whoever asks then waits for those that have begun. Nobody waits for the work long all
/// the same: whoever falls behind makes no pauses (<see cref="DueWork"/>).
/// </summary>
public sealed class WorkPace
{
    /// <summary>Between the beginnings of two pieces while requests are answered.</summary>
    private static readonly TimeSpan Apart = TimeSpan.FromMilliseconds(60);

    /// <summary>For how long after an answer the next request is looked out for.</summary>
    private static readonly TimeSpan Soon = TimeSpan.FromMilliseconds(500);

    /// <summary>How many are done at once then: as many as take the machine no more than whole.</summary>
    private static readonly int Few = Math.Max(2, Environment.ProcessorCount);

    /// <summary>What takes longer waits for somebody outside, and takes nothing from anybody here.</summary>
    private static readonly TimeSpan MostCounted = TimeSpan.FromMilliseconds(100);

    private static readonly TimeSpan LooksAgain = TimeSpan.FromMilliseconds(5);

    private readonly SemaphoreSlim _next = new(1);
    private readonly SemaphoreSlim _places = new(Few);
    private int _answering;
    private long _answered;
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
    /// <param name="isBehind">Whether so much waits that no pauses are made.</param>
    /// <returns>To be disposed of when it is done; null where it is nobody's business.</returns>
    public async Task<IDisposable?> TakeTurnAsync(CancellationToken ct, bool isBehind = false)
    {
        if (!MayBeAskedSoon())
            return null;
        await _places.WaitAsync(ct);
        try
        {
            if (!isBehind)
                await ApartAsync(ct);
        }
        catch
        {
            _places.Release();
            throw;
        }

        return new Place(_places);
    }

    private bool MayBeAskedSoon() =>
        Volatile.Read(ref _answering) > 0
        || (Volatile.Read(ref _answered) is var at and > 0 && Stopwatch.GetElapsedTime(at) < Soon);

    private async Task ApartAsync(CancellationToken ct)
    {
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

    /// <summary>A piece that is being done, until it is, or until it takes so long that it only waits.</summary>
    private sealed class Place : IDisposable
    {
        private readonly SemaphoreSlim _places;
        private readonly Timer _timer;
        private int _isOver;

        public Place(SemaphoreSlim places)
        {
            _places = places;
            _timer = new Timer(_ => GiveBack(), null, MostCounted, Timeout.InfiniteTimeSpan);
        }

        public void Dispose()
        {
            _timer.Dispose();
            GiveBack();
        }

        private void GiveBack()
        {
            if (Interlocked.Exchange(ref _isOver, 1) == 0)
                _places.Release();
        }
    }

    private sealed class Waiting(WorkPace pace) : IDisposable
    {
        private int _isOver;

        public void Dispose()
        {
            if (Interlocked.Exchange(ref _isOver, 1) != 0)
                return;
            Volatile.Write(ref pace._answered, Stopwatch.GetTimestamp());
            Interlocked.Decrement(ref pace._answering);
        }
    }
}
