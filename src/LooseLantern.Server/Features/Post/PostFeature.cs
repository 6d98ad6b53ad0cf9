using LooseLantern.Server.Hosting;

namespace LooseLantern.Server.Features.Post;

/// <summary>What post needs, and what it does beside requests.</summary>
public static class PostFeature
{
    public static IServiceCollection AddPost(this IServiceCollection services, IConfiguration configuration)
    {
        services
            .AddSingleton(PostSettings.Of(configuration))
            .AddSingleton<ReplyAddresses>()
            .AddSingleton(PostLimits.Of(configuration))
            .AddSingleton<MailReach>()
            .AddSingleton<MailServer>()
            .AddScoped<PostWords>()
            .AddScoped<Invitations>()
            .AddScoped<NotifiedPeople>()
            .AddScoped<ReminderWriting>()
            .AddScoped<PersonPost>()
            .AddScoped<PostWriting>()
            .AddScoped<Tellings>()
            .AddScoped<PostLists>()
            .AddScoped<SessionWords>()
            .AddScoped<InsertsInPost>()
            .AddScoped<LettingOut>()
            .AddScoped<PostSending>()
            .AddScoped<DailyPost>();
        // What only describes the program serves nobody.
        return DesignTime.IsBuilding
            ? services
            : services.AddHostedService<TellingWriter>().AddHostedService<PostSender>();
    }
}
