using LooseLantern.Server.Hosting;

namespace LooseLantern.Server.Features.Links;

/// <summary>What availability links needs, and what it does beside requests.</summary>
public static class LinksFeature
{
    public static IServiceCollection AddLinks(this IServiceCollection services)
    {
        services
            .AddScoped<LinkEditing>()
            .AddScoped<LinkMaking>()
            .AddScoped<LinkGoing>()
            .AddScoped<LinkFilling>()
            .AddScoped<LinkViews>()
            .AddScoped<LinkTexts>()
            .AddScoped<LinkPost>()
            .AddScoped<LinkDraftMail>()
            .AddScoped<LinkSending>()
            .AddScoped<LinkBooking>()
            .AddScoped<LinkBeginnings>()
            .AddScoped<EventPeopleFinding>()
            .AddScoped<LinkReckoning>()
            .AddScoped<LinkWatching>()
            .AddSingleton<LinkAddresses>();
        // What only describes the program serves nobody.
        return DesignTime.IsBuilding ? services : services.AddHostedService<LinkWatch>();
    }
}
