using static Core.Tests.Sketch;

namespace Core.Tests;

/// <summary>Each rule by hand, one at a time. In Copenhagen in winter 09:00 is 08:00 in UTC.</summary>
public class RuleTests
{
    [Theory]
    [InlineData(30, 0, "08:00 08:30 09:00 09:30 10:00 10:30")]
    [InlineData(60, 15, "08:15 09:15 10:15")]
    [InlineData(50, 0, "08:10 09:00 09:50")]
    [InlineData(45, 40, "08:40 09:25 10:10")]
    public void Grid_by_the_clock_counts_from_midnight(int step, int offset, string expected) =>
        Starts(Tuesday(Page() with { Step = step, StepOffset = offset })).ShouldBe(expected);

    [Fact]
    public void Grid_from_the_open_stretch_counts_from_its_start() =>
        Starts(
                Tuesday(
                    Page() with
                    {
                        Step = 40,
                        StepFrom = StepFrom.Open,
                    },
                    Host(hours: Open("09:07-11:00,13:10-14:00"))
                )
            )
            .ShouldBe("08:07 08:47 09:27 12:10");

    [Fact]
    public void A_stretch_over_midnight_keeps_its_grid_from_the_day_before() =>
        Starts(
                Tuesday(
                    Page() with
                    {
                        Step = 50,
                        StepFrom = StepFrom.Open,
                    },
                    Host(hours: Open("00:00-02:00,23:10-24:00"))
                )
            )
            .ShouldBe("23:00 23:50 22:10");

    [Fact]
    public void A_host_who_is_always_open_follows_the_clock() =>
        Starts(Tuesday(Page() with { Step = 480, StepFrom = StepFrom.Open }, Host() with { Hours = null }))
            .ShouldBe("23:00 07:00 15:00");

    [Theory]
    [InlineData("2026-12-01T07:00:00Z", 60, "08:00 08:30 09:00 09:30 10:00 10:30")]
    [InlineData("2026-12-01T07:00:01Z", 60, "08:30 09:00 09:30 10:00 10:30")]
    [InlineData("2026-12-01T10:30:00Z", 0, "10:30")]
    [InlineData("2026-12-01T10:30:00.5Z", 0, "")]
    public void Notice_counts_elapsed_time_to_the_instant(string now, int notice, string expected) =>
        Starts(
                Tuesday(Page() with { Notice = notice }) with
                {
                    Now = NodaTime.Text.InstantPattern.ExtendedIso.Parse(now).Value,
                }
            )
            .ShouldBe(expected);

    [Theory]
    [InlineData("2026-11-29T22:59:00Z", 1, 0)] // still Sunday the 29th: one day ahead is the 30th
    [InlineData("2026-11-29T23:00:00Z", 1, 6)] // Monday: one day ahead is Tuesday
    [InlineData("2026-12-01T06:00:00Z", 0, 6)] // today alone
    [InlineData("2026-12-01T23:00:00Z", 9, 0)] // Tuesday is past
    public void A_window_ahead_counts_local_days(string now, int days, int expected) =>
        OpeningsComputation
            .Openings(Tuesday(Page() with { Window = new BookingWindow.Ahead(days) }) with { Now = At(now) })
            .Count.ShouldBe(expected);

    [Theory]
    [InlineData("2026-12-01", "2026-12-01", 6)]
    [InlineData("2026-11-01", "2026-11-30", 0)]
    [InlineData("2026-12-02", "2026-12-31", 0)]
    public void A_window_of_dates_has_both_its_ends(string from, string to, int expected)
    {
        LocalDate Date(string text) => NodaTime.Text.LocalDatePattern.Iso.Parse(text).Value;
        OpeningsComputation
            .Openings(Tuesday(Page() with { Window = new BookingWindow.Dates(Date(from), Date(to)) }))
            .Count.ShouldBe(expected);
    }

