using NodaTime;

namespace LooseLantern.Server.Features.Post;

/// <summary>How much mail goes to people who never asked us for any. The settings are those under Limits.</summary>
/// <param name="FirstDayMails">Mails to strangers an hour, in a workspace's first day.</param>
/// <param name="CompanionPause">How long whoever is brought along has no second mail of that.</param>
/// <param name="RepliesAnHour">Mails an hour that one reply address takes.</param>
public sealed record PostLimits(int FirstDayMails, Duration CompanionPause, int RepliesAnHour)
{
    /// <summary>How long a workspace is new.</summary>
    public static readonly Duration FirstDay = Duration.FromDays(1);

    public static readonly Duration Hour = Duration.FromHours(1);

    public static PostLimits Of(IConfiguration configuration)
    {
        var limits = configuration.GetSection("Limits");
        return new PostLimits(
            limits.GetValue("FirstDayMails", 60),
            Duration.FromMinutes(limits.GetValue("CompanionMinutes", 60)),
            limits.GetValue("RepliesAnHour", 20)
        );
    }
}
