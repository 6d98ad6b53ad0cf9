using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Bookings;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;

namespace LooseLantern.Server.Features.Guests;

/// <summary>Finds a booking by the secret of its private link, and with it the workspace of the request.</summary>
public sealed class PrivateBookingFinding(LanternDb db, Tenant tenant)
{
    public async Task<(Booking Booking, string Workspace)> FindAsync(string secret, CancellationToken ct)
    {
        var hash = PrivateLinks.Hash(secret);
        var workspaceId = await db
            .Bookings.IgnoreQueryFilters()
            .Where(row => row.SecretHash == hash)
            .Select(row => (Guid?)row.WorkspaceId)
            .FirstOrDefaultAsync(ct)
            ?? throw Refusal.NotFound("booking");
        tenant.Enter(workspaceId);
        var booking = await db
            .Bookings.IgnoreQueryFilters([LanternDb.NotCancelled])
            .AsNoTracking()
            .Include(row => row.Session!)
                .ThenInclude(session => session.Page!)
                    .ThenInclude(page => page.Desk)
            .Include(row => row.Session!)
                .ThenInclude(session => session.Hosts)
                    .ThenInclude(host => host.Host)
            .AsSplitQuery()
            .SingleAsync(row => row.SecretHash == hash, ct);
        return (booking, await db.Workspaces.Select(workspace => workspace.Name).SingleAsync(ct));
    }
}
