using LooseLantern.Core.LineUps;
using LooseLantern.Core.Questions;

namespace LooseLantern.Server.Data.Model;

/// <summary>What a page says of itself, and what it does around a booking, beside its times.</summary>
/// <param name="Lead">The seat whose host is the organiser of the invitation, by position from 0.</param>
/// <param name="AlsoInvited">Who gets every invitation and whose calendars are not asked.</param>
/// <param name="Screening">What answers lead to, in order; the first rule that ends the way decides.</param>
/// <param name="MostOpen">How many bookings to come one guest may have on the page, told by the email; null for
/// the usual.</param>
/// <param name="ForOthers">Whether one may book for somebody else.</param>
public sealed record PageDetails(
    PageNaming Naming,
    PageFace Face,
    PlaceDetail Place,
    Afterwards After,
    int Lead,
    IReadOnlyList<InvitedAlong> AlsoInvited,
    IReadOnlyList<ScreeningRule> Screening,
    int? MostOpen,
    bool ForOthers = false
)
{
    public const int UsualMostOpen = 5;

    /// <summary>Whose guest somebody becomes by an answer; the first rule that is met decides.</summary>
    public IReadOnlyList<KeeperByAnswer> Keepers { get; init; } = [];

    public static readonly PageDetails Usual = new(
        new PageNaming("", "", null),
        new PageFace("", "", ShowsHosts: true, PlaceZoneOnly: false, IsListed: true),
        new PlaceDetail("", HostsRing: true),
        new Afterwards("", "", OffersAnother: false, ProvesEmail: false),
        Lead: 0,
        [],
        [],
        MostOpen: null
    );
}

/// <summary>What the team calls a page.</summary>
/// <param name="Name">Among ourselves; empty for the title.</param>
/// <param name="Kind">One of the workspace's kinds; empty for none.</param>
/// <param name="Mark">Two letters; null for those made of the title.</param>
public sealed record PageNaming(string Name, string Kind, string? Mark);

/// <summary>What a page looks like to guests.</summary>
/// <param name="Language">Tag of the language its own words are in; empty for that of whoever reads.</param>
/// <param name="Accent">#rrggbb, or empty for that of its desk.</param>
/// <param name="ShowsHosts">Whether guests see portraits and names of the hosts.</param>
/// <param name="PlaceZoneOnly">Whether its times are shown in its own zone alone.</param>
/// <param name="IsListed">Whether its desk names it; else it opens by its address only.</param>
public sealed record PageFace(string Language, string Accent, bool ShowsHosts, bool PlaceZoneOnly, bool IsListed);

/// <param name="Directions">How to get there or get in; may be empty.</param>
/// <param name="HostsRing">By phone: whether the hosts ring the guest, whose number is asked for then; else the guest
/// rings the place's number.</param>
public sealed record PlaceDetail(string Directions, bool HostsRing);

/// <summary>What guests meet once they have reserved.</summary>
/// <param name="Words">Shown only then; may be empty.</param>
/// <param name="GoTo">An address of the page's own to go on to, https; empty for none.</param>
/// <param name="OffersAnother">Whether another time can be reserved from there.</param>
/// <param name="ProvesEmail">Whether a code that is mailed has to be typed before anything is reserved.</param>
public sealed record Afterwards(string Words, string GoTo, bool OffersAnother, bool ProvesEmail = false);

/// <summary>Who is invited along, whose calendars are not asked.</summary>
public sealed record InvitedAlong(string Name, string Email);

public enum WindowKind
{
    Ahead,
    Dates,
    Open,
}

/// <summary>How far a page offers where it is not so many days ahead.</summary>
/// <param name="From">First date, of a run of dates.</param>
/// <param name="To">Last date, of a run of dates.</param>
public sealed record PageWindow(WindowKind Kind, NodaTime.LocalDate? From, NodaTime.LocalDate? To);