    [Theory]
    [InlineData("2026-12-01T09:00:00Z", "2026-12-01T09:30:00Z", 0, 0, "08:00 08:30 09:30 10:00 10:30")]
    [InlineData("2026-12-01T09:10:00Z", "2026-12-01T09:20:00Z", 0, 0, "08:00 08:30 09:30 10:00 10:30")]
    [InlineData("2026-12-01T09:00:00Z", "2026-12-01T09:30:00Z", 10, 0, "08:00 08:30 10:00 10:30")]
    [InlineData("2026-12-01T09:00:00Z", "2026-12-01T09:30:00Z", 0, 10, "08:00 09:30 10:00 10:30")]
    [InlineData("2026-12-01T11:00:00Z", "2026-12-01T12:00:00Z", 0, 1, "08:00 08:30 09:00 09:30 10:00")]
    [InlineData("2026-12-01T09:00:00Z", "2026-12-01T09:00:00Z", 0, 0, "08:00 08:30 09:00 09:30 10:00 10:30")]
    public void Busy_time_is_kept_clear_with_the_pages_buffers(
        string start,
        string end,
        int before,
        int after,
        string expected
    ) =>
        Starts(Tuesday(Page() with { BufferBefore = before, BufferAfter = after }, Host(busy: Span(start, end))))
            .ShouldBe(expected);

    [Fact]
    public void Ignored_calendars_are_not_asked_but_commitments_are()
    {
        var host = Host(busy: Span("2026-12-01T08:00:00Z", "2026-12-01T11:00:00Z")) with
        {
            IgnoresCalendars = true,
            Commitments =
            [
                new(CommitmentKind.Hold, "link", null, At("2026-12-01T09:00:00Z"), At("2026-12-01T09:30:00Z"), 0, 0),
            ],
        };
        Starts(Tuesday(Page(), host)).ShouldBe("08:00 08:30 09:30 10:00 10:30");
    }

    [Theory]
    [InlineData(0, 0, "08:00 08:30 09:30 10:00 10:30")]
    [InlineData(15, 0, "08:00 09:30 10:00 10:30")] // its own time before it
    [InlineData(0, 15, "08:00 08:30 10:00 10:30")] // its own time after it
    public void A_commitment_keeps_the_buffers_it_was_made_with(int before, int after, string expected)
    {
        var taken = new Commitment(
            CommitmentKind.Booking,
            "s",
            "other",
            At("2026-12-01T09:00:00Z"),
            At("2026-12-01T09:30:00Z"),
            before,
            after
        );
        Starts(Tuesday(Page(), Host() with { Commitments = [taken] })).ShouldBe(expected);
    }

    [Theory]
    [InlineData(HoursMode.Hosts, "08:00 08:30 09:00 09:30 10:00 10:30")]
    [InlineData(HoursMode.Page, "10:00 10:30 11:00 11:30")]
    [InlineData(HoursMode.Both, "10:00 10:30")]
    public void The_pages_hours_the_hosts_or_both(HoursMode mode, string expected) =>
        Starts(Tuesday(Page() with { HoursMode = mode, Hours = Open("11:00-13:00") })).ShouldBe(expected);

    [Fact]
    public void Of_several_dated_changes_the_last_one_listed_wins()
    {
        var date = new LocalDate(2026, 12, 1);
        var hours = Open(
            "09:00-12:00",
            null,
            new DatedChange(date.PlusDays(-9), date.PlusDays(9), []),
            new DatedChange(date, date, [new OpenTime(600, 660)])
        );
        Starts(Tuesday(Page(), Host(hours: hours))).ShouldBe("09:00 09:30");
    }

    [Fact]
    public void Hours_in_another_zone_than_the_pages_are_read_by_their_own_clock() =>
        Starts(Tuesday(Page(), Host(hours: Open("09:00-10:00", DateTimeZoneProviders.Tzdb["Europe/Lisbon"]))))
            .ShouldBe("09:00 09:30");

    [Fact]
    public void Nothing_starts_that_cannot_end_within_one_stretch() =>
        Starts(Tuesday(Page(), Host(hours: Open("09:00-09:45,10:00-10:30"))) with { Duration = 30 })
            .ShouldBe("08:00 09:00");

