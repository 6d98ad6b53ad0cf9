using NodaTime.Text;

namespace LooseLantern.StandIns.Calendars;

/// <summary>
/// A small calendar server that speaks CalDAV (RFC 4791) and has a screen of its own, for trying things out. It guards
/// nothing.
/// </summary>
public static class CalendarStandIn
{
    /// <summary>Every account's password.</summary>
    public const string Password = "lantern-demo";

    /// <param name="folder">Keeps the calendars.</param>
    /// <param name="demo">A date (2026-12-07) around which the demo's calendars are made where there are none yet;
    /// empty for none.</param>
    public static CalendarStore Open(string folder, string? demo)
    {
        var store = new CalendarStore(folder);
        if (demo is { Length: > 0 } && store.IsEmpty)
            DemoCalendars.Fill(store, LocalDatePattern.Iso.Parse(demo).Value);
        return store;
    }

    public static void Map(WebApplication app, CalendarStore store)
    {
        CalDavEndpoints.Map(app, store);
        CalendarScreen.Map(app, store);
    }
}
