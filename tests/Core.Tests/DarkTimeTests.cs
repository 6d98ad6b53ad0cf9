using LooseLantern.Core.LineUps;
using LooseLantern.Core.Reasons;
using static Core.Tests.Sketch;

namespace Core.Tests;

/// <summary>
/// Why whole stretches are dark, and why a page is empty by mistake. Hosts work 09:00 to 12:00 in Copenhagen (08:00 to
/// 11:00 in UTC).
/// </summary>
public class DarkTimeTests
{
    private static readonly Span Day = Span("2026-12-01T07:00:00Z", "2026-12-01T12:00:00Z");

    [Fact]
    public void Each_reason_is_told_once_and_closed_time_in_runs()
    {
        var busy = Span("2026-12-01T08:00:00Z", "2026-12-01T11:00:00Z");
        var dark = DarkTime.Within(Tuesday(Page(), Host(busy: busy)), Day);
        var host = dark.Seats.ShouldHaveSingleItem().Hosts.ShouldHaveSingleItem();
        dark.OfPage.ShouldBeEmpty();
        host.Reasons.Where(reason => reason.Rule == Rule.Hours)
            .Select(reason => reason.Span)
            .ShouldBe([
                Span("2026-12-01T07:00:00Z", "2026-12-01T08:00:00Z"),
                Span("2026-12-01T11:00:00Z", "2026-12-01T12:00:00Z"),
            ]);
        host.Reasons.Where(reason => reason.Rule == Rule.Calendars).ShouldHaveSingleItem().Span.ShouldBe(busy);
    }

    [Fact]
    public void Starts_that_are_open_say_nothing()
    {
        var dark = DarkTime.Within(
            Tuesday(Page(), Host(busy: Span("2026-12-01T08:00:00Z", "2026-12-01T09:00:00Z"))),
            Span("2026-12-01T08:00:00Z", "2026-12-01T11:00:00Z")
        );
        dark.Seats.ShouldHaveSingleItem().Hosts[0].Reasons.ShouldHaveSingleItem().Rule.ShouldBe(Rule.Calendars);
    }

    [Fact]
    public void Every_host_of_a_seat_is_told_of_where_none_is_free()
    {
        var page = Page() with { LineUp = [new Seat(["h1"]), new Seat(["h2", "h3"])] };
        var off = Span("2026-12-01T06:00:00Z", "2026-12-01T14:00:00Z");
        var dark = DarkTime.Within(
            Tuesday(page, Host(), Host("h2", busy: off), Host("h3", busy: off)),
            Span("2026-12-01T08:00:00Z", "2026-12-01T11:00:00Z")
        );
        var seat = dark.Seats.ShouldHaveSingleItem();
        (seat.Position, string.Join(' ', seat.Hosts.Select(host => host.Host))).ShouldBe((1, "h2 h3"));
        seat.Hosts.ShouldAllBe(host => host.Reasons.Count == 1);
    }

    [Fact]
    public void Hosts_that_two_seats_share_are_named()
    {
        var page = Page() with { LineUp = [new Seat(["h1", "h2"]), new Seat(["h1", "h2"])] };
        var dark = DarkTime.Within(
            Tuesday(page, Host(), Host("h2", busy: Span("2026-12-01T06:00:00Z", "2026-12-01T14:00:00Z"))),
            Span("2026-12-01T08:00:00Z", "2026-12-01T11:00:00Z")
        );
        dark.Shared.ShouldBe(["h1"]);
    }

    [Fact]
    public void The_pages_own_rules_are_told_apart()
    {
        var page = Page() with { Notice = 24 * 60, HoursMode = HoursMode.Page, Hours = Open("10:00-11:00") };
        var dark = DarkTime.Within(Tuesday(page), Day);
        dark.OfPage.Select(reason => reason.Rule).Distinct().ShouldBe([Rule.Hours, Rule.Notice]);
        dark.Seats.ShouldBeEmpty();
    }

    [Fact]
    public void Between_starts_of_the_grid_nothing_else_is_in_the_way() =>
        DarkTime
            .Within(Tuesday(Page() with { Step = 180 }), Span("2026-12-01T08:30:00Z", "2026-12-01T09:00:00Z"))
            .ShouldSatisfyAllConditions(dark => dark.OfPage.ShouldBeEmpty(), dark => dark.Seats.ShouldBeEmpty());

    [Fact]
    public void A_start_between_two_of_the_grid_says_nothing_where_more_is_in_the_way()
    {
        var page = Page() with { Step = 60, StepFrom = StepFrom.Open };
        var busy = Span("2026-12-01T08:00:00Z", "2026-12-01T11:00:00Z");
        DarkTime
            .Within(Tuesday(page, Host(busy: busy)), Span("2026-12-01T08:00:00Z", "2026-12-01T10:00:00Z"))
            .Seats.ShouldHaveSingleItem()
            .Hosts.ShouldHaveSingleItem()
            .Reasons.ShouldHaveSingleItem()
            .Rule.ShouldBe(Rule.Calendars);
    }

