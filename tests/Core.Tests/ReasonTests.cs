using LooseLantern.Core.Reasons;
using static Core.Tests.Sketch;

namespace Core.Tests;

/// <summary>
/// Reasons by hand, one rule at a time, on a Tuesday in Copenhagen from 09:00 to 12:00 (08:00 to 11:00 in UTC).
/// </summary>
public class ReasonTests
{
    [Fact]
    public void An_opening_has_none_and_names_the_next()
    {
        var why = For(Tuesday(Page()), "08:30");
        why.Reasons.ShouldBeEmpty();
        why.Opening.ShouldNotBeNull().Start.ShouldBe(At("2026-12-01T08:30:00Z"));
        why.Next.ShouldNotBeNull().Start.ShouldBe(At("2026-12-01T09:00:00Z"));
    }

    [Fact]
    public void Everything_that_is_in_the_way_is_named_in_the_order_of_the_rules()
    {
        var host = Host(busy: Span("2026-12-01T11:05:00Z", "2026-12-01T11:10:00Z")) with
        {
            DailyCap = 1,
            Commitments =
            [
                new(
                    CommitmentKind.Booking,
                    "s1",
                    "other",
                    At("2026-12-01T11:20:00Z"),
                    At("2026-12-01T11:50:00Z"),
                    0,
                    0
                ),
            ],
        };
        var page = Page() with
        {
            Notice = 24 * 60,
            DailyCap = 0,
            Window = new BookingWindow.Dates(new LocalDate(2026, 12, 4), new LocalDate(2026, 12, 5)),
        };
        var why = For(Tuesday(page, host), "10:55");
        why.Reasons.Select(reason => (int)reason.Rule).ShouldBe([1, 2, 3, 5, 6, 7, 8, 9]);
        why.Next.ShouldBeNull();
    }

    [Fact]
    public void What_a_host_of_two_seats_lacks_is_named_once()
    {
        var page = Page() with { LineUp = [new Seat(["h1"]), new Seat(["h1"])] };
        var host = Host(busy: Span("2026-12-01T08:00:00Z", "2026-12-01T08:30:00Z"));
        For(Tuesday(page, host), "08:00").Reasons.Count(reason => reason.Rule == Rule.Calendars).ShouldBe(1);
    }

    [Fact]
    public void A_session_with_just_room_enough_is_no_reason()
    {
        var (start, end) = (At("2026-12-01T08:00:00Z"), At("2026-12-01T08:30:00Z"));
        var page = Page() with { Places = 3, Notice = 24 * 60, Sessions = [new("s1", start, end, 1)] };
        var input = Tuesday(page) with { Party = 2 };
        For(input, "08:00").Reasons.ShouldNotContain(reason => reason.Rule == Rule.Places);
        For(input with { Party = 3 }, "08:00").Reasons.ShouldContain(reason => reason.Rule == Rule.Places);
    }

    [Fact]
    public void One_session_on_two_days_counts_once_against_a_cap_of_the_week()
    {
        static Commitment On(string holder, string start) =>
            new(CommitmentKind.Booking, holder, "other", At(start), At(start) + Duration.FromMinutes(30), 0, 0);
        var host = Host() with
        {
            WeeklyCap = 2,
            Commitments = [On("s1", "2026-12-03T08:00:00Z"), On("s1", "2026-12-04T08:00:00Z")],
        };
        For(Tuesday(Page(), host), "08:30").Reasons.ShouldBeEmpty();
        For(
            Tuesday(Page(), host with { Commitments = [.. host.Commitments, On("s2", "2026-12-04T09:00:00Z")] }),
            "08:30"
        )
            .Reasons.ShouldHaveSingleItem()
            .Rule.ShouldBe(Rule.HostCaps);
    }

    [Fact]
    public void Notice_names_the_time_before_which_nothing_is_offered()
    {
        var why = For(Tuesday(Page() with { Notice = 13 * 60 }), "08:30");
        why.Reasons.ShouldHaveSingleItem()
            .ShouldBe(new Reason(Rule.Notice) { Span = Span("2026-11-30T20:00:00Z", "2026-12-01T09:00:00Z") });
        why.Next.ShouldNotBeNull().Start.ShouldBe(At("2026-12-01T09:00:00Z"));
    }

