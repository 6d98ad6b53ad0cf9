using CsCheck;
using LooseLantern.Core.Links;
using NodaTime.Text;

namespace Core.Tests;

/// <summary>What a link offers, as the rules of the computation.</summary>
public class OfferTests
{
    private static readonly DateTimeZone Copenhagen = Sketch.Copenhagen;
    private static readonly LocalDate Today = new(2026, 12, 7);

    [Fact]
    public void Picked_times_are_the_only_ones_until_the_last_date()
    {
        var picked = Instant.FromUtc(2026, 12, 8, 8, 0);
        var rules = OfferRules.Apply(Rules(), Offer(OfferBy.Picked) with { Picked = [picked] }, Today);

        rules.Only.ShouldBeOfType<OnlyTimes.Exact>().Starts.ShouldBe([picked]);
        rules.Window.ShouldBe(new BookingWindow.Dates(Today, new LocalDate(2026, 12, 18)));
    }

    [Fact]
    public void Free_time_counts_on_each_day_of_the_week_and_from_a_date_on()
    {
        var offer = Offer(OfferBy.Free) with { FromMinute = 9 * 60, ToMinute = 10 * 60 };
        var rules = OfferRules.Apply(Rules(), offer, Today);
        foreach (var day in Enumerable.Range(1, 7).Select(day => (IsoDayOfWeek)day))
            rules.Hours!.Week[day].ShouldBe([new OpenTime(9 * 60, 10 * 60)]);
        OfferRules
            .Apply(Rules(), offer with { From = new LocalDate(2026, 12, 10) }, Today)
            .Window.ShouldBe(new BookingWindow.Dates(new LocalDate(2026, 12, 10), new LocalDate(2026, 12, 18)));
        OfferRules
            .Apply(Rules(), offer with { From = new LocalDate(2026, 12, 1) }, Today)
            .Window.ShouldBe(new BookingWindow.Dates(Today, new LocalDate(2026, 12, 18)));
    }

    [Fact]
    public void Another_way_to_offer_loses_nothing_of_what_was_picked_or_painted()
    {
        var offer = Offer(OfferBy.Picked) with
        {
            Picked = [Instant.FromUtc(2026, 12, 8, 8, 0)],
            Painted = [Paint(8, 9, 0, 60)],
        };

        var back = (offer with { By = OfferBy.Free }) with { By = OfferBy.Picked };

        OfferRules.Apply(Rules(), back, Today).ShouldBeEquivalentTo(OfferRules.Apply(Rules(), offer, Today));
        OfferRules
            .Apply(Rules(), offer with { By = OfferBy.Painted }, Today)
            .Only.ShouldBeOfType<OnlyTimes.Painted>()
            .Spans.Count.ShouldBe(1);
    }

    [Fact]
    public void A_painted_stretch_comes_each_week_until_the_last_date_and_not_before_today()
    {
        var offer = Offer(OfferBy.Painted) with
        {
            Painted = [new PaintedTime(new LocalDateTime(2026, 11, 24, 9, 0), 120, IsWeekly: true)],
            Until = new LocalDate(2026, 12, 22),
        };

        OfferRules.Painted(offer, Copenhagen, Today).ShouldBe([At(8, 8, 120), At(15, 8, 120), At(22, 8, 120)]);
        OfferRules
            .Painted(offer with { Painted = [offer.Painted[0] with { IsWeekly = false }] }, Copenhagen, Today)
            .ShouldBeEmpty();
    }

    [Fact]
    public void What_was_painted_yesterday_reaches_into_today()
    {
        var offer = Offer(OfferBy.Painted) with { Painted = [Paint(6, 22, 0, 240)] };

        OfferRules.Painted(offer, Copenhagen, Today).ShouldBe([At(6, 21, 240)]);
        OfferRules.Painted(offer, Copenhagen, Today.PlusDays(1)).ShouldBeEmpty();
    }

    [Fact]
    public void Days_and_hours_cut_what_is_painted()
    {
        var offer = Offer(OfferBy.Painted) with
        {
            Painted = [Paint(8, 7, 0, 180), Paint(9, 22, 0, 240)],
            Days = [IsoDayOfWeek.Tuesday, IsoDayOfWeek.Thursday],
            FromMinute = 8 * 60,
            ToMinute = 24 * 60,
        };

        // Tuesday from eight on; of the night from Wednesday to Thursday nothing, since Thursday begins at eight.
        OfferRules.Painted(offer, Copenhagen, Today).ShouldBe([At(8, 7, 120)]);
        OfferRules
            .Painted(offer with { FromMinute = 0 }, Copenhagen, Today)
            .ShouldBe([
                At(8, 6, 180),
                new Span(Instant.FromUtc(2026, 12, 9, 23, 0), Instant.FromUtc(2026, 12, 10, 1, 0)),
            ]);
    }

