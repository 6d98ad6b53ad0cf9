using LooseLantern.Core.LineUps;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;

namespace LooseLantern.Server.Features.Reserving;

/// <summary>Gives a guest whom nobody keeps yet a keeper as they book.</summary>
internal static class NewKeepers
{
    /// <summary>The host whose guest somebody is by what they answered; null for nobody's.</summary>
    public static string? ByAnswer(Page page, IReadOnlyList<GivenAnswer> answers) =>
        page.Details.Keepers.Count == 0
            ? null
            : Keepers.ByAnswer(
                page.Questions,
                page.Details.Keepers,
                answers.ToDictionary(answer => answer.Key, answer => answer.Text)
            );

    /// <summary>
    /// By an answer, else whoever the line-up put in the first seat that considers keepers; what is written after the
    /// booking itself.
    /// </summary>
    public static void Give(
        RoundTrip trip,
        Guid booking,
        Page page,
        Session session,
        IReadOnlyList<GivenAnswer> answers
    )
    {
        var seat = page.Seats.OrderBy(row => row.Position).FirstOrDefault(row => row.Keeper != SeatKeeper.Counts);
        var host = ByAnswer(page, answers) is { } answered
            ? Guid.Parse(answered)
            : session.Hosts.Find(row => row.Seat == seat?.Position)?.HostId;
        if (host is not { } keeper)
            return;
        trip.Do(
            $"""
            UPDATE guests g SET keeper_id = h.person_id FROM hosts h
            WHERE h.id = {keeper} AND h.workspace_id = {page.WorkspaceId} AND h.person_id IS NOT NULL AND g.keeper_id IS NULL
                AND g.id = (SELECT guest_id FROM bookings WHERE id = {booking})
            """
        );
    }
}