    [Fact]
    public void Distinct_hosts_are_found_even_where_first_come_would_fail()
    {
        var page = Page() with { LineUp = [new Seat(["a", "b"]), new Seat(["a", "c"]), new Seat(["a"])] };
        Starts(Tuesday(page, Host("a"), Host("b"), Host("c"))).ShouldBe("08:00 08:30 09:00 09:30 10:00 10:30");
        Starts(Tuesday(page with { LineUp = [new Seat(["a"]), new Seat(["a"])] }, Host("a"))).ShouldBe("");
    }

    [Fact]
    public void A_spring_night_has_no_skipped_hour_and_an_autumn_night_has_one_twice()
    {
        var night = Host(hours: Open("01:00-04:00"));
        var hourly = Page() with { Step = 60 };
        Starts(On(new LocalDate(2026, 3, 29), hourly, night)).ShouldBe("00:00 01:00");
        Starts(On(new LocalDate(2026, 10, 25), hourly, night)).ShouldBe("23:00 00:00 01:00 02:00");
    }

    [Fact]
    public void A_date_that_a_zone_left_out_has_no_openings()
    {
        // Samoa went from the 29th to the 31st of December 2011.
        var apia = DateTimeZoneProviders.Tzdb["Pacific/Apia"];
        var host = Host(hours: Open("09:00-10:00", apia));
        OpeningsComputation.Openings(On(new LocalDate(2011, 12, 30), Page(apia), host)).ShouldBeEmpty();
        OpeningsComputation
            .Openings(On(new LocalDate(2011, 12, 29), Page(apia), host) with { To = new LocalDate(2011, 12, 31) })
            .Count.ShouldBe(4);
        OpeningsComputation.Openings(On(new LocalDate(2011, 12, 28), Page(apia), host)).Count.ShouldBe(2);
    }

    [Theory]
    [InlineData(0, 30)]
    [InlineData(30, 0)]
    public void Nonsense_is_refused(int duration, int step) =>
        Should.Throw<ArgumentException>(() =>
            OpeningsComputation.Openings(Tuesday(Page() with { Step = step }) with { Duration = duration })
        );

    [Theory]
    [InlineData(1, "08:00 08:30 09:00", "2 1 3")]
    [InlineData(2, "08:00 09:00", "2 3")]
    [InlineData(3, "09:00", "3")]
    [InlineData(4, "", "")]
    public void A_party_needs_a_place_for_each_who_comes(int party, string starts, string left)
    {
        SessionFacts Of(string id, string start, int people) =>
            new(id, At($"2026-12-01T{start}:00Z"), At($"2026-12-01T{start}:00Z") + Duration.FromMinutes(30), people);
        var sessions = new[] { Of("s1", "08:00", 1), Of("s2", "08:30", 2) };
        var host = Host(hours: Open("09:00-10:30")) with
        {
            Commitments =
            [
                .. sessions.Select(session => new Commitment(
                    CommitmentKind.Booking,
                    session.Id,
                    "page",
                    session.Start,
                    session.End,
                    0,
                    0
                )),
            ],
        };
        var input = Tuesday(Page() with { Places = 3, Sessions = sessions }, host) with { Party = party };

        Starts(input).ShouldBe(starts);
        string.Join(' ', OpeningsComputation.Openings(input).Select(opening => opening.PlacesLeft)).ShouldBe(left);
        OpeningsComputation.SessionToJoin(input, sessions[1].Start).ShouldBe(party == 1 ? "s2" : null);
        (OpeningsComputation.HostsFreeAt(input, At("2026-12-01T09:00:00Z")) is null).ShouldBe(party > 3);
    }

    [Fact]
    public void Where_a_party_does_not_fit_beside_others_a_second_session_may_stand_beside_it()
    {
        var session = new SessionFacts("s1", At("2026-12-01T08:00:00Z"), At("2026-12-01T08:30:00Z"), 2);
        var taken = new Commitment(CommitmentKind.Booking, "s1", "page", session.Start, session.End, 0, 0);
        var page = Page() with { Places = 3, Sessions = [session], LineUp = [new Seat(["h1", "h2"])] };
        var input = Tuesday(page, Host() with { Commitments = [taken] }, Host("h2"));

        OpeningsComputation.Openings(input)[0].PlacesLeft.ShouldBe(1);
        OpeningsComputation.Openings(input with { Party = 2 })[0].PlacesLeft.ShouldBe(3);
    }

