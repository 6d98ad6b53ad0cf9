using LooseLantern.Server.Data;
using LooseLantern.Server.Features.Live;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Tenancy;
using NodaTime;

namespace LooseLantern.Server.Features.Reserving;

/// <summary>What somebody wants to have to themselves until their transaction ends.</summary>
public sealed record TimeLock
{
    /// <summary>Pages, those of links too.</summary>
    public IReadOnlyCollection<Guid> Pages { get; init; } = [];

    /// <summary>A booking whose page is meant.</summary>
    public Guid? PageOfBooking { get; init; }

    /// <summary>A guest, whose bookings of all pages are counted.</summary>
    public string? Guest { get; init; }

    /// <summary>Whether the hosts in the line-ups of <see cref="Pages"/> are meant.</summary>
    public bool LineUps { get; init; }

    /// <summary>Whose time is given away or freed.</summary>
    public IReadOnlyCollection<Guid> Hosts { get; init; } = [];

    /// <summary>A booking of which the session's hosts are meant, as they are once its page is locked.</summary>
    public Guid? HostsOfBooking { get; init; }

    /// <summary>A link of which the hosts are meant whose time it holds.</summary>
    public Guid? HostsOfHolder { get; init; }

    /// <summary>
    /// Whether bookings of the pages are only added: what is still to be told of others stays true then.
    /// </summary>
    public bool OnlyAdds { get; init; }
}

/// <summary>
/// The one place where pages and hosts are locked, within the caller's transaction and in one round trip: pages in
/// order of id, then a guest, then hosts in order of id. Two who keep to one order never wait for each other in a ring.
/// What was held too long is taken away then: it counts as gone already, and must not be in the way of what is written.
/// Rows that only point at a page or host (FOR KEY SHARE) wait for nobody.
/// </summary>
public sealed class TimeLocks(LanternDb db, Tenant tenant, Tellings tellings, IClock clock)
{
    private const string Pages = """
        SELECT 1 FROM pages WHERE workspace_id = @workspace AND (id = ANY(@pages)
            OR id = (SELECT s.page_id FROM bookings b JOIN sessions s ON s.id = b.session_id WHERE b.id = @page_of))
        ORDER BY id FOR NO KEY UPDATE
        """;

    private const string Untold = """
        SELECT id FROM tellings WHERE workspace_id = @workspace AND (page_id = ANY(@pages)
            OR page_id = (SELECT s.page_id FROM bookings b JOIN sessions s ON s.id = b.session_id WHERE b.id = @page_of))
        ORDER BY id
        """;

    // Asked only once the pages are locked: nobody else changes a line-up or a session from then on.
    private const string WhoseTime = """
        (SELECT unnest(@hosts)
            UNION ALL SELECT h.host_id FROM seats s JOIN seat_hosts h ON h.seat_id = s.id WHERE @line_ups AND s.page_id = ANY(@pages)
            UNION ALL SELECT h.host_id FROM bookings b JOIN session_hosts h ON h.session_id = b.session_id WHERE b.id = @hosts_of
            UNION ALL SELECT c.host_id FROM commitments c WHERE c.workspace_id = @workspace AND c.holder_id = @holder)
        """;

    private const string Hosts =
        $"SELECT 1 FROM hosts WHERE workspace_id = @workspace AND id IN {WhoseTime} ORDER BY id FOR NO KEY UPDATE";

    private const string RunOut = $"held_until <= @now AND host_id IN {WhoseTime}";

    /// <summary>What was read before is forgotten: only what is read from now on is so.</summary>
    /// <param name="asking">Asks, in the same round trip, what is to be known once all is locked: each of its
    /// statements sees what was committed when it begins. Only for who just adds.</param>
    public async Task TakeAsync(TimeLock wanted, CancellationToken ct, Action<RoundTrip>? asking = null)
    {
        // What was told late would be told of what is asked here.
        if (asking is not null && !wanted.OnlyAdds)
            throw new ArgumentException("Only who just adds asks in the same round trip.", nameof(asking));
        var values = new Dictionary<string, object>
        {
            ["workspace"] = tenant.WorkspaceId!.Value,
            ["pages"] = wanted.Pages.ToArray(),
            // No row has the empty id.
            ["page_of"] = wanted.PageOfBooking ?? Guid.Empty,
            ["hosts"] = wanted.Hosts.ToArray(),
            ["line_ups"] = wanted.LineUps,
            ["hosts_of"] = wanted.HostsOfBooking ?? Guid.Empty,
            ["holder"] = wanted.HostsOfHolder ?? Guid.Empty,
            ["now"] = clock.GetCurrentInstant(),
        };
        var trip = new RoundTrip(db);
        // All that is asked while locks are held goes by indexes, whatever the values: planned once is best.
        trip.Do($"SET LOCAL plan_cache_mode = force_generic_plan");
        // Heard when the transaction ends, and not at all where it is rolled back.
        trip.Ask($"SELECT pg_notify({LiveChanges.Channel}, {tenant.WorkspaceId!.Value.ToString("D")})", _ => 0);
        trip.Ask(Pages, values, _ => 0);
        if (wanted.Guest is { } guest)
            trip.Ask($"SELECT pg_advisory_xact_lock(hashtextextended({guest}, 0))", _ => 0);
        if (
            wanted.LineUps
            || wanted.Hosts.Count > 0
            || wanted.HostsOfBooking is not null
            || wanted.HostsOfHolder is not null
        )
        {
            trip.Ask(Hosts, values, _ => 0);
            // What ran out is found by its hosts: by the events of it, all that is committed would be gone through.
            trip.Do(
                $"""
                WITH run_out AS (DELETE FROM commitments WHERE {RunOut} RETURNING id)
                UPDATE written_events SET is_wanted = false, wish = wish + 1, due_at = @now, attempts = 0
                FROM run_out WHERE is_wanted AND hold_id = run_out.id
                """,
                values
            );
        }

        asking?.Invoke(trip);
        var untold = wanted.OnlyAdds ? null : trip.Ask(Untold, values, row => row.GetGuid(0));
        await trip.RunAsync(ct);
        foreach (var id in untold?.Rows ?? [])
            await tellings.WriteAsync(id, ct);
        db.ChangeTracker.Clear();
        db.IsTold();
    }
}
