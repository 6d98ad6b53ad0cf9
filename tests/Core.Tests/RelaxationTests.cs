using CsCheck;
using LooseLantern.Core.Relaxations;
using static Core.Tests.Sketch;

namespace Core.Tests;

public class RelaxationTests
{
    [Fact]
    public void Each_change_tells_what_it_adds_the_largest_first()
    {
        var host = Host(busy: Span("2026-12-01T09:00:00Z", "2026-12-01T10:00:00Z"));
        var page = Page() with { BufferAfter = 30, Notice = 13 * 60, Window = new BookingWindow.Ahead(1) };
        var relaxed = RelaxationsComputation.Of(Tuesday(page, host) with { To = new LocalDate(2026, 12, 3) }, []);

        relaxed.Select(relaxation => relaxation.Gained.Count).ShouldBeInOrder(SortDirection.Descending);
        // Bookable are 09:00 to 12:00 in Copenhagen but for 10:00 to 11:00 and half an hour before it; two days lie
        // behind the window.
        Of(relaxed, RelaxedRule.LongerWindow)
            .ShouldBe("2026-12-02 08:00 08:30 09:00 09:30 10:00 10:30 2026-12-03 08:00 08:30 09:00 09:30 10:00 10:30");
        Of(relaxed, RelaxedRule.NoticeDropped).ShouldBe("2026-12-01 08:00");
        Of(relaxed, RelaxedRule.BufferAfterDropped).ShouldBe("");
        Of(relaxed, RelaxedRule.HoursEarlier).ShouldBe("");
        Of(relaxed, RelaxedRule.HoursLater).ShouldBe("2026-12-01 11:00 11:30");
        relaxed.Single(relaxation => relaxation.Rule == RelaxedRule.NoticeHalved).Value.ShouldBe((780, 390));
        relaxed.Single(relaxation => relaxation.Rule == RelaxedRule.LongerWindow).Value.ShouldBe((1, 8));
    }

    [Fact]
    public void A_run_of_dates_is_lengthened_by_a_week_and_told_in_days()
    {
        var window = new BookingWindow.Dates(new LocalDate(2026, 12, 1), new LocalDate(2026, 12, 2));
        RelaxationsComputation
            .Of(Tuesday(Page() with { Window = window }) with { To = new LocalDate(2026, 12, 4) }, [])
            .Single(relaxation => relaxation.Rule == RelaxedRule.LongerWindow)
            .Value.ShouldBe((2, 9));
    }

    [Fact]
    public void Notice_and_buffers_gain_what_they_kept_closed()
    {
        var host = Host(busy: Span("2026-12-01T09:00:00Z", "2026-12-01T10:00:00Z"));
        var relaxed = RelaxationsComputation.Of(Tuesday(Page() with { BufferBefore = 30, BufferAfter = 20 }, host), []);
        Of(relaxed, RelaxedRule.BufferBeforeDropped).ShouldBe("2026-12-01 10:00");
        Of(relaxed, RelaxedRule.BufferBeforeHalved).ShouldBe("");
        Of(relaxed, RelaxedRule.BufferAfterDropped).ShouldBe("2026-12-01 08:30");
    }

    [Fact]
    public void What_is_one_minute_is_dropped_and_not_halved()
    {
        RelaxedRule[] Tried(int minutes) =>
            [
                .. RelaxationsComputation
                    .Of(Tuesday(Page() with { Notice = minutes, BufferBefore = minutes, BufferAfter = minutes }), [])
                    .Select(relaxation => relaxation.Rule)
                    .Where(rule =>
                        rule
                            is RelaxedRule.NoticeHalved
                                or RelaxedRule.BufferBeforeHalved
                                or RelaxedRule.BufferAfterHalved
                    ),
            ];
        Tried(1).ShouldBeEmpty();
        Tried(2).Length.ShouldBe(3);
    }

