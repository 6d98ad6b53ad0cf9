using LooseLantern.Server.Features.Calendars.BuiltIn;
using LooseLantern.Server.Features.Calendars.Feeds;
using LooseLantern.Server.Features.Calendars.Joining;
using LooseLantern.Server.Features.Calendars.Looking;
using LooseLantern.Server.Features.Calendars.Writing;
using LooseLantern.Server.Hosting;

namespace LooseLantern.Server.Features.Calendars;

/// <summary>What calendars: joining, looking, writing, feeds needs, and what it does beside requests.</summary>
public static class CalendarsFeature
{
    public static IServiceCollection AddCalendars(this IServiceCollection services)
    {
        services
            .AddScoped<BusyTimes>()
            .AddScoped<BookingFeeds>()
            .AddSingleton<CalendarSecrets>()
            .AddSingleton<IcsAddress>()
            .AddScoped<CalendarUnrolling>()
            .AddScoped<CalendarStoring>()
            .AddScoped<OutsideNoticing>()
            .AddScoped<CalendarViews>()
            .AddScoped<CalendarOwning>()
            .AddScoped<CalendarJoining>()
            .AddScoped<CalendarEditing>()
            .AddScoped<CalendarLooking>()
            .AddScoped<OwnEntries>()
            .AddScoped<SessionTexts>()
            .AddScoped<EventWishes>()
            .AddScoped<EventWriting>()
            .AddScoped<OutsideAnswers>();
        // What only describes the program serves nobody.
        return DesignTime.IsBuilding
            ? services
            : services.AddHostedService<CalendarWatch>().AddHostedService<EventWriter>();
    }
}
