using NodaTime.Text;

namespace LooseLantern.StandIns.Calendars;

/// <summary>A small calendar server that speaks CalDAV (RFC 4791) and has a screen of its own, for trying things out. It guards nothing.</summary>
public static class CalendarStandIn
{
    /// <summary>Every account's password.</summary>
    public const string Password = "lantern-demo";

    /// <param name="args">Settings: Data, the folder that keeps the calendars; Demo, a date (2026-12-07) around which the demo's calendars are made where there are none yet.</param>
    public static WebApplication Create(string[] args)
    {
        var builder = WebApplication.CreateBuilder(new WebApplicationOptions { Args = args, ContentRootPath = AppContext.BaseDirectory });
        builder.Logging.SetMinimumLevel(LogLevel.Warning);
        var store = new CalendarStore(builder.Configuration["Data"] ?? throw new InvalidOperationException("Say which folder keeps the calendars: --Data FOLDER"));
        if (builder.Configuration["Demo"] is { Length: > 0 } demo && store.IsEmpty) DemoCalendars.Fill(store, LocalDatePattern.Iso.Parse(demo).Value);
        builder.Services.AddSingleton(store);

        var app = builder.Build();
        CalDavEndpoints.Map(app, store);
        CalendarScreen.Map(app, store);
        return app;
    }
}
