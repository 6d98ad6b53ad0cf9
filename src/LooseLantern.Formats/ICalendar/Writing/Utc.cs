using Ical.Net.DataTypes;
using NodaTime;

namespace LooseLantern.Formats.ICalendar.Writing;

internal static class Utc
{
    public static CalDateTime Of(Instant instant) => new(instant.ToDateTimeUtc(), hasTime: true);
}
