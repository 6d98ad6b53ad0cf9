using LooseLantern.Server.Data;
using LooseLantern.Server.Features.Desks;
using Microsoft.EntityFrameworkCore;

namespace LooseLantern.Server.Hosting;

/// <summary>
/// Desks that answer at a host name of their own, which was proven: there / is the desk, and /hull-survey one of its
/// pages.
/// </summary>
public static class OwnHostNames
{
    /// <summary>
    /// The path of the desk or its page that is meant; null where the host name is no desk's, or the path is none of
    /// its pages.
    /// </summary>
    public static async Task<string?> LeadsToAsync(HttpRequest request, LanternDb db, CancellationToken ct)
    {
        var segments = request.Path.Value?.Split('/', StringSplitOptions.RemoveEmptyEntries) ?? [];
        if (segments.Length > 1 || !request.Host.Host.Contains('.', StringComparison.Ordinal))
            return null;
        var name = request.Host.Host.ToLowerInvariant();
        var desk = await db
            .Desks.IgnoreQueryFilters()
            .Where(row => row.HostName == name && row.HostNameProvenAt != null)
            .Select(row => new { row.Id, row.Address })
            .FirstOrDefaultAsync(ct);
        if (desk is null)
            return null;
        if (segments.Length == 0)
            return $"/{desk.Address}";
        var page = segments[0];
        var isPage =
            Address.IsWellFormed(page)
            && await db
                .Pages.IgnoreQueryFilters()
                .AnyAsync(row => row.DeskId == desk.Id && row.Address == page && row.Offer == null, ct);
        return isPage ? $"/{desk.Address}/{page}" : null;
    }
}
