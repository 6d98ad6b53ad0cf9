namespace LooseLantern.Server.Features.Reserving;

/// <summary>
/// Has those who want times of one page take turns before they take a connection to the database, so that a crowd at
/// one page leaves room for guests of the others. It only keeps order: what holds is the lock of the page.
/// </summary>
public sealed class PageQueue
{
    private readonly Dictionary<Guid, Line> _lines = [];

    private sealed class Line
    {
        public SemaphoreSlim Turn { get; } = new(1);

        public int Waiting { get; set; }
    }

    /// <summary>Waits for one's turn; it ends when what is returned is disposed.</summary>
    public async Task<IDisposable> TakeTurnAsync(Guid pageId, CancellationToken ct)
    {
        Line? line;
        lock (_lines)
        {
            if (!_lines.TryGetValue(pageId, out line))
                _lines[pageId] = line = new Line();
            line.Waiting++;
        }

        try
        {
            await line.Turn.WaitAsync(ct);
        }
        catch (OperationCanceledException)
        {
            Leave(pageId, line);
            throw;
        }

        return new Turn(this, pageId, line);
    }

    private void Leave(Guid pageId, Line line)
    {
        lock (_lines)
        {
            // Taken out with the last, or there would be one for every page that ever was.
            if (--line.Waiting == 0)
                _lines.Remove(pageId);
        }
    }

    private sealed class Turn(PageQueue queue, Guid pageId, Line line) : IDisposable
    {
        private int _isOver;

        public void Dispose()
        {
            if (Interlocked.Exchange(ref _isOver, 1) != 0)
                return;
            line.Turn.Release();
            queue.Leave(pageId, line);
        }
    }
}