    [Fact]
    public void A_day_is_widened_at_its_ends_and_a_closed_one_stays_closed()
    {
        string Wider(string open, RelaxedRule rule) =>
            string.Join(',', RelaxationsComputation.Wider([.. Times(open)], rule).Select(time => time.ToString()));
        Wider("09:00-12:00,13:00-17:00", RelaxedRule.HoursEarlier).ShouldBe("09:00-12:00,13:00-17:00,08:00-09:00");
        Wider("09:00-12:00,13:00-17:00", RelaxedRule.HoursLater).ShouldBe("09:00-12:00,13:00-17:00,17:00-18:00");
        Wider("00:20-24:00", RelaxedRule.HoursEarlier).ShouldBe("00:20-24:00,00:00-00:20");
        Wider("00:00-24:00", RelaxedRule.HoursEarlier).ShouldBe("00:00-24:00");
        Wider("00:00-24:00", RelaxedRule.HoursLater).ShouldBe("00:00-24:00");
        Wider("", RelaxedRule.HoursLater).ShouldBe("");
    }

    [Fact]
    public void A_weekly_cap_is_raised_by_one()
    {
        var page = Page() with { WeeklyCap = 0 };
        Commitment Booking(string id, int hour) =>
            new(
                CommitmentKind.Booking,
                id,
                "page",
                At($"2026-12-0{hour}T13:00:00Z"),
                At($"2026-12-0{hour}T13:30:00Z"),
                0,
                0
            );
        // One session in the week already: a cap of 1 leaves none, one of 2 all.
        var sessions = page with
        {
            WeeklyCap = 1,
            Sessions = [new("s2", At("2026-12-02T13:00:00Z"), At("2026-12-02T13:30:00Z"), 1)],
        };
        var host = Host() with { Commitments = [Booking("s2", 2)] };
        Of(RelaxationsComputation.Of(Tuesday(sessions, host), []), RelaxedRule.PageWeeklyCapRaised)
            .ShouldBe("2026-12-01 08:00 08:30 09:00 09:30 10:00 10:30");
        RelaxationsComputation
            .Of(Tuesday(page), [])
            .Single(relaxation => relaxation.Rule == RelaxedRule.PageWeeklyCapRaised)
            .Value.ShouldBe((0, 1));
    }

    [Fact]
    public void Each_change_is_said_by_its_values_and_computed_with_them()
    {
        var page = Page() with
        {
            Notice = 61,
            BufferBefore = 21,
            BufferAfter = 31,
            DailyCap = 2,
            WeeklyCap = 5,
            Window = new BookingWindow.Ahead(3),
        };
        var host = Host() with { DailyCap = 4, WeeklyCap = 9 };
        var told = RelaxationsComputation
            .Of(Tuesday(page, host), ["h1"])
            .ToDictionary(
                relaxation => relaxation.Rule,
                relaxation =>
                    (relaxation.Value, relaxation.Then!.Page, Host: relaxation.Then.Hosts[0], relaxation.Then.Duration)
            );
        void Says(RelaxedRule rule, int from, int to, Func<(PageRules Page, HostFacts Host, int Duration), int?> then)
        {
            var (value, changed, of, duration) = told[rule];
            value.ShouldBe((from, to), rule.ToString());
            then((changed, of, duration)).ShouldBe(to, rule.ToString());
        }

        Says(RelaxedRule.NoticeHalved, 61, 30, then => then.Page.Notice);
        Says(RelaxedRule.NoticeDropped, 61, 0, then => then.Page.Notice);
        Says(RelaxedRule.BufferBeforeHalved, 21, 10, then => then.Page.BufferBefore);
        Says(RelaxedRule.BufferBeforeDropped, 21, 0, then => then.Page.BufferBefore);
        Says(RelaxedRule.BufferAfterHalved, 31, 15, then => then.Page.BufferAfter);
        Says(RelaxedRule.BufferAfterDropped, 31, 0, then => then.Page.BufferAfter);
        Says(RelaxedRule.ShorterDuration, 30, 15, then => then.Duration);
        Says(RelaxedRule.LongerWindow, 3, 10, then => (then.Page.Window as BookingWindow.Ahead)?.Days);
        Says(RelaxedRule.PageDailyCapRaised, 2, 3, then => then.Page.DailyCap);
        Says(RelaxedRule.PageWeeklyCapRaised, 5, 6, then => then.Page.WeeklyCap);
        Says(RelaxedRule.HostDailyCapRaised, 4, 5, then => then.Host.DailyCap);
        Says(RelaxedRule.HostWeeklyCapRaised, 9, 10, then => then.Host.WeeklyCap);
        // Who has the seat already is nobody to add to it.
        told.Keys.ShouldNotContain(RelaxedRule.SeatOpened);
    }

