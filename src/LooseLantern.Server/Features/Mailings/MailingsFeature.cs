namespace LooseLantern.Server.Features.Mailings;

/// <summary>What offers to several guests need.</summary>
public static class MailingsFeature
{
    public static IServiceCollection AddMailings(this IServiceCollection services) =>
        services
            .AddScoped<MailingGuestFinding>()
            .AddScoped<MailingWriting>()
            .AddScoped<MailingSending>()
            .AddScoped<MailingViews>()
            .AddScoped<MailingAskingAgain>()
            .AddScoped<MailingOffered>()
            .AddScoped<MailingAgainPost>();
}
