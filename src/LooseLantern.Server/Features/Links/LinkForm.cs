using LooseLantern.Core.Links;
using LooseLantern.Core.Openings;
using LooseLantern.Core.Questions;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Pages;
using LooseLantern.Server.Features.Post;
using NodaTime;

namespace LooseLantern.Server.Features.Links;

/// <summary>A link as it is made and changed.</summary>
/// <param name="Title">What its guests read.</param>
/// <param name="DeskId">The desk whose name, picture and accent it wears.</param>
/// <param name="Description">Words for its guests, markdown.</param>
/// <param name="Guests">Whom it is for; none for a time among ourselves.</param>
/// <param name="GuestZone">IANA id; empty where it is not known.</param>
/// <param name="GuestLanguage">Language tag.</param>
public sealed record LinkForm(
    string Title,
    Guid DeskId,
    string Description,
    PlaceKind PlaceKind,
    string Place,
    LinkTimes Times,
    IReadOnlyList<LinkGuest> Guests,
    string GuestZone,
    string GuestLanguage,
    LinkDetails Details
) : IMailsTo
{
    public IEnumerable<(string Field, string? Address)> MailsTo() =>
        [
            .. IMailsTo.Of("guests", Guests, guest => guest.Email),
            .. IMailsTo.Of("details.alsoInvited", Details?.AlsoInvited, one => one.Email),
        ];
}

/// <summary>All of a link that decides on its openings.</summary>
/// <param name="Zone">IANA id.</param>
/// <param name="Durations">Minutes, the first one preset.</param>
/// <param name="Step">Minutes from start to start, for what is painted or free.</param>
/// <param name="BufferBefore">Minutes.</param>
/// <param name="BufferAfter">Minutes.</param>
/// <param name="Notice">Minutes.</param>
/// <param name="Overridden">The hosts whose calendars are not asked.</param>
/// <param name="Calendars">Where hosts' bookings are written to another calendar than usual.</param>
public sealed record LinkTimes(
    string Zone,
    IReadOnlyList<SeatForm> LineUp,
    IReadOnlyList<int> Durations,
    int Step,
    int BufferBefore,
    int BufferAfter,
    int Notice,
    Offer Offer,
    IReadOnlyList<Guid> Overridden,
    IReadOnlyList<CalendarChoice>? Calendars = null
)
{
    /// <summary>As the times of a page, but for its offer.</summary>
    public PageTimes AsPage() =>
        new(
            Zone,
            LineUp,
            Durations,
            Step,
            StepOffset: 0,
            StepFrom.Clock,
            BufferBefore,
            BufferAfter,
            Notice,
            AheadDays: 0,
            HoursMode.Hosts,
            Hours: null,
            DailyCap: null,
            WeeklyCap: null,
            Places: 1,
            Blocks: null,
            Calendars
        );
}

/// <summary>The rest of a link.</summary>
/// <param name="Lead">The seat whose host is the organiser of the invitation, by position from 0.</param>
/// <param name="AlsoInvited">Who gets the invitation and whose calendars are not asked.</param>
/// <param name="HostWords">What only the hosts' copies bear.</param>
/// <param name="Notes">For the team.</param>
/// <param name="LeavesFree">Whether what is booked stands in hosts' calendars as free time.</param>
/// <param name="Takes">How many times of it may be taken; where each of several guests takes one, as many as they
/// are.</param>
/// <param name="Reopens">Whether a booking that is cancelled makes room for another.</param>
/// <param name="EndsOn">The last local date on which it can be used.</param>
/// <param name="Topic">Words at the beginning of its address; empty for those of the title.</param>
/// <param name="StartedFrom">In words; empty for nothing.</param>
/// <param name="HostsRing">By phone: whether the hosts ring the guest.</param>
/// <param name="Questions">What its guests are asked.</param>
/// <param name="Together">Of several guests: whether all are booked when one takes a time; else each takes their
/// own.</param>
/// <param name="BooksByItself">Where its guests are asked first: whether the best that fits is booked at once.</param>
public sealed record LinkDetails(
    int Lead,
    IReadOnlyList<InvitedAlong> AlsoInvited,
    string HostWords,
    string Notes,
    bool LeavesFree,
    int Takes,
    bool Reopens,
    LocalDate EndsOn,
    string Topic,
    LinkText Text,
    string StartedFrom,
    bool IsAmongOurselves,
    bool HostsRing,
    IReadOnlyList<Question> Questions,
    bool Together = true,
    bool BooksByItself = false
);