    [Fact]
    public void The_window_is_named_in_local_days()
    {
        var page = Page() with
        {
            Window = new BookingWindow.Dates(new LocalDate(2026, 11, 30), new LocalDate(2026, 12, 1)),
        };
        var input = Tuesday(page) with { From = new LocalDate(2026, 11, 28), To = new LocalDate(2026, 12, 9) };
        ReasonsComputation
            .For(input, At("2026-12-02T09:00:00Z"))
            .Reasons.ShouldHaveSingleItem()
            .ShouldBe(new Reason(Rule.Window) { Span = Span("2026-11-29T23:00:00Z", "2026-12-01T23:00:00Z") });
    }

    [Theory]
    [InlineData("07:30", "07:30", "08:00")] // before the hours
    [InlineData("11:00", "11:00", "11:30")] // after them
    [InlineData("10:40", "11:00", "11:10")] // over their end
    public void Hours_name_the_part_of_the_appointment_outside_them(string start, string from, string to) =>
        For(Tuesday(Page() with { Step = 10 }), start)
            .Reasons.ShouldHaveSingleItem()
            .ShouldBe(
                new Reason(Rule.Hours) { Host = "h1", Span = Span($"2026-12-01T{from}:00Z", $"2026-12-01T{to}:00Z") }
            );

    [Fact]
    public void What_lies_outside_hours_ends_with_the_appointment_also_where_they_open_again_later() =>
        For(Tuesday(Page() with { Step = 10 }, Host(hours: Open("09:00-12:00,14:00-16:00"))), "10:40")
            .Reasons.ShouldHaveSingleItem()
            .Span.ShouldBe(Span("2026-12-01T11:00:00Z", "2026-12-01T11:10:00Z"));

    [Fact]
    public void What_a_calendar_says_twice_is_named_once()
    {
        var busy = Span("2026-12-01T08:00:00Z", "2026-12-01T09:00:00Z");
        For(Tuesday(Page(), Host(busy: [busy, busy])), "08:30").Reasons.ShouldHaveSingleItem();
    }

    [Fact]
    public void The_pages_own_hours_are_cited_once_and_for_no_host()
    {
        var page = Page() with
        {
            HoursMode = HoursMode.Both,
            Hours = Open("09:00-10:00"),
            LineUp = [new Seat(["a"]), new Seat(["b"]), new Seat(["c", "d"])],
        };
        var why = For(Tuesday(page, Host("a"), Host("b", Open("13:00-14:00")), Host("c"), Host("d")), "09:30");
        why.Reasons.Select(reason => (reason.Rule, reason.Host)).ShouldBe([(Rule.Hours, null), (Rule.Hours, "b")]);
    }

    [Fact]
    public void A_busy_span_bears_its_source_and_buffers_reach_it()
    {
        var host = Host(
            busy:
            [
                Span("2026-12-01T09:00:00Z", "2026-12-01T09:30:00Z"),
                Span("2026-12-01T12:00:00Z", "2026-12-01T13:00:00Z"),
            ]
        ) with
        {
            BusySources = [new BusySource("Yard", "Crane test"), new BusySource("Yard", null)],
        };
        For(Tuesday(Page() with { BufferAfter = 10 }, host), "08:30")
            .Reasons.ShouldHaveSingleItem()
            .ShouldBe(
                new Reason(Rule.Calendars)
                {
                    Host = "h1",
                    Span = Span("2026-12-01T09:00:00Z", "2026-12-01T09:30:00Z"),
                    Source = new BusySource("Yard", "Crane test"),
                }
            );
    }

    [Fact]
    public void A_commitment_is_named_as_it_was_made()
    {
        var hold = new Commitment(
            CommitmentKind.Hold,
            "link",
            null,
            At("2026-12-01T09:00:00Z"),
            At("2026-12-01T09:30:00Z"),
            15,
            0
        );
        For(Tuesday(Page(), Host() with { Commitments = [hold] }), "08:30")
            .Reasons.ShouldHaveSingleItem()
            .ShouldBe(
                new Reason(Rule.Commitments)
                {
                    Host = "h1",
                    Span = Span("2026-12-01T09:00:00Z", "2026-12-01T09:30:00Z"),
                    Commitment = hold,
                }
            );
    }

