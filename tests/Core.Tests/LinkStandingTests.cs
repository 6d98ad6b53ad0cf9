using LooseLantern.Core.Links;

namespace Core.Tests;

/// <summary>Where a link stands.</summary>
public class LinkStandingTests
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
        Standing: 0
    );

    [Fact]
    public void It_goes_from_draft_to_out_to_opened_to_booked()
    {
        LinkStanding.Of(Out with { OutAt = null }, Today).ShouldBe(LinkState.Draft);
        LinkStanding.Of(Out, Today).ShouldBe(LinkState.Out);
        LinkStanding.Of(Out with { OpenedAt = Sent }, Today).ShouldBe(LinkState.Opened);
        LinkStanding.Of(Out with { OpenedAt = Sent, Booked = 1, Standing = 1 }, Today).ShouldBe(LinkState.Booked);
    }

    [Fact]
    public void It_ends_after_its_last_date_and_is_revoked_whatever_else_it_is()
    {
        LinkStanding.Of(Out, Today.PlusDays(3)).ShouldBe(LinkState.Out);
        LinkStanding.Of(Out, Today.PlusDays(4)).ShouldBe(LinkState.Ended);
        LinkStanding.Of(Out with { Standing = 1, Booked = 1, Takes = 2 }, Today.PlusDays(4)).ShouldBe(LinkState.Booked);
        LinkStanding.Of(Out with { RevokedAt = Sent, Standing = 1, Booked = 1 }, Today).ShouldBe(LinkState.Revoked);
    }

    [Fact]
    public void A_cancelled_booking_reopens_it_only_where_that_was_wanted()
    {
        // Where it reopens, the cancelled booking does not count as taken.
        LinkStanding.IsOpen(Out with { Booked = 0, Standing = 0 }, Today).ShouldBeTrue();
        LinkStanding.Of(Out with { Booked = 1, Standing = 0 }, Today).ShouldBe(LinkState.Ended);
        LinkStanding.MayBeTaken(Out with { Booked = 1, Standing = 0 }, Today).ShouldBeFalse();
    }

    [Fact]
    public void One_that_takes_several_is_open_until_the_last()
    {
        LinkStanding.IsOpen(Out with { Takes = 3, Booked = 2, Standing = 2 }, Today).ShouldBeTrue();
        LinkStanding.IsOpen(Out with { Takes = 3, Booked = 3, Standing = 3 }, Today).ShouldBeFalse();
    }

    [Fact]
    public void The_team_may_book_a_draft_but_nobody_what_is_over()
    {
        LinkStanding.MayBeTaken(Out with { OutAt = null }, Today).ShouldBeTrue();
        LinkStanding.MayBeTaken(Out with { RevokedAt = Sent }, Today).ShouldBeFalse();
        LinkStanding.MayBeTaken(Out, Today.PlusDays(3)).ShouldBeTrue();
        LinkStanding.MayBeTaken(Out, Today.PlusDays(4)).ShouldBeFalse();
    }

    [Fact]
    public void Somebody_is_waited_for_since_it_went_out_or_was_last_asked_about()
    {
        var asked = Sent + Duration.FromDays(2);
        LinkStanding.WaitsSince(Out, Today, askedAt: null).ShouldBe(Sent);
        LinkStanding.WaitsSince(Out, Today, asked).ShouldBe(asked);
        LinkStanding.WaitsSince(Out with { OutAt = null }, Today, null).ShouldBeNull();
        LinkStanding.WaitsSince(Out with { Booked = 1, Standing = 1 }, Today, asked).ShouldBeNull();
    }
}
