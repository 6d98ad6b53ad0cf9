using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;

namespace LooseLantern.Server.Features.Pages.Kept;

/// <summary>
/// Whole pages for who only reads them: from memory where the database says in one small question that nothing of them
/// changed, else read anew.
/// </summary>
public sealed class PageReading(LanternDb db, Tenant tenant, PageEditing pages, KeptPages kept)
{
    private readonly Dictionary<Guid, KeptPage> _found = [];

    /// <summary>A page as this request found it before; null where it did not ask for it yet.</summary>
    public KeptPage? Lately(Guid id) => _found.GetValueOrDefault(id);

    /// <summary>A page as it is now, in whatever state; null where there is none in the workspace at hand.</summary>
    public async Task<KeptPage?> OfAsync(Guid id, CancellationToken ct) =>
        await UnchangedAsync(kept.Find(id), ct) ?? await ReadAsync(id, ct);

    /// <summary>
    /// The published page of a desk at that address, if it was read lately and is so still; the request is in its
    /// workspace then.
    /// </summary>
    /// <param name="alongside">Asks more of it in the round trip that finds out.</param>
    public Task<KeptPage?> LatelyAtAsync(
        string desk,
        string page,
        CancellationToken ct,
        Action<RoundTrip, Page>? alongside = null
    ) => UnchangedAsync(kept.Find(desk, page), ct, alongside);

    /// <summary>
    /// The published page of a desk at that address as it was read lately, without asking whether it is so still; who
    /// takes it asks that together with what it is needed for.
    /// </summary>
    public KeptPage? Guess(string desk, string page) =>
        kept.Find(desk, page) is { } found && (tenant.WorkspaceId is not { } at || at == found.Workspace.Id)
            ? found
            : null;

    /// <summary>Asks, in a round trip that the caller makes, whether nothing of it changed since it was read.</summary>
    public static Asked<bool> AskUnchanged(RoundTrip trip, KeptPage page) =>
        trip.Ask(
            $"""
            SELECT NOT EXISTS (
                SELECT 1 FROM unnest({page.DependsOn}) AS thing (id) CROSS JOIN LATERAL (
                    SELECT 1 FROM fact_changes WHERE of = thing.id AND kind = 0
                        AND xid >= pg_snapshot_xmin({page.Snapshot}::pg_snapshot) AND NOT pg_visible_in_snapshot(xid, {page.Snapshot}::pg_snapshot)
                    LIMIT 1) AS changed)
            """,
            row => row.GetBoolean(0)
        );

    /// <summary>Reads it from its rows, within the caller's transaction where there is one, and keeps it.</summary>
    public async Task<KeptPage?> ReadAsync(Guid id, CancellationToken ct)
    {
        var trip = new RoundTrip(db);
        var snapshot = trip.Ask($"SELECT pg_current_snapshot()::text", row => row.GetString(0));
        await trip.RunAsync(ct);
        var page = await pages.Whole().AsNoTracking().FirstOrDefaultAsync(row => row.Id == id, ct);
        if (page is null)
            return null;
        var workspace = await db
            .Workspaces.AsNoTracking()
            .Select(row => new
            {
                row.Id,
                row.Name,
                row.Usual,
                row.MostOpen,
                row.GuestFields,
            })
            .SingleAsync(ct);
        var hosts = page.Seats.SelectMany(seat => seat.Hosts).ToList();
        var read = new KeptPage(
            page,
            new WorkspaceFacts(
                workspace.Id,
                workspace.Name,
                workspace.Usual.Clock,
                workspace.MostOpen,
                workspace.GuestFields
            ),
            snapshot.Row,
            [
                .. hosts
                    .Select(host => host.HostId)
                    .Concat([page.Id, page.DeskId, page.WorkspaceId, page.HoursId ?? page.Id])
                    .Distinct(),
            ]
        );
        _found[id] = read;
        // What the caller's own transaction changed is not so yet for others.
        if (db.Database.CurrentTransaction is null)
            kept.Keep(read);
        return read;
    }

    private async Task<KeptPage?> UnchangedAsync(
        KeptPage? found,
        CancellationToken ct,
        Action<RoundTrip, Page>? alongside = null
    )
    {
        if (found is null || (tenant.WorkspaceId is { } at && at != found.Workspace.Id))
            return null;
        var trip = new RoundTrip(db);
        var isUnchanged = AskUnchanged(trip, found);
        alongside?.Invoke(trip, found.Page);
        await trip.RunAsync(ct);
        if (!isUnchanged.Row)
        {
            kept.Forget(found.Page.Id);
            return null;
        }

        tenant.Enter(found.Workspace.Id);
        _found[found.Page.Id] = found;
        return found;
    }
}