    [Fact]
    public void Caps_are_named_with_how_many_there_are_and_the_day_or_week()
    {
        var page = Page() with
        {
            DailyCap = 1,
            WeeklyCap = 2,
            Sessions =
            [
                new("s1", At("2026-12-01T08:00:00Z"), At("2026-12-01T08:30:00Z"), 1),
                new("s2", At("2026-11-30T08:00:00Z"), At("2026-11-30T08:30:00Z"), 1),
            ],
        };
        For(Tuesday(page), "09:00")
            .Reasons.ShouldBe([
                new Reason(Rule.PageCaps)
                {
                    Cap = new CapReached(CapPeriod.Day, 1, 1),
                    Span = Span("2026-11-30T23:00:00Z", "2026-12-01T23:00:00Z"),
                },
                new Reason(Rule.PageCaps)
                {
                    Cap = new CapReached(CapPeriod.Week, 2, 2),
                    Span = Span("2026-11-29T23:00:00Z", "2026-12-06T23:00:00Z"),
                },
            ]);
    }

    [Fact]
    public void A_pool_that_cannot_be_filled_tells_what_each_of_its_hosts_lacks()
    {
        var page = Page() with { LineUp = [new Seat(["a"]), new Seat(["b", "c"])] };
        var why = For(
            Tuesday(
                page,
                Host("a"),
                Host("b", null, Span("2026-12-01T09:00:00Z", "2026-12-01T10:00:00Z")),
                Host("c", Open("13:00-14:00"))
            ),
            "09:00"
        );
        var reason = why.Reasons.ShouldHaveSingleItem();
        reason.Rule.ShouldBe(Rule.LineUp);
        reason.Seats.ShouldBe([1]);
        reason
            .Pool.ShouldNotBeNull()
            .Select(host => (host.Host, host.Reasons.ShouldHaveSingleItem().Rule))
            .ShouldBe([("b", Rule.Calendars), ("c", Rule.Hours)]);
    }

    [Fact]
    public void Seats_that_share_too_few_hosts_are_the_smallest_set_of_them()
    {
        // Four seats for three hosts are too many, but already the last two want the same one.
        var page = Page() with
        {
            LineUp = [new Seat(["a", "b", "c"]), new Seat(["a", "b"]), new Seat(["a", "d"]), new Seat(["a"])],
        };
        var reason = For(Tuesday(page, Host("a"), Host("b"), Host("c"), Host("d", Open("13:00-14:00"))), "09:00")
            .Reasons.ShouldHaveSingleItem();
        reason.Rule.ShouldBe(Rule.LineUp);
        reason.Seats.ShouldBe([2, 3]);
        reason.Shared.ShouldBe(["a"]);
    }

    [Fact]
    public void Of_many_seats_for_one_pool_one_more_than_it_has_hosts_is_named()
    {
        var page = Page() with
        {
            LineUp = [new Seat(["a", "b"]), new Seat(["b", "a"]), new Seat(["a", "b"]), new Seat(["a", "b"])],
        };
        var reason = For(Tuesday(page, Host("a"), Host("b")), "09:00").Reasons.ShouldHaveSingleItem();
        reason.Seats.ShouldBe([0, 1, 2]);
        reason.Shared.ShouldBe(["a", "b"]);
    }

    [Fact]
    public void The_grid_of_an_open_stretch_is_named_by_host()
    {
        var page = Page() with { Step = 40, StepFrom = StepFrom.Open };
        For(Tuesday(page), "08:30")
            .Reasons.ShouldHaveSingleItem()
            .ShouldBe(
                new Reason(Rule.Grid) { Host = "h1", Span = Span("2026-12-01T08:00:00Z", "2026-12-01T11:00:00Z") }
            );
        // Where nobody is open, only that is said.
        For(Tuesday(page), "12:10").Reasons.ShouldHaveSingleItem().Rule.ShouldBe(Rule.Hours);
    }

