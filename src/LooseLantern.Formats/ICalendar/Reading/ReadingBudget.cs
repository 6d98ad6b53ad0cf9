namespace LooseLantern.Formats.ICalendar.Reading;

/// <summary>
/// What the reading of one calendar may take. Calendars come from strangers too (an invitation is enough), and a line
/// of text can ask for more times than anybody could count. Every event has a share of its own, so that those that ask
/// for too much can't starve the others; what they need beyond it they draw from one reserve.
/// </summary>
/// <param name="ct">Ends the reading, when whoever asked for it has left.</param>
/// <param name="mostEntries">Fewer than ever, where there are some already.</param>
/// <param name="time">What time is taken from; the machine's, unless set.</param>
public sealed class ReadingBudget(
    CancellationToken ct = default,
    int mostEntries = ReadingBudget.MostEntries,
    TimeProvider? time = null
)
{
    /// <summary>Steps (a date or time that was looked at) and entries that each event has for itself.</summary>
    public const int Share = 5_000;

    /// <summary>The most steps of all shares together, and the most entries of a calendar.</summary>
    public const int MostSteps = 2_000_000;
    public const int MostEntries = 100_000;

    /// <summary>The steps and entries of the reserve.</summary>
    public const int ReserveSteps = 500_000;
    public const int ReserveEntries = 60_000;

    /// <summary>The steps of all zones that a calendar explains; none of them takes any from an event.</summary>
    public const int ZoneSteps = 500_000;

    /// <summary>The most steps and entries of one event.</summary>
    public const int EventSteps = 200_000;

    // Each hour of three years and more.
    public const int EventEntries = 30_000;

    /// <summary>Far more than the steps take: for what they don't count.</summary>
    public static readonly TimeSpan MostTime = TimeSpan.FromSeconds(5);

    private const int LookAtClockEvery = 1024;

    private readonly TimeProvider _time = time ?? TimeProvider.System;

    private long _began;
    private TimeSpan _spent;

    private int _zoneSteps;
    private int _sharedSteps;
    private int _reserveSteps;
    private int _reserveEntries;
    private bool _isOutOfTime;

    public int Steps => _sharedSteps + _reserveSteps + _zoneSteps;

    public int Entries { get; private set; }

    internal EventBudget ForEvent()
    {
        Resume();
        return new EventBudget(this, isZone: false);
    }

    /// <summary>
    /// From here on time counts, until <see cref="Pause"/>: what lies between events is the reading of text.
    /// </summary>
    internal void Resume() => _began = _time.GetTimestamp();

    internal void Pause() => _spent += _time.GetElapsedTime(_began);

    internal EventBudget ForZone() => new(this, isZone: true);

    internal bool StepOfZone() => _zoneSteps < ZoneSteps && ++_zoneSteps > 0;

    /// <exception cref="OperationCanceledException">When whoever asked has left.</exception>
    internal bool Step(bool fromReserve)
    {
        // Where nothing more is kept, nothing more needs to be found.
        if (
            _isOutOfTime
            || Entries >= mostEntries
            || (fromReserve ? _reserveSteps == ReserveSteps : _sharedSteps == MostSteps)
        )
            return false;
        var count = fromReserve ? ++_reserveSteps : ++_sharedSteps;
        if (count % LookAtClockEvery == 0)
        {
            ct.ThrowIfCancellationRequested();
            _isOutOfTime = _spent + _time.GetElapsedTime(_began) > MostTime;
        }

        return true;
    }

    internal bool Entry(bool fromReserve)
    {
        if (Entries >= mostEntries || (fromReserve && _reserveEntries == ReserveEntries))
            return false;
        Entries++;
        if (fromReserve)
            _reserveEntries++;
        return true;
    }
}

/// <summary>What the reading of one event may take, or of one zone.</summary>
/// <param name="isZone">Whether it is of a zone that the calendar explains.</param>
internal sealed class EventBudget(ReadingBudget calendar, bool isZone)
{
    private int _steps;
    private int _entries;
    private bool _isOutOfSteps;
    private bool _isFull;

    /// <summary>Whether it came to an end before the event did.</summary>
    public bool IsOver => _isOutOfSteps || _isFull;

    /// <summary>One date or time more is looked at; false where that is too much.</summary>
    public bool Step()
    {
        _isOutOfSteps =
            _isOutOfSteps
            || ++_steps > ReadingBudget.EventSteps
            || !(isZone ? calendar.StepOfZone() : calendar.Step(_steps > ReadingBudget.Share));
        return !_isOutOfSteps;
    }

    /// <summary>One occurrence more is kept; false where that is too much.</summary>
    public bool Entry()
    {
        _isFull = _isFull || ++_entries > ReadingBudget.EventEntries || !calendar.Entry(_entries > ReadingBudget.Share);
        return !_isFull;
    }
}
