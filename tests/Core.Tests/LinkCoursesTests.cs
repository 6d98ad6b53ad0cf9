using CsCheck;
using LooseLantern.Core.Links;

namespace Core.Tests;

/// <summary>Where a link stands.</summary>
public class LinkCoursesTests
{
    private static readonly LocalDate Today = new(2026, 12, 7);
    private static readonly Instant Sent = Instant.FromUtc(2026, 12, 4, 9, 0);
    private static readonly LinkFacts Out = new(
        Sent,
        RevokedAt: null,
        OpenedAt: null,
        Today.PlusDays(3),
        Takes: 1,
        Booked: 0,
        NotCancelled: 0
    );

    [Fact]
    public void It_goes_from_draft_to_out_to_opened_to_booked()
    {
        LinkCourses.Of(Out with { OutAt = null }, Today).ShouldBe(LinkState.Draft);
        LinkCourses.Of(Out, Today).ShouldBe(LinkState.Out);
        LinkCourses.Of(Out with { OpenedAt = Sent }, Today).ShouldBe(LinkState.Opened);
        LinkCourses.Of(Out with { OpenedAt = Sent, Booked = 1, NotCancelled = 1 }, Today).ShouldBe(LinkState.Booked);
    }

    [Fact]
    public void It_ends_after_its_last_date_and_is_revoked_whatever_else_it_is()
    {
        LinkCourses.Of(Out, Today.PlusDays(3)).ShouldBe(LinkState.Out);
        LinkCourses.Of(Out, Today.PlusDays(4)).ShouldBe(LinkState.Ended);
        LinkCourses
            .Of(Out with { NotCancelled = 1, Booked = 1, Takes = 2 }, Today.PlusDays(4))
            .ShouldBe(LinkState.Booked);
        LinkCourses.Of(Out with { RevokedAt = Sent, NotCancelled = 1, Booked = 1 }, Today).ShouldBe(LinkState.Revoked);
    }

    [Fact]
    public void A_cancelled_booking_reopens_it_only_where_that_was_wanted()
    {
        // Where it reopens, the cancelled booking does not count as taken.
        LinkCourses.IsOpen(Out with { Booked = 0, NotCancelled = 0 }, Today).ShouldBeTrue();
        LinkCourses.Of(Out with { Booked = 1, NotCancelled = 0 }, Today).ShouldBe(LinkState.Ended);
        LinkCourses.MayBeTaken(Out with { Booked = 1, NotCancelled = 0 }, Today).ShouldBeFalse();
    }

    [Fact]
    public void One_that_takes_several_is_open_until_the_last()
    {
        LinkCourses.IsOpen(Out with { Takes = 3, Booked = 2, NotCancelled = 2 }, Today).ShouldBeTrue();
        LinkCourses.IsOpen(Out with { Takes = 3, Booked = 3, NotCancelled = 3 }, Today).ShouldBeFalse();
    }

    [Fact]
    public void The_team_may_book_a_draft_but_nobody_what_is_over()
    {
        LinkCourses.MayBeTaken(Out with { OutAt = null }, Today).ShouldBeTrue();
        LinkCourses.MayBeTaken(Out with { RevokedAt = Sent }, Today).ShouldBeFalse();
        LinkCourses.MayBeTaken(Out, Today.PlusDays(3)).ShouldBeTrue();
        LinkCourses.MayBeTaken(Out, Today.PlusDays(4)).ShouldBeFalse();
    }

    [Fact]
    public void Somebody_is_waited_for_since_it_went_out_or_was_last_asked_about()
    {
        var (asked, now) = (Sent + Duration.FromDays(2), Sent + Duration.FromDays(3));
        Instant? Since(LinkFacts facts, Instant? askedAt) =>
            LinkCourses.CourseOf(facts, Sketch.Copenhagen).WaitsSinceAt(now, facts.OutAt, askedAt);
        Since(Out, askedAt: null).ShouldBe(Sent);
        Since(Out, asked).ShouldBe(asked);
        Since(Out with { OutAt = null }, null).ShouldBeNull();
        Since(Out with { Booked = 1, NotCancelled = 1 }, asked).ShouldBeNull();
        Since(Out with { EndsOn = Today.PlusDays(-1) }, asked).ShouldBeNull();
    }

    [Fact]
    public void What_is_kept_says_at_each_instant_where_it_stands()
    {
        var facts =
            from outAt in OneOf<Instant?>(null, Sent)
            from revokedAt in OneOf<Instant?>(null, null, Sent)
            from openedAt in OneOf<Instant?>(null, Sent)
            from takes in Gen.Int[1, 3]
            from standing in Gen.Int[0, takes]
            from cancelled in Gen.Int[0, 2]
            select Out with
            {
                OutAt = outAt,
                RevokedAt = revokedAt,
                OpenedAt = openedAt,
                Takes = takes,
                Booked = standing + cancelled,
                NotCancelled = standing,
            };
        Gen.Select(facts, OneOf("Europe/Copenhagen", "Pacific/Auckland", "America/Halifax"), Gen.Int[0, 240])
            .Sample(
                (of, zoneId, hours) =>
                {
                    var zone = DateTimeZoneProviders.Tzdb[zoneId];
                    var now = Instant.FromUtc(2026, 12, 5, 0, 0) + Duration.FromHours(hours);
                    var today = now.InZone(zone).Date;
                    var course = LinkCourses.CourseOf(of, zone);
                    return course.StateAt(now) == LinkCourses.Of(of, today)
                        && course.MayBeTakenAt(now) == LinkCourses.MayBeTaken(of, today)
                        && course.IsOpenAt(now) == LinkCourses.IsOpen(of, today);
                },
                iter: Tries.Of(5_000)
            );

        static Gen<T> OneOf<T>(params T[] choices) => Gen.Int[0, choices.Length - 1].Select(at => choices[at]);
    }
}
