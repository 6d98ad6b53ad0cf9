using LooseLantern.Core.LineUps;
using LooseLantern.Core.Openings;
using LooseLantern.Core.Questions;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Hours;
using LooseLantern.Server.Features.Post;
using NodaTime;

namespace LooseLantern.Server.Features.Pages;

/// <summary>A page as its editor sends it.</summary>
/// <param name="KeepsHosts">Whether a guest who comes back gets the same hosts again where they are free.</param>
/// <param name="Changes">What guests may do with their bookings; null for the usual.</param>
/// <param name="Post">What it sends; null for the usual.</param>
/// <param name="Questions">What it asks its guests, in order; null for nothing.</param>
/// <param name="ApprovalHours">For how many hours an asked booking waits for a yes; null where a booking stands at
/// once.</param>
/// <param name="Details">What it says of itself and does around a booking; null for the usual.</param>
public sealed record PageForm(
    string Title,
    Guid DeskId,
    string Address,
    string Description,
    PlaceKind PlaceKind,
    string Place,
    bool KeepsHosts,
    PageTimes Times,
    ChangeRules? Changes = null,
    PagePost? Post = null,
    int? ApprovalHours = null,
    IReadOnlyList<Question>? Questions = null,
    PageDetails? Details = null
) : IMailsTo
{
    public IEnumerable<(string Field, string? Address)> MailsTo() =>
        IMailsTo.Of("details.alsoInvited", Details?.AlsoInvited, one => one.Email);
}

/// <summary>One seat of the line-up: any one of these hosts.</summary>
/// <param name="HostIds">In order; the first free one takes a seat that is filled in order.</param>
public sealed record SeatForm(IReadOnlyList<Guid> HostIds, SeatFill Fill, SeatKeeper Keeper = SeatKeeper.Counts);

/// <summary>All of a page that decides on its openings.</summary>
/// <param name="Zone">IANA id.</param>
/// <param name="Durations">Minutes, the first one preset.</param>
/// <param name="Step">Minutes from start to start.</param>
/// <param name="StepOffset">Minutes after the hour at which the grid begins, under <paramref name="Step"/>; for a grid
/// by the clock.</param>
/// <param name="BufferBefore">Minutes.</param>
/// <param name="BufferAfter">Minutes.</param>
/// <param name="Notice">Minutes.</param>
/// <param name="AheadDays">Today and so many days after it.</param>
/// <param name="DailyCap">Most sessions a day; null for any number.</param>
/// <param name="WeeklyCap">Most sessions a week, Monday to Sunday; null for any number.</param>
/// <param name="Places">How many guests one session takes.</param>
/// <param name="Hours">The page's own hours; needed where they count, unless it has blocks.</param>
/// <param name="Calendars">Where it asks or writes other calendars of its hosts than usual.</param>
/// <param name="Blocks">Office hours instead of hours by the week; null for none.</param>
/// <param name="Window">A run of dates or no end, in place of <paramref name="AheadDays"/>; null for so many days
/// ahead.</param>
/// <param name="StartsApart">Whether guests are shown only starts that stand a step or more apart.</param>
/// <param name="HoursOf">The named set of hours that the page follows, so that its changes count here too; null for
/// <paramref name="Hours"/> of its own.</param>
public sealed record PageTimes(
    string Zone,
    IReadOnlyList<SeatForm> LineUp,
    IReadOnlyList<int> Durations,
    int Step,
    int StepOffset,
    StepFrom StepFrom,
    int BufferBefore,
    int BufferAfter,
    int Notice,
    int AheadDays,
    HoursMode HoursMode,
    HoursDocument? Hours,
    int? DailyCap,
    int? WeeklyCap,
    int Places,
    BlocksForm? Blocks = null,
    IReadOnlyList<CalendarChoice>? Calendars = null,
    PageWindow? Window = null,
    bool StartsApart = false,
    Guid? HoursOf = null
);

/// <summary>The office hours of a page.</summary>
/// <param name="Whole">Whether each is one opening for its whole length, instead of being cut into openings from its
/// start.</param>
public sealed record BlocksForm(bool Whole, IReadOnlyList<BlockForm> List);

/// <summary>One run of office hours, on the wall clock of the page's zone.</summary>
/// <param name="Start">Local date and time.</param>
/// <param name="Length">Minutes.</param>
/// <param name="Rule">How it repeats (RFC 5545 section 3.3.10), such as "FREQ=WEEKLY;BYDAY=MO"; null for once.</param>
/// <param name="Without">Dates on which it does not come.</param>
public sealed record BlockForm(LocalDateTime Start, int Length, string? Rule, IReadOnlyList<LocalDate> Without);