    [Fact]
    public void Caps_seats_and_hosts_are_tried_one_by_one()
    {
        var booking = new Commitment(
            CommitmentKind.Booking,
            "s",
            "page",
            At("2026-12-01T08:00:00Z"),
            At("2026-12-01T08:30:00Z"),
            0,
            0
        );
        var page = Page() with { DailyCap = 3, LineUp = [new Seat(["a"]), new Seat(["b"])] };
        var input = Tuesday(
            page,
            Host("a") with
            {
                DailyCap = 1,
                Commitments = [booking],
            },
            Host("b", Open("09:00-10:00")),
            Host("c")
        );
        var relaxed = RelaxationsComputation.Of(input, ["c"]);
        var told = relaxed
            .Where(relaxation =>
                relaxation.Rule >= RelaxedRule.PageDailyCapRaised
                && relaxation.Rule is not (RelaxedRule.HoursEarlier or RelaxedRule.HoursLater)
            )
            .Select(relaxation => (relaxation.Rule, relaxation.Seat, relaxation.Host, relaxation.Gained.Count));
        told.ShouldBe([
            (RelaxedRule.SeatOpened, 0, "c", 2),
            (RelaxedRule.HostOptional, 0, "a", 2),
            (RelaxedRule.HostDailyCapRaised, null, "a", 1),
            (RelaxedRule.PageDailyCapRaised, null, null, 0),
            (RelaxedRule.SeatOpened, 1, "c", 0),
            (RelaxedRule.HostOptional, 1, "b", 0),
        ]);
    }

    [Theory]
    [InlineData(90, 75)]
    [InlineData(50, 45)]
    [InlineData(16, 15)]
    [InlineData(15, 10)]
    [InlineData(11, 10)]
    [InlineData(6, 5)]
    [InlineData(5, null)]
    public void A_shorter_duration_is_one_people_use(int duration, int? shorter) =>
        (
            RelaxationsComputation
                .Of(Tuesday(Page()) with { Duration = duration }, [])
                .SingleOrDefault(relaxation => relaxation.Rule == RelaxedRule.ShorterDuration)
                ?.Value?.To
                is var to
            && to == shorter
        ).ShouldBeTrue();

    [Fact]
    public void A_grid_that_moves_with_the_hours_tells_what_is_lost()
    {
        var page = Page() with { Step = 45, StepFrom = StepFrom.Open };
        var earlier = RelaxationsComputation
            .Of(Tuesday(page), [])
            .Single(relaxation => relaxation.Rule == RelaxedRule.HoursEarlier);
        // From 09:00: 09:00, 09:45, 10:30, 11:15. From 08:00: 08:00, 08:45, 09:30, 10:15, 11:00.
        (earlier.Gained.Count, earlier.Lost).ShouldBe((5, 4));
    }

    [Fact]
    public void Only_what_could_change_anything_is_tried()
    {
        var relaxed = RelaxationsComputation.Of(
            Tuesday(Page() with { Only = new OnlyTimes.Exact([At("2026-12-01T08:10:00Z")]) }),
            []
        );
        relaxed.Select(relaxation => relaxation.Rule).ShouldBe([RelaxedRule.ShorterDuration]);
    }

    [Fact]
    public void Less_notice_and_smaller_buffers_never_lose_an_opening() =>
        RandomInput.Any.Sample(
            input =>
            {
                foreach (
                    var relaxation in RelaxationsComputation.Of(
                        input with
                        {
                            AsHolder = null,
                            Page = input.Page with { Places = 1 },
                        },
                        ["a", "b", "c"]
                    )
                )
                {
                    if (
                        relaxation.Rule
                        is RelaxedRule.HoursEarlier
                            or RelaxedRule.HoursLater
                            or RelaxedRule.SeatOpened
                            or RelaxedRule.HostOptional
                    )
                        continue;
                    relaxation.Lost.ShouldBe(0, relaxation.Rule.ToString());
                }
            },
            iter: Tries.Of(1_000)
        );

    private static string Of(IEnumerable<Relaxation> relaxed, RelaxedRule rule) =>
        string.Join(
            ' ',
            relaxed
                .Single(relaxation => relaxation.Rule == rule)
                .Gained.GroupBy(opening => opening.Start.InUtc().Date)
                .Select(day =>
                    $"{day.Key:uuuu'-'MM'-'dd} {string.Join(' ', day.Select(opening => opening.Start.ToString("HH:mm", null)))}"
                )
        );
}
