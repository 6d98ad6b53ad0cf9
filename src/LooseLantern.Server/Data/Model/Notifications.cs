using NodaTime;

namespace LooseLantern.Server.Data.Model;

/// <summary>When somebody hears of something.</summary>
public enum Notify
{
    AtOnce,

    /// <summary>With all else of the day, in one mail.</summary>
    Daily,

    Never,
}

/// <summary>What somebody of the team hears of by mail, and when.</summary>
/// <param name="Own">Of bookings they are a host of.</param>
/// <param name="ActedFor">Of bookings of hosts whom they act for.</param>
/// <param name="Others">Of all other bookings.</param>
/// <param name="Reminded">Whether they are reminded of their own appointments.</param>
/// <param name="QuietFrom">The beginning of their quiet hours, on their own clock; null where they have none.</param>
/// <param name="QuietUntil">The end of their quiet hours; before <paramref name="QuietFrom"/> for hours that go over
/// midnight.</param>
/// <param name="DailyAt">When the mail of the day goes out, on their own clock.</param>
public sealed record Notifications(
    Notify Own,
    Notify ActedFor,
    Notify Others,
    bool Reminded,
    LocalTime? QuietFrom,
    LocalTime? QuietUntil,
    LocalTime DailyAt
)
{
    /// <summary>Of bookings by a page or link that one made or sent.</summary>
    public Notify Made { get; init; } = Notify.AtOnce;

    public static readonly Notifications Usual = new(
        Notify.AtOnce,
        Notify.Never,
        Notify.Never,
        Reminded: true,
        QuietFrom: null,
        QuietUntil: null,
        DailyAt: new LocalTime(7, 0)
    );
}
