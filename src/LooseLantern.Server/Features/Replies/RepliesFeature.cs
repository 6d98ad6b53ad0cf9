using LooseLantern.Server.Hosting;

namespace LooseLantern.Server.Features.Replies;

/// <summary>What answers to invitations needs, and what it does beside requests.</summary>
public static class RepliesFeature
{
    public static IServiceCollection AddReplies(this IServiceCollection services)
    {
        services.AddScoped<ReplyTaking>().AddScoped<LetterAnswers>();
        // What only describes the program serves nobody.
        return DesignTime.IsBuilding ? services : services.AddHostedService<ReplyListener>();
    }
}
