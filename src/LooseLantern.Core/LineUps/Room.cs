using LooseLantern.Core.Openings;
using NodaTime;

namespace LooseLantern.Core.LineUps;

/// <summary>
/// For how many guests openings have room. Openings overlap: nine of them may be three appointments. Counted is how
/// many can book when each takes the earliest time there is. Without caps, and with a line-up of one seat, no order of
/// booking makes room for more.
/// </summary>
public static class Room
{
    /// <summary>How many guests, each coming alone, can book one after the other.</summary>
    /// <param name="most">At which it stops to count.</param>
    public static int For(OpeningsInput input, int most)
    {
        ArgumentOutOfRangeException.ThrowIfNegative(most);
        var (left, count) = (input, 0);
        var facts = new AssignmentFacts(
            input.Now,
            [.. input.Page.LineUp.Select(_ => new SeatFacts(SeatFill.InOrder, new Dictionary<string, Instant>()))],
            new Dictionary<string, HostLoad>(),
            new HashSet<string>()
        );
        foreach (var opening in OpeningsComputation.Openings(input))
        {
            // The same start may have a session with room, and other hosts still.
            while (count < most)
            {
                if (OpeningsComputation.SessionToJoin(left, opening.Start) is { } session)
                    (left, count) = Filled(left, session, count);
                else if (Assignment.For(left, opening.Start, facts) is { } hosts)
                    (left, count) = (Booked(left, opening, hosts, $"room-{count}"), count + input.Page.Places);
                else
                    break;
            }

            if (count >= most)
                break;
        }

        return Math.Min(count, most);
    }

    private static (OpeningsInput Left, int Count) Filled(OpeningsInput input, string session, int count)
    {
        var page = input.Page;
        var free = page.Places - page.Sessions.Single(one => one.Id == session).Guests;
        var sessions = page.Sessions.Select(one => one.Id == session ? one with { Guests = page.Places } : one);
        return (input with { Page = page with { Sessions = [.. sessions] } }, count + free);
    }

    private static OpeningsInput Booked(
        OpeningsInput input,
        Opening opening,
        IReadOnlyList<string> hosts,
        string session
    )
    {
        var page = input.Page;
        var commitment = new Commitment(
            CommitmentKind.Booking,
            session,
            page.Id,
            opening.Start,
            opening.End,
            page.BufferBefore,
            page.BufferAfter
        );
        return input with
        {
            Page = page with
            {
                Sessions = [.. page.Sessions, new SessionFacts(session, opening.Start, opening.End, page.Places)],
            },
            Hosts =
            [
                .. input.Hosts.Select(host =>
                    hosts.Contains(host.Id) ? host with { Commitments = [.. host.Commitments, commitment] } : host
                ),
            ],
        };
    }
}