    [Fact]
    public void A_wide_grid_is_asked_at_its_own_starts_alone()
    {
        // 09:00, 10:30 and 12:00 in Copenhagen.
        var page = Page() with { Step = 90 };
        var dark = DarkTime.Within(
            Tuesday(page, Host(busy: Span("2026-12-01T09:30:00Z", "2026-12-01T10:00:00Z"))),
            Span("2026-12-01T09:00:00Z", "2026-12-01T10:00:00Z")
        );
        dark.OfPage.ShouldBeEmpty();
        dark.Seats.ShouldHaveSingleItem().Hosts[0].Reasons.ShouldHaveSingleItem().Rule.ShouldBe(Rule.Calendars);
        DarkTime
            .Within(
                Tuesday(page, Host(busy: Span("2026-12-01T09:00:00Z", "2026-12-01T09:20:00Z"))),
                Span("2026-12-01T09:00:00Z", "2026-12-01T09:30:00Z")
            )
            .Seats.ShouldBeEmpty();
    }

    [Fact]
    public void What_lies_after_an_opening_is_asked_too_and_is_told_of_the_right_seat()
    {
        var page = Page() with { LineUp = [new Seat(["h2"]), new Seat(["h1"])] };
        var dark = DarkTime.Within(
            Tuesday(page, Host("h1", busy: Span("2026-12-01T09:30:00Z", "2026-12-01T10:00:00Z")), Host("h2")),
            Span("2026-12-01T09:00:00Z", "2026-12-01T10:00:00Z")
        );
        var seat = dark.Seats.ShouldHaveSingleItem();
        (seat.Position, seat.Hosts.ShouldHaveSingleItem().Host).ShouldBe((1, "h1"));
    }

