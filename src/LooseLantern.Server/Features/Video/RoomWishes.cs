using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using NodaTime;

namespace LooseLantern.Server.Features.Video;

/// <summary>
/// Says which video rooms there should be, in the transaction of what they are for and after that was saved there.
/// Making them is for <see cref="RoomMaking"/>.
/// </summary>
public sealed class RoomWishes(IVideoRooms rooms, IClock clock)
{
    /// <summary>A session was made or changed: its room should be there at its time, or be gone with it.</summary>
    /// <param name="trip">In which it is said; the caller makes it.</param>
    public void ForSession(RoundTrip trip, Session session)
    {
        if (!rooms.IsSet)
            return;
        var values = new Dictionary<string, object>
        {
            ["workspace"] = session.WorkspaceId,
            ["session"] = session.Id,
            ["now"] = clock.GetCurrentInstant(),
        };
        const string isWanted =
            "EXISTS (SELECT 1 FROM sessions s JOIN pages p ON p.id = s.page_id WHERE s.id = @session AND s.cancelled_at IS NULL AND p.place_kind = 'Video' AND p.place = '')";
        trip.Do(
            $"UPDATE video_rooms SET is_wanted = {isWanted}, wish = wish + 1, due_at = @now, attempts = 0 WHERE workspace_id = @workspace AND session_id = @session",
            values
        );
        trip.Do(
            $"""
            INSERT INTO video_rooms (session_id, workspace_id, code, is_wanted, wish, due_at, attempts)
            SELECT @session, @workspace, '', true, 1, @now, 0 WHERE {isWanted} ON CONFLICT DO NOTHING
            """,
            values
        );
    }
}
