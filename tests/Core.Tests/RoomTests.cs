using CsCheck;
using LooseLantern.Core.LineUps;
using static Core.Tests.Sketch;

namespace Core.Tests;

/// <summary>For how many guests openings have room.</summary>
public class RoomTests
{
    [Fact]
    public void Openings_that_overlap_are_room_for_fewer_guests()
    {
        // Nine to twelve: an hour each, every half hour.
        var hours = Tuesday(Page(), Host()) with { Duration = 60 };
        OpeningsComputation.Openings(hours).Count.ShouldBe(5);
        Room.For(hours, most: 99).ShouldBe(3);
        Room.For(hours, most: 2).ShouldBe(2);
        // With time kept free around each there is room for two.
        var apart = hours with { Page = hours.Page with { BufferAfter = 30 } };
        Room.For(apart, most: 99).ShouldBe(2);
        Room.For(hours with { Hosts = [Host(busy: Span("2026-12-01T07:00:00Z", "2026-12-01T12:00:00Z"))] }, 99)
            .ShouldBe(0);
    }

    [Fact]
    public void Of_a_pool_each_host_has_room_and_of_a_panel_all_are_needed()
    {
        var both = new[] { Host("h1"), Host("h2", busy: Span("2026-12-01T10:00:00Z", "2026-12-01T11:00:00Z")) };
        var pool = Tuesday(Page() with { LineUp = [new Seat(["h1", "h2"])] }, both) with { Duration = 60 };
        Room.For(pool, most: 99).ShouldBe(5);
        var panel = pool with { Page = pool.Page with { LineUp = [new Seat(["h1"]), new Seat(["h2"])] } };
        Room.For(panel, most: 99).ShouldBe(2);
    }

    [Fact]
    public void A_session_has_room_for_as_many_as_it_has_places()
    {
        var page = Page() with
        {
            Places = 4,
            Sessions = [new SessionFacts("s", At("2026-12-01T08:00:00Z"), At("2026-12-01T09:00:00Z"), Guests: 3)],
        };
        var held = new Commitment(
            CommitmentKind.Booking,
            "s",
            "page",
            At("2026-12-01T08:00:00Z"),
            At("2026-12-01T09:00:00Z"),
            0,
            0
        );
        var group = Tuesday(page, Host() with { Commitments = [held] }) with { Duration = 60 };
        // One place in the session there is, and two sessions of four.
        Room.For(group, most: 99).ShouldBe(9);
        Room.For(group, most: 6).ShouldBe(6);
    }

    [Fact]
    public void No_order_of_booking_makes_room_for_more_and_all_that_is_counted_can_be_booked() =>
        RandomInput.Any.Sample(
            any =>
            {
                var input = any with
                {
                    Party = 1,
                    Page = any.Page with
                    {
                        Places = 1,
                        DailyCap = null,
                        WeeklyCap = null,
                        LineUp = [any.Page.LineUp[0]],
                    },
                    Hosts = [.. any.Hosts.Select(host => host with { DailyCap = null, WeeklyCap = null })],
                };
                var openings = OpeningsComputation.Openings(input);
                var room = Room.For(input, most: 99);
                (room == 0).ShouldBe(openings.Count == 0);
                if (openings.Count <= 7)
                    room.ShouldBe(Most(input, openings));
            },
            iter: Tries.Of(400)
        );

    /// <summary>By trying every opening with every host first.</summary>
    private static int Most(OpeningsInput input, IReadOnlyList<Opening> openings)
    {
        var most = 0;
        foreach (var opening in openings)
        {
            foreach (var host in OpeningsComputation.HostsFreeAt(input, opening.Start)!)
            {
                if (!input.Page.LineUp[0].AnyOf.Contains(host))
                    continue;
                var booked = new Commitment(
                    CommitmentKind.Booking,
                    $"try-{openings.Count}",
                    input.Page.Id,
                    opening.Start,
                    opening.End,
                    input.Page.BufferBefore,
                    input.Page.BufferAfter
                );
                var left = input with
                {
                    Hosts =
                    [
                        .. input.Hosts.Select(one =>
                            one.Id == host ? one with { Commitments = [.. one.Commitments, booked] } : one
                        ),
                    ],
                };
                var later = OpeningsComputation.Openings(left).Where(one => one.Start >= opening.Start).ToList();
                most = Math.Max(most, 1 + Most(left, later));
            }
        }

        return most;
    }
}