    [Fact]
    public void A_full_session_is_named_besides_what_is_in_the_way_of_another()
    {
        var booked = new Commitment(
            CommitmentKind.Booking,
            "s1",
            "page",
            At("2026-12-01T09:00:00Z"),
            At("2026-12-01T09:30:00Z"),
            0,
            0
        );
        var page = Page() with { Places = 2, Sessions = [new("s1", booked.Start, booked.End, 2)] };
        var why = For(Tuesday(page, Host() with { Commitments = [booked] }), "09:00");
        why.Reasons.Select(reason => reason.Rule).ShouldBe([Rule.Commitments, Rule.Places]);
        why.Reasons[1].Session.ShouldBe("s1");
    }

    [Fact]
    public void A_party_is_told_which_session_has_no_room_for_all_of_it_and_when_no_session_can_have()
    {
        var (start, end) = (At("2026-12-01T09:00:00Z"), At("2026-12-01T09:30:00Z"));
        var taken = new Commitment(CommitmentKind.Booking, "s1", "page", start, end, 0, 0);
        var page = Page() with { Places = 3, Sessions = [new("s1", start, end, 2)] };
        var input = Tuesday(page, Host() with { Commitments = [taken] });

        For(input with { Party = 2 }, "09:00")
            .Reasons[1]
            .ShouldBe(new Reason(Rule.Places) { Session = "s1", Span = new Span(start, end) });
        For(input with { Party = 4 }, "10:00").Reasons.ShouldBe([new Reason(Rule.Places)]);
    }

    [Fact]
    public void What_fails_alike_is_named_in_the_order_of_time()
    {
        var (early, long_) = (
            Span("2026-12-01T09:00:00Z", "2026-12-01T09:10:00Z"),
            Span("2026-12-01T09:00:00Z", "2026-12-01T09:20:00Z")
        );
        For(Tuesday(Page(), Host(busy: [long_, early])), "09:00")
            .Reasons.Select(reason => reason.Span)
            .ShouldBe([early, long_]);
        Commitment Taken(string holder, string from, string to) =>
            new(
                CommitmentKind.Booking,
                holder,
                "other",
                At($"2026-12-01T{from}:00Z"),
                At($"2026-12-01T{to}:00Z"),
                0,
                0
            );
        For(
            Tuesday(Page(), Host() with { Commitments = [Taken("a", "09:20", "09:30"), Taken("b", "09:00", "09:10")] }),
            "09:00"
        )
            .Reasons.Select(reason => reason.Commitment!.Holder)
            .ShouldBe(["b", "a"]);
    }

    [Fact]
    public void Who_is_always_open_has_no_grid_of_their_own()
    {
        // The one whose hours begin at 09:07 sets the grid for both; 09:20 is on none.
        var page = Page() with { Step = 20, StepFrom = StepFrom.Open, LineUp = [new Seat(["h1", "h2"])] };
        var input = Tuesday(page, Host() with { Hours = null }, Host("h2", hours: Open("09:07-12:00")));
        For(input, "08:20").Reasons.Select(reason => reason.Rule).ShouldBe([Rule.Grid]);
        OpeningsComputation.HostsFreeAt(input, At("2026-12-01T08:20:00Z")).ShouldBeNull();
        OpeningsComputation.HostsFreeAt(input, At("2026-12-01T08:27:00Z")).ShouldNotBeNull();
    }

    [Fact]
    public void A_commitment_that_is_listed_twice_is_named_once()
    {
        var taken = new Commitment(
            CommitmentKind.Booking,
            "s",
            "other",
            At("2026-12-01T09:00:00Z"),
            At("2026-12-01T09:30:00Z"),
            0,
            0
        );
        For(Tuesday(Page(), Host() with { Commitments = [taken, taken] }), "09:00")
            .Reasons.ShouldHaveSingleItem()
            .Rule.ShouldBe(Rule.Commitments);
    }

    [Fact]
    public void A_grid_of_one_open_stretch_names_it_where_nobody_is_named()
    {
        var page = Page() with { Step = 40, StepFrom = StepFrom.Open, LineUp = [new Seat(["h1", "h2"])] };
        For(Tuesday(page, Host(), Host("h2", hours: Open(""))), "08:30")
            .Reasons.ShouldContain(
                new Reason(Rule.Grid) { Span = Span("2026-12-01T08:00:00Z", "2026-12-01T11:00:00Z") }
            );
    }