    [Fact]
    public void A_page_is_empty_by_mistake_for_these_reasons()
    {
        OpeningsInput Fortnight(PageRules page, params HostFacts[] hosts) =>
            Tuesday(page, hosts) with
            {
                From = new LocalDate(2026, 11, 30),
                To = new LocalDate(2026, 12, 13),
            };
        EmptyCause[] Of(PageRules page, params HostFacts[] hosts) => [.. EmptyCause.Of(Fortnight(page, hosts))];
        var never = Open("");

        Of(Page()).ShouldBeEmpty();
        Of(Page() with { Window = new BookingWindow.Dates(new LocalDate(2026, 11, 1), new LocalDate(2026, 11, 20)) })
            .ShouldBe([new EmptyCause(EmptyKind.DatesPast)]);
        Of(Page() with { Window = new BookingWindow.Dates(new LocalDate(2026, 11, 1), new LocalDate(2026, 11, 30)) })
            .ShouldBeEmpty("the last date is today");
        Of(Page() with { Window = new BookingWindow.Ahead(14), Notice = 15 * 24 * 60 })
            .ShouldBe([new EmptyCause(EmptyKind.NoticeBeyondWindow)]);
        // The window ends with 14 December, which is over in fourteen days and three hours: not one start is left then.
        var untilItEnds = (14 * 24 + 3) * 60;
        Of(Page() with { Window = new BookingWindow.Ahead(14), Notice = untilItEnds })
            .ShouldBe([new EmptyCause(EmptyKind.NoticeBeyondWindow)]);
        Of(Page() with { Window = new BookingWindow.Ahead(14), Notice = untilItEnds - 1 }).ShouldBeEmpty();
        Of(Page() with { HoursMode = HoursMode.Page, Hours = never }).ShouldBe([new EmptyCause(EmptyKind.PageClosed)]);
        Of(Page(), Host(hours: never)).ShouldBe([new EmptyCause(EmptyKind.HostClosed, "h1")]);
        Of(
                Page() with
                {
                    HoursMode = HoursMode.Both,
                    Hours = Open("09:00-12:00", DateTimeZoneProviders.Tzdb["Pacific/Auckland"]),
                }
            )
            .ShouldBe([new EmptyCause(EmptyKind.HoursApart, "h1")]);
        Of(Page(), Host(hours: Open("09:00-09:20"))).ShouldBe([new EmptyCause(EmptyKind.OpenTooShort, "h1", 20)]);
        Of(Page(), Host(hours: Open("09:00-09:30"))).ShouldBeEmpty("just long enough is no mistake");
        Of(Page() with { HoursMode = HoursMode.Page, Hours = Open("09:00-09:20") })
            .ShouldBe([new EmptyCause(EmptyKind.OpenTooShort, null, 20)]);
        // Hours that are closed for these days alone are no mistake of theirs, but of the window, or nobody's.
        var away = Open(
            "09:00-12:00",
            null,
            new DatedChange(new LocalDate(2026, 11, 1), new LocalDate(2026, 12, 15), [])
        );
        Of(Page(), Host(hours: away))
            .ShouldBe([new EmptyCause(EmptyKind.OpensLater, Opens: new LocalDate(2026, 12, 16))]);
        // Of one who is open day and night from the 16th on and one who is not before the 17th.
        var atAllHours = Open(
            "00:00-24:00",
            null,
            new DatedChange(new LocalDate(2026, 11, 1), new LocalDate(2026, 12, 15), [])
        );
        var dayLonger = Open(
            "09:00-12:00",
            null,
            new DatedChange(new LocalDate(2026, 11, 1), new LocalDate(2026, 12, 16), [])
        );
        Of(Page() with { LineUp = [new Seat(["a"]), new Seat(["b"])] }, Host("a", atAllHours), Host("b", dayLonger))
            .ShouldBe([new EmptyCause(EmptyKind.OpensLater, Opens: new LocalDate(2026, 12, 17))]);
        Of(Page() with { Window = new BookingWindow.Ahead(5) }, Host(hours: away))
            .ShouldBe([new EmptyCause(EmptyKind.WindowClosed, Opens: new LocalDate(2026, 12, 16))]);
        var back = Open(
            "09:00-12:00",
            null,
            new DatedChange(new LocalDate(2026, 11, 1), new LocalDate(2026, 12, 13), [])
        );
        Of(Page(), Host(hours: back))
            .ShouldBe([new EmptyCause(EmptyKind.OpensLater, Opens: new LocalDate(2026, 12, 14))]);
        // Nor does it open on a day on which one seat is open and the other is not.
        var monday = new LocalDate(2026, 12, 21);
        var until = Open("09:00-12:00", null, new DatedChange(new LocalDate(2026, 11, 1), monday.PlusDays(-1), []));
        var notThen = Open("09:00-12:00", null, new DatedChange(monday, monday.PlusDays(1), []));
        Of(
                Page() with
                {
                    LineUp = [new Seat(["h1"]), new Seat(["h2"])],
                },
                Host(hours: until),
                Host("h2", hours: notThen)
            )
            .ShouldBe([new EmptyCause(EmptyKind.OpensLater, Opens: monday.PlusDays(2))]);
        // A run that is just as long as an opening is long enough.
        var brief = Open(
            "09:00-09:30",
            null,
            new DatedChange(new LocalDate(2026, 11, 1), new LocalDate(2026, 12, 15), [])
        );
        Of(Page(), Host(hours: brief))
            .ShouldBe([new EmptyCause(EmptyKind.OpensLater, Opens: new LocalDate(2026, 12, 16))]);
        // Each seat has to be filled: the one that is open last decides, and one that never is is a mistake still.
        var two = Page() with { LineUp = [new Seat(["h1"]), new Seat(["h2"])] };
        Of(two, Host(hours: away), Host("h2"))
            .ShouldBe([new EmptyCause(EmptyKind.OpensLater, Opens: new LocalDate(2026, 12, 16))]);
        Of(two, Host(hours: away), Host("h2", hours: never))
            .Select(cause => cause.Kind)
            .ShouldBe([EmptyKind.HostClosed, EmptyKind.HostClosed]);
        // One who can is enough for a seat, and what is merely taken is no mistake.
        Of(Page() with { LineUp = [new Seat(["h1", "h2"])] }, Host(hours: never), Host("h2")).ShouldBeEmpty();
        Of(Page(), Host(busy: Span("2026-11-01T00:00:00Z", "2027-01-01T00:00:00Z"))).ShouldBeEmpty();
    }

    [Fact]
    public void Turns_follow_load_weight_and_the_time_since_the_last_one()
    {
        var now = At("2026-12-01T08:00:00Z");
        HostLoad Load(int weight, int sessions, int daysAgo) =>
            new(
                weight,
                [.. Enumerable.Range(1, sessions).Select(day => now - Duration.FromDays(day))],
                now - Duration.FromDays(daysAgo)
            );
        var loads = new Dictionary<string, HostLoad>
        {
            ["a"] = Load(1, 3, 1),
            ["b"] = Load(2, 4, 1),
            ["c"] = Load(1, 2, 9),
        };
        var seat = new Seat(["a", "b", "c"]);
        AssignmentFacts Facts(SeatFill fill) =>
            new(now, [new SeatFacts(fill, new Dictionary<string, Instant>())], loads, new HashSet<string>());

        // 3 for a, 2 for b and c, of whom c waits longer.
        Assignment.Turns([seat], now, Facts(SeatFill.Balanced))[0].Select(turn => turn.Host).ShouldBe(["c", "b", "a"]);
        Assignment.Turns([seat], now, Facts(SeatFill.Balanced))[0].Select(turn => turn.Sessions).ShouldBe([2, 4, 3]);
        Assignment.Turns([seat], now, Facts(SeatFill.InOrder))[0].Select(turn => turn.Host).ShouldBe(["a", "b", "c"]);
    }
}
