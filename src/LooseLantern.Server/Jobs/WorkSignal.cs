namespace LooseLantern.Server.Jobs;

/// <summary>Says that work may have fallen due, so that it is not only found at the next look.</summary>
public sealed class WorkSignal
{
    // One at the most: work that is looked for once finds all of it.
    private readonly SemaphoreSlim _heard = new(0, 1);

    public void Wake()
    {
        try
        {
            _heard.Release();
        }
        catch (SemaphoreFullException)
        {
            // It is awake, or will be in a moment.
        }
    }

    /// <summary>Until it is woken, or so long.</summary>
    public Task WaitAsync(TimeSpan most, CancellationToken ct) => _heard.WaitAsync(most, ct);
}

/// <summary>Who is woken: of each kind of work that somebody waits for, one in this process.</summary>
public sealed class WorkSignals
{
    /// <summary>What is to be told was committed.</summary>
    public WorkSignal Tellings { get; } = new();

    /// <summary>Messages were written that are due at once.</summary>
    public WorkSignal Messages { get; } = new();
}
