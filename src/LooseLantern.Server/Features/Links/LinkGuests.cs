using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Guests;

namespace LooseLantern.Server.Features.Links;

/// <summary>Whom a time of a link is booked for.</summary>
public static class LinkGuests
{
    /// <summary>Whether who takes its time is known without asking.</summary>
    public static bool IsForOne(AvailabilityLink link) => link.Guests.Count == 1 && link.Takes == 1;

    /// <summary>
    /// Who answers: the link's one guest, the one of several who is named by number, or whoever gives a name and an
    /// email.
    /// </summary>
    /// <param name="number">Of the link's guests, from 0; null for nobody of them.</param>
    /// <param name="notMe">Whether it is somebody else than the one it names.</param>
    public static GuestRequest WhoAnswers(AvailabilityLink link, int? number, bool notMe, string? name, string? email)
    {
        var known =
            notMe ? null
            : IsForOne(link) ? link.Guests[0]
            : number is { } at && at >= 0 && at < link.Guests.Count ? link.Guests[at]
            : null;
        return known is null
            ? new GuestRequest(name ?? "", email ?? "")
            : new GuestRequest(known.Name, known.Email.Length > 0 ? known.Email : email ?? "");
    }

    /// <summary>
    /// The other guests, who are booked as well where all of them come to one time: each gets a booking, an invitation
    /// and a private link of their own.
    /// </summary>
    public static IReadOnlyList<LinkGuest> BookedWith(AvailabilityLink link, GuestRequest taker)
    {
        if (!link.Together || link.Guests.Count < 2)
            return [];
        var others = link.Guests.ToList();
        // One of several may take it by a name that only stands there, with an email of their own.
        var self = others.FindIndex(guest =>
            guest.Email.Length > 0
                ? guest.Email.Trim().Equals(taker.Email.Trim(), StringComparison.OrdinalIgnoreCase)
                : guest.Name == taker.Name
        );
        if (self >= 0)
            others.RemoveAt(self);
        return others;
    }
}
