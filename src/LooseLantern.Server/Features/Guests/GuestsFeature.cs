using LooseLantern.Server.Features.Guests.First;

namespace LooseLantern.Server.Features.Guests;

/// <summary>What what guests see needs.</summary>
public static class GuestsFeature
{
    public static IServiceCollection AddGuests(this IServiceCollection services) =>
        services
            .AddScoped<GuestPageFinding>()
            .AddScoped<GuestPageViews>()
            .AddSingleton<KeptOpenings>()
            .AddScoped<GuestOpenings>()
            .AddScoped<GuestDeskFinding>()
            .AddScoped<PersonalAddresses>()
            .AddSingleton<BusyNetworks>()
            .AddScoped<EmailProof>()
            .AddScoped<PrivateBookingFinding>()
            .AddScoped<GuestLinkFinding>()
            .AddScoped<GuestLinkViews>()
            .AddScoped<GuestLinkOpenings>()
            .AddScoped<GuestDeskViews>()
            .AddScoped<FirstAnswers>()
            .AddSingleton<FirstAnswerHtml>()
            .AddScoped<AnswerFinding>();
}