    [Fact]
    public void What_is_alike_is_named_in_order_of_its_id()
    {
        var (start, end) = (At("2026-12-01T09:00:00Z"), At("2026-12-01T09:30:00Z"));
        Commitment Of(string holder) => new(CommitmentKind.Booking, holder, "page", start, end, 0, 0);
        var page = Page() with { Places = 1 + 1, Sessions = [new("s2", start, end, 2), new("s1", start, end, 2)] };
        var why = For(Tuesday(page, Host() with { Commitments = [Of("s2"), Of("s1")] }), "09:00");
        why.Reasons.Select(reason => (reason.Rule, reason.Commitment?.Holder ?? reason.Session))
            .ShouldBe([(Rule.Commitments, "s1"), (Rule.Commitments, "s2"), (Rule.Places, "s1"), (Rule.Places, "s2")]);
    }

    [Fact]
    public void A_full_session_is_only_in_the_way_of_its_own_time()
    {
        SessionFacts At(string id, int from, int to) =>
            new(id, Sketch.At($"2026-12-01T09:{from:00}:00Z"), Sketch.At($"2026-12-01T09:{to:00}:00Z"), 2);
        var page = Page() with
        {
            Places = 2,
            Sessions = [At("later", 30, 59), At("same start", 0, 45), At("same end", 15, 30)],
        };
        var busy = Span("2026-12-01T09:00:00Z", "2026-12-01T09:30:00Z");
        For(Tuesday(page, Host(busy: busy)), "09:00").Reasons.ShouldHaveSingleItem().Rule.ShouldBe(Rule.Calendars);
    }

    [Fact]
    public void A_pool_with_somebody_free_hides_no_pool_after_it()
    {
        var page = Page() with { LineUp = [new Seat(["h1", "h2"]), new Seat(["h3", "h4"])] };
        var busy = Span("2026-12-01T08:00:00Z", "2026-12-01T11:00:00Z");
        var why = For(Tuesday(page, Host(), Host("h2"), Host("h3", busy: busy), Host("h4", busy: busy)), "09:00");
        var missing = why.Reasons.ShouldHaveSingleItem();
        missing.Seats.ShouldBe([1]);
        missing.Pool.ShouldNotBeNull().Select(lacks => lacks.Host).ShouldBe(["h3", "h4"]);
    }

    [Fact]
    public void Painted_times_name_the_part_outside_them()
    {
        var page = Page() with { Only = new OnlyTimes.Painted([Span("2026-12-01T08:00:00Z", "2026-12-01T09:15:00Z")]) };
        For(Tuesday(page), "09:00")
            .Reasons.ShouldHaveSingleItem()
            .ShouldBe(new Reason(Rule.Only) { Span = Span("2026-12-01T09:15:00Z", "2026-12-01T09:30:00Z") });
    }

    private static StartReasons For(OpeningsInput input, string start) =>
        ReasonsComputation.For(input, At($"2026-12-01T{start}:00Z"));

    [Fact]
    public void A_cap_is_not_asked_of_what_was_promised_by_a_hold()
    {
        var (start, end) = (At("2026-12-01T09:00:00Z"), At("2026-12-01T09:30:00Z"));
        var page = Page() with
        {
            DailyCap = 1,
            Sessions = [new SessionFacts("s1", At("2026-12-01T08:00:00Z"), At("2026-12-01T08:30:00Z"), 1)],
        };
        var host = Host(busy: new Span(start, end)) with
        {
            DailyCap = 1,
            Commitments =
            [
                new Commitment(CommitmentKind.Hold, "k1", null, start, end, 0, 0),
                new Commitment(
                    CommitmentKind.Booking,
                    "s1",
                    "page",
                    At("2026-12-01T08:00:00Z"),
                    At("2026-12-01T08:30:00Z"),
                    0,
                    0
                ),
            ],
        };
        var input = Tuesday(page, host) with { AsHolder = "k1" };
        Rules(input, start).ShouldBe([Rule.Calendars]);
        // Half an hour later nothing was promised.
        Rules(input, end).ShouldBe([Rule.PageCaps, Rule.HostCaps]);

        static IEnumerable<Rule> Rules(OpeningsInput input, Instant at) =>
            ReasonsComputation.For(input, at).Reasons.Select(reason => reason.Rule);
    }
}
