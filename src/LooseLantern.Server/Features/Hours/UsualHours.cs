namespace LooseLantern.Server.Features.Hours;

/// <summary>The hours from which somebody new starts.</summary>
public static class UsualHours
{
    /// <summary>Monday to Friday, nine to five with a break at noon.</summary>
    public static HoursDocument Weekdays(string zone)
    {
        OpenTimeDocument[] day = [new("09:00", "12:00"), new("13:00", "17:00")];
        return new HoursDocument(zone, new WeekDocument(day, day, day, day, day, [], []), []);
    }
}
