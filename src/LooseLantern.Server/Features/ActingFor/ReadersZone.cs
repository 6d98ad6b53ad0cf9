using LooseLantern.Server.Data;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.ActingFor;

/// <summary>The zone in which whoever asks reads the days of lists.</summary>
public static class ReadersZone
{
    /// <summary>The person's own; the workspace's where nobody is signed in.</summary>
    public static async Task<DateTimeZone> OfAsync(LanternDb db, Actor actor, CancellationToken ct) =>
        DateTimeZoneProviders.Tzdb[
            actor.Person is { } person
                ? await db.Users.Where(row => row.Id == person.Id).Select(row => row.Zone).SingleAsync(ct)
                : await db.Workspaces.Select(row => row.Zone).SingleAsync(ct)
        ];
}
