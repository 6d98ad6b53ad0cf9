using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Guests;

namespace LooseLantern.Server.Features.Links;

/// <summary>Whom a time of a link is booked for.</summary>
public static class LinkGuests
{
    /// <summary>Whether who takes its time is known without asking.</summary>
    public static bool IsForOne(AvailabilityLink link) => link.Guests.Count == 1 && link.Takes == 1;

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