    [Theory]
    // The clock goes on from two to three; an hour is not there.
    [InlineData(2027, 3, 28, 1, 240, "2027-03-28T00:00:00Z", "2027-03-28T03:00:00Z")]
    [InlineData(2027, 3, 28, 2, 120, "2027-03-28T01:00:00Z", "2027-03-28T02:00:00Z")]
    // The clock goes back from three to two; an hour is there twice.
    [InlineData(2026, 10, 25, 1, 240, "2026-10-24T23:00:00Z", "2026-10-25T04:00:00Z")]
    [InlineData(2026, 10, 25, 2, 60, "2026-10-25T00:00:00Z", "2026-10-25T02:00:00Z")]
    public void What_is_painted_across_a_clock_change_stays_on_the_wall_clock(
        int year,
        int month,
        int day,
        int hour,
        int minutes,
        string from,
        string to
    )
    {
        var offer = Offer(OfferBy.Painted) with
        {
            Painted = [new PaintedTime(new LocalDateTime(year, month, day, hour, 0), minutes, IsWeekly: false)],
            Until = new LocalDate(year, month, day).PlusDays(1),
        };

        var span = OfferRules.Painted(offer, Copenhagen, new LocalDate(year, month, day)).ShouldHaveSingleItem();

        (InstantPattern.General.Format(span.Start), InstantPattern.General.Format(span.End)).ShouldBe((from, to));
    }

    [Theory]
    // Half past two comes twice, and so does the half hour after it; two to half past two was not painted in either
    // pass.
    [InlineData(2, 30, 75, "2026-10-25T00:30:00Z/2026-10-25T01:00:00Z 2026-10-25T01:30:00Z/2026-10-25T02:45:00Z")]
    [InlineData(1, 0, 90, "2026-10-24T23:00:00Z/2026-10-25T00:30:00Z 2026-10-25T01:00:00Z/2026-10-25T01:30:00Z")]
    public void Of_an_hour_that_comes_twice_no_more_is_offered_than_was_painted(
        int hour,
        int minute,
        int minutes,
        string expected
    )
    {
        var day = new LocalDate(2026, 10, 25);
        var offer = Offer(OfferBy.Painted) with
        {
            Painted = [new PaintedTime(day.AtMidnight().PlusMinutes((hour * 60) + minute), minutes, IsWeekly: false)],
            Until = day,
        };

        string.Join(
                ' ',
                OfferRules
                    .Painted(offer, Copenhagen, day)
                    .Select(span =>
                        $"{InstantPattern.General.Format(span.Start)}/{InstantPattern.General.Format(span.End)}"
                    )
            )
            .ShouldBe(expected);
    }

    [Fact]
    public void Whatever_is_free_asks_the_hosts_hours_within_the_days_and_hours_that_count()
    {
        var all = OfferRules.Apply(Rules(), Offer(OfferBy.Free), Today);
        (all.HoursMode, all.Hours, all.Only).ShouldBe((HoursMode.Hosts, null, null));
        // A minute less is less than all.
        OfferRules
            .Apply(Rules(), Offer(OfferBy.Free) with { FromMinute = 1 }, Today)
            .HoursMode.ShouldBe(HoursMode.Both);
        OfferRules
            .Apply(Rules(), Offer(OfferBy.Free) with { ToMinute = 1439 }, Today)
            .HoursMode.ShouldBe(HoursMode.Both);
        // Who is asked first is offered the same; it is only not shown.
        OfferRules.Apply(Rules(), Offer(OfferBy.Asked), Today).ShouldBeEquivalentTo(all);

        var some = OfferRules.Apply(
            Rules(),
            Offer(OfferBy.Free) with
            {
                Days = [IsoDayOfWeek.Friday],
                FromMinute = 480,
                ToMinute = 720,
            },
            Today
        );
        some.HoursMode.ShouldBe(HoursMode.Both);
        some.Hours!.OpenOn(new LocalDate(2026, 12, 11)).ShouldBe([new OpenTime(480, 720)]);
        some.Hours.OpenOn(new LocalDate(2026, 12, 10)).ShouldBeEmpty();
    }

