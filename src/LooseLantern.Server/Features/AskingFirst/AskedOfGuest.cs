using LooseLantern.Core;
using LooseLantern.Core.Links;
using LooseLantern.Server.Data.Model;
using NodaTime;

namespace LooseLantern.Server.Features.AskingFirst;

/// <summary>What a guest is asked who is asked first: when, of the dates that are offered, it suits them.</summary>
/// <param name="From">Local date in the zone of the link's page.</param>
/// <param name="Until">Local date in the same zone.</param>
/// <param name="Earliest">When the first of these dates opens on the clock of that zone: no time before it
/// fits.</param>
/// <param name="Latest">When the last one closes.</param>
/// <param name="FromMinute">Of each day, in minutes after midnight in that zone.</param>
/// <param name="ToMinute">Likewise.</param>
/// <param name="BooksByItself">Whether the best that fits is booked at once.</param>
/// <param name="Sent">How often times were sent already.</param>
public sealed record AskedOfGuest(
    LocalDate From,
    LocalDate Until,
    Instant Earliest,
    Instant Latest,
    int FromMinute,
    int ToMinute,
    bool BooksByItself,
    int Sent
)
{
    /// <returns>Null for a link that shows times.</returns>
    public static AskedOfGuest? Of(AvailabilityLink link, Instant now)
    {
        var offer = link.Page!.Offer!.Times;
        if (offer.By != OfferBy.Asked)
            return null;
        var (from, offered) = (FirstDate(link, now), Offered(link, now));
        return new AskedOfGuest(
            from,
            offer.Until,
            offered.Start,
            offered.End,
            offer.FromMinute,
            offer.ToMinute,
            link.BooksByItself,
            link.Suits.Count
        );
    }

    /// <summary>From the beginning of the first date that is offered to the end of the last one.</summary>
    public static Span Offered(AvailabilityLink link, Instant now)
    {
        var zone = DateTimeZoneProviders.Tzdb[link.Page!.Zone];
        return new Span(
            zone.AtStartOfDay(FirstDate(link, now)).ToInstant(),
            zone.AtStartOfDay(link.Page.Offer!.Times.Until.PlusDays(1)).ToInstant()
        );
    }

    private static LocalDate FirstDate(AvailabilityLink link, Instant now)
    {
        var today = now.InZone(DateTimeZoneProviders.Tzdb[link.Page!.Zone]).Date;
        return link.Page.Offer!.Times.From is { } from ? LocalDate.Max(from, today) : today;
    }
}
