using LooseLantern.Server.Data;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;

namespace LooseLantern.Server.Features.Calendars.Joining;

/// <summary>Whom a calendar may count for, by who asks.</summary>
public sealed class CalendarOwning(LanternDb db, Allowances allowances)
{
    private const string Choose = "calendar-owner";

    /// <summary>The hosts it counts for.</summary>
    /// <param name="path">What its fields stand under in the request, such as "for.".</param>
    /// <exception cref="Refusal">400 for nobody, or somebody who is not of the team; 403 where one of them does not let
    /// the person.</exception>
    public async Task<List<Guid>> CheckAsync(CalendarOwners owners, string path, CancellationToken ct)
    {
        var ids = owners.HostId is { } own ? [own] : (owners.HostIds ?? []).Distinct().ToList();
        var field = owners.HostId is null && owners.HostIds is not null ? $"{path}hostIds" : $"{path}hostId";
        if (ids.Count == 0)
            throw Refusal.Invalid(field, owners.HostIds is null ? Choose : "calendar-counts-for");
        var known = await db.Hosts.CountAsync(host => ids.Contains(host.Id) && host.RetiredAt == null, ct);
        if (known != ids.Count)
            throw Refusal.Invalid(field, Choose);
        await allowances.RequireAsync(ids, Allowance.Offer, ct);
        return ids;
    }
}