    [Fact]
    public void Whatever_is_painted_no_span_lies_outside_the_paint_the_days_and_the_hours()
    {
        var zones = Gen.Int[0, 4]
            .Select(at =>
                new[]
                {
                    "Europe/Copenhagen",
                    "Asia/Kolkata",
                    "America/Halifax",
                    "Pacific/Auckland",
                    "Australia/Lord_Howe",
                }[at]
            )
            .Select(id => DateTimeZoneProviders.Tzdb[id]);
        var paints = Gen.Select(
            Gen.Int[-20, 400],
            Gen.Int[0, 95],
            Gen.Int[1, 96],
            Gen.Bool,
            (day, quarter, quarters, weekly) =>
                new PaintedTime(Today.PlusDays(day).AtMidnight().PlusMinutes(quarter * 15), quarters * 15, weekly)
        ).List[1, 6];
        var days = Gen.Int[1, 7].Select(day => (IsoDayOfWeek)day).List[0, 4];
        Gen.Select(zones, paints, days, Gen.Int[0, 12], Gen.Int[13, 24], Gen.Int[0, 380])
            .Sample(
                (zone, painted, chosen, from, to, until) =>
                {
                    var offer = Offer(OfferBy.Painted) with
                    {
                        Painted = painted,
                        Days = [.. chosen.Distinct()],
                        FromMinute = from * 60,
                        ToMinute = to * 60,
                        Until = Today.PlusDays(until),
                    };
                    var spans = OfferRules.Painted(offer, zone, Today);
                    for (var i = 1; i < spans.Count; i++)
                        (spans[i].Start > spans[i - 1].End).ShouldBeTrue();
                    foreach (var span in spans)
                    {
                        for (var at = span.Start; at < span.End; at += Duration.FromMinutes(15))
                        {
                            var local = at.InZone(zone).LocalDateTime;
                            (offer.Days.Count == 0 || offer.Days.Contains(local.DayOfWeek)).ShouldBeTrue(
                                $"{local} is on another day"
                            );
                            var minute = (local.Hour * 60) + local.Minute;
                            (minute >= offer.FromMinute && minute < offer.ToMinute).ShouldBeTrue(
                                $"{local} is outside the hours"
                            );
                            painted.Any(paint => IsWithin(paint, local)).ShouldBeTrue($"{local} was not painted");
                        }
                    }
                    // And nothing of it is left out: each quarter that was painted, in each of its passes.
                    foreach (
                        var local in painted
                            .Where(paint =>
                                !paint.IsWeekly && paint.Start.Date >= Today && paint.Start.Date <= offer.Until
                            )
                            .SelectMany(paint =>
                                Enumerable
                                    .Range(0, paint.Minutes / 15)
                                    .Select(quarter => paint.Start.PlusMinutes(quarter * 15))
                            )
                    )
                    {
                        var minute = (local.Hour * 60) + local.Minute;
                        if (
                            (offer.Days.Count > 0 && !offer.Days.Contains(local.DayOfWeek))
                            || minute < offer.FromMinute
                            || minute >= offer.ToMinute
                        )
                            continue;
                        foreach (var at in Passes(zone, local))
                            spans.Any(span => span.Start <= at && at < span.End).ShouldBeTrue($"{local} was painted");
                    }
                },
                iter: Tries.Of(400)
            );

        static IEnumerable<Instant> Passes(DateTimeZone zone, LocalDateTime local) =>
            zone.MapLocal(local) switch
            {
                { Count: 0 } => [],
                { Count: 1 } once => [once.Single().ToInstant()],
                var twice => [twice.First().ToInstant(), twice.Last().ToInstant()],
            };

        static bool IsWithin(PaintedTime paint, LocalDateTime local)
        {
            var apart = Period.Between(paint.Start, local, PeriodUnits.Minutes).Minutes;
            return apart >= 0 && (paint.IsWeekly ? apart % (7 * 24 * 60) : apart) < paint.Minutes;
        }
    }

    [Fact]
    public void Where_only_so_many_are_shown_they_are_of_the_openings_and_spread()
    {
        var input = Sketch.On(Today, Rules()) with
        {
            To = Today.PlusDays(4),
            Now = Instant.FromUtc(2026, 12, 6, 12, 0),
        };
        var all = OpeningsComputation.Openings(input);
        all.Count.ShouldBeGreaterThan(5);

        var shown = ShownOpenings.Of(input, 3, []);

        shown.Count.ShouldBe(3);
        shown.ShouldBeSubsetOf(all);
        shown.Select(opening => opening.Start.InZone(Copenhagen).Date).Distinct().Count().ShouldBeGreaterThan(1);
        ShownOpenings.Of(input, null, []).ShouldBe(all);
        ShownOpenings.Of(input, all.Count, []).ShouldBe(all);
    }

    private static PageRules Rules() => Sketch.Page();

    private static Offer Offer(OfferBy by) => new(by, [], [], [], 0, 24 * 60, new LocalDate(2026, 12, 18), null);

    private static PaintedTime Paint(int day, int hour, int minute, int minutes) =>
        new(new LocalDateTime(2026, 12, day, hour, minute), minutes, IsWeekly: false);

    private static Span At(int day, int utcHour, int minutes) =>
        new(
            Instant.FromUtc(2026, 12, day, utcHour, 0),
            Instant.FromUtc(2026, 12, day, utcHour, 0) + Duration.FromMinutes(minutes)
        );
}
