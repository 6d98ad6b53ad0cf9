namespace LooseLantern.Server.Features.Bookings;

/// <summary>What bookings as the team sees them needs.</summary>
public static class BookingsFeature
{
    public static IServiceCollection AddBookings(this IServiceCollection services) =>
        services
            .AddSingleton<PrivateLinks>()
            .AddScoped<BookingRows>()
            .AddScoped<BookingFinding>()
            .AddScoped<BookingLists>()
            .AddScoped<BookingSavedViews>()
            .AddScoped<BookingExport>()
            .AddScoped<BookingDetails>()
            .AddScoped<SessionDetails>()
            .AddScoped<SessionsToChange>()
            .AddScoped<BookingNotes>()
            .AddScoped<OutcomeNoting>()
            .AddScoped<BookingsToChange>();
}
