using LooseLantern.Server.Data.Model;

namespace LooseLantern.Server.Features.Covers;

/// <summary>What becomes of one session: as the plan has it, with what is there.</summary>
/// <param name="Session">Whole.</param>
/// <param name="Before">Hosts, by seat.</param>
/// <param name="After">Null where it is cancelled.</param>
internal sealed record CoverChange(Session Session, IReadOnlyList<CoverSeat> Before, IReadOnlyList<CoverSeat>? After)
{
    public bool IsLeft => After is null;

    /// <summary>Who has it no more.</summary>
    public IReadOnlyList<Guid> Former =>
        [.. Before.Select(seat => seat.Host).Where(host => After?.Any(seat => seat.Host == host) != true)];

    /// <summary>Who has it from now on, and did not.</summary>
    public IReadOnlyList<Guid> Newcomers =>
        [.. (After ?? []).Select(seat => seat.Host).Where(host => Before.All(seat => seat.Host != host))];

    /// <summary>
    /// Whether the letter speaks of it. What only waits for a yes is asked for anew instead, and where somebody goes
    /// whom nobody replaces, the usual mail says who is left.
    /// </summary>
    public bool IsOfLetter(Booking booking) => IsLeft || (Newcomers.Count > 0 && booking.WaitsUntil is null);

    public bool IsNone =>
        After is not null && After.OrderBy(seat => seat.Seat).SequenceEqual(Before.OrderBy(seat => seat.Seat));

    public static IReadOnlyList<CoverSeat> SeatsOf(Session session) =>
        [.. session.Hosts.OrderBy(host => host.Seat).Select(host => new CoverSeat(host.Seat, host.HostId))];
}
