namespace LooseLantern.Server.Features.Openings;

/// <summary>The ends of what a page may be set to.</summary>
public static class PageLimits
{
    public const int MostDurationMinutes = 24 * 60;
    public const int MostDurations = 6;
    public const int MostBufferMinutes = 24 * 60;
    public const int MostNoticeMinutes = 90 * 24 * 60;
    public const int MostAheadDays = 365;
    public const int MostStepMinutes = 24 * 60;
    public const int MostSeats = 12;
    public const int MostHostsOfASeat = 200;
    public const int MostCap = 1000;
    public const int MostPlaces = 1000;

    /// <summary>The longest run of days one request for openings may ask for.</summary>
    public const int MostDaysAsked = 366;
}
