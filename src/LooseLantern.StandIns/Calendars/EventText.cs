using Ical.Net;
using Ical.Net.CalendarComponents;
using Ical.Net.DataTypes;
using Ical.Net.Serialization;
using NodaTime;

namespace LooseLantern.StandIns.Calendars;

/// <summary>Events as text and back (RFC 5545).</summary>
internal static class EventText
{
    /// <summary>The calendar of an object; null where it has no event that can be read.</summary>
    public static Calendar? Read(string text)
    {
        try
        {
            return Calendar.Load(text) is { Events.Count: > 0 } calendar ? calendar : null;
        }
        catch (Exception e)
            when (e
                    is ArgumentException
                        or FormatException
                        or InvalidOperationException
                        or System.Runtime.Serialization.SerializationException
            )
        {
            return null;
        }
    }

    public static string Write(string uid, string title, LocalDateTime start, LocalDateTime end, string zone)
    {
        var calendar = new Calendar { ProductId = "-//Calendar stand-in//EN", Version = "2.0" };
        calendar.Events.Add(
            new CalendarEvent
            {
                Uid = uid,
                Summary = title,
                DtStamp = Now(),
                DtStart = Time(start, zone),
                DtEnd = Time(end, zone),
            }
        );
        return new CalendarSerializer().SerializeToString(calendar)!;
    }

    /// <summary>The same object with its event at another time.</summary>
    public static string Moved(Calendar calendar, LocalDateTime start, LocalDateTime end, string zone)
    {
        var moved = calendar.Events[0]!;
        (moved.DtStart, moved.DtEnd, moved.DtStamp) = (Time(start, zone), Time(end, zone), Now());
        moved.Sequence++;
        return new CalendarSerializer().SerializeToString(calendar)!;
    }

    /// <summary>All of a calendar's events as one file.</summary>
    public static string Joined(string name, IEnumerable<StoredEvent> events)
    {
        var calendar = new Calendar { ProductId = "-//Calendar stand-in//EN", Version = "2.0" };
        calendar.AddProperty("NAME", char.ToUpperInvariant(name[0]) + name[1..].Replace('-', ' '));
        foreach (var each in events.Select(each => Read(each.Text)).OfType<Calendar>().SelectMany(each => each.Events))
            calendar.Events.Add(each);
        return new CalendarSerializer().SerializeToString(calendar)!;
    }

    private static CalDateTime Time(LocalDateTime local, string zone) =>
        new(local.Year, local.Month, local.Day, local.Hour, local.Minute, 0, zone);

    private static CalDateTime Now() => new(DateTime.UtcNow, hasTime: true);
}