    [Fact]
    public void Of_sessions_side_by_side_the_fewest_places_left_are_told()
    {
        var start = At("2026-12-01T08:00:00Z");
        SessionFacts Of(string id, int guests) => new(id, start, start + Duration.FromMinutes(30), guests);
        Commitment Taken(string id) =>
            new(CommitmentKind.Booking, id, "page", start, start + Duration.FromMinutes(30), 0, 0);
        var page = Page() with { Places = 4, Sessions = [Of("s1", 1), Of("s2", 3)], LineUp = [new Seat(["h1", "h2"])] };
        var input = Tuesday(
            page,
            Host() with
            {
                Commitments = [Taken("s1")],
            },
            Host("h2") with
            {
                Commitments = [Taken("s2")],
            }
        );
        OpeningsComputation.Openings(input)[0].PlacesLeft.ShouldBe(1);
    }

    [Fact]
    public void Dates_before_1970_are_dates_like_any()
    {
        var start = At("1969-12-02T08:00:00Z");
        var session = new SessionFacts("s1", start, start + Duration.FromMinutes(30), 1);
        var page = Page() with { DailyCap = 1, Sessions = [session] };
        var input = On(new LocalDate(1969, 12, 1), page, Host()) with
        {
            Now = At("1969-11-01T00:00:00Z"),
            To = new LocalDate(1969, 12, 3),
        };
        OpeningsComputation
            .Openings(input)
            .Select(opening => opening.Start.InZone(Copenhagen).Day)
            .Distinct()
            .ShouldBe([1, 3]);
    }

    [Fact]
    public void Nobody_coming_is_refused() =>
        Should.Throw<ArgumentException>(() => OpeningsComputation.Openings(Tuesday(Page()) with { Party = 0 }));

    [Fact]
    public void Of_sessions_with_room_the_fullest_is_joined_and_of_those_the_first_by_id()
    {
        var start = At("2026-12-01T08:00:00Z");
        SessionFacts Of(string id, int guests) => new(id, start, start + Duration.FromMinutes(30), guests);
        string? Joined(params SessionFacts[] sessions) =>
            OpeningsComputation.SessionToJoin(Tuesday(Page() with { Places = 4, Sessions = sessions }), start);

        Joined(Of("a", 1), Of("b", 3), Of("c", 2)).ShouldBe("b");
        Joined(Of("a", 1), Of("c", 2), Of("b", 2)).ShouldBe("b");
        Joined(Of("a", 4), Of("b", 1)).ShouldBe("b");
        Joined(Of("a", 4)).ShouldBeNull();
    }

    [Fact]
    public void Hosts_whose_weeks_are_alike_have_days_off_and_zones_of_their_own()
    {
        var tuesday = new LocalDate(2026, 12, 1);
        var lisbon = DateTimeZoneProviders.Tzdb["Europe/Lisbon"];
        OpeningsInput Pool(HoursSet one, HoursSet other) =>
            Tuesday(
                Page() with
                {
                    Step = 60,
                    LineUp = [new Seat(["h1"]), new Seat(["h2"])],
                },
                Host("h1", one),
                Host("h2", other)
            );
        var usual = Open("09:00-12:00");
        DatedChange Change(string times) => new(tuesday, tuesday, [.. Times(times)]);
        Starts(Pool(usual, Open("09:00-12:00"))).ShouldBe("08:00 09:00 10:00");
        Starts(Pool(usual, Open("09:00-12:00", lisbon))).ShouldBe("09:00 10:00");
        Starts(Pool(Open("09:00-12:00", null, Change("09:00-11:00")), Open("09:00-12:00", null, Change("10:00-12:00"))))
            .ShouldBe("09:00");
        Starts(
                Pool(
                    Open("09:00-12:00", null, new DatedChange(tuesday.PlusDays(1), tuesday.PlusDays(1), [])),
                    Open("09:00-12:00", null, Change(""))
                )
            )
            .ShouldBe("");
    }
}
