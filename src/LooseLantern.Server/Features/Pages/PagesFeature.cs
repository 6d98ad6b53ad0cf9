using LooseLantern.Server.Features.Pages.Kept;

namespace LooseLantern.Server.Features.Pages;

/// <summary>What pages and their editions needs.</summary>
public static class PagesFeature
{
    public static IServiceCollection AddPages(this IServiceCollection services) =>
        services
            .AddScoped<PageEditing>()
            .AddScoped<PageLists>()
            .AddScoped<PageFilling>()
            .AddSingleton<KeptPages>()
            .AddScoped<PageReading>()
            .AddScoped<PageEditions>()
            .AddScoped<PageCopies>()
            .AddScoped<GuestNames>()
            .AddScoped<CalendarChoosing>();
}
