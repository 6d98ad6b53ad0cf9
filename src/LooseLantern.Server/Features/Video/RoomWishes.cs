using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Video;

/// <summary>
/// Says which video rooms there should be, in the transaction of what they are for. Making them is for
/// <see cref="RoomMaking"/>.
/// </summary>
public sealed class RoomWishes(LanternDb db, IVideoRooms rooms, IClock clock)
{
    /// <summary>A session was made or changed: its room should be there at its time, or be gone with it.</summary>
    public async Task ForSessionAsync(Session session, CancellationToken ct)
    {
        if (!rooms.IsSet)
            return;
        var known = await db.VideoRooms.FirstOrDefaultAsync(row => row.SessionId == session.Id, ct);
        var isWanted =
            session.CancelledAt is null
            && await db.Pages.AnyAsync(
                page => page.Id == session.PageId && page.PlaceKind == PlaceKind.Video && page.Place == "",
                ct
            );
        if (known is null && !isWanted)
            return;
        if (known is null)
            db.VideoRooms.Add(
                new VideoRoom
                {
                    SessionId = session.Id,
                    WorkspaceId = session.WorkspaceId,
                    DueAt = clock.GetCurrentInstant(),
                }
            );
        else
            (known.IsWanted, known.Wish, known.DueAt, known.Attempts) = (
                isWanted,
                known.Wish + 1,
                clock.GetCurrentInstant(),
                0
            );
    }
}
