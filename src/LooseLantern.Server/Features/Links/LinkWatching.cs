using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Openings;
using LooseLantern.Server.Jobs;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Links;

/// <summary>
/// Looks at links that are out for whether anything is left of them, so that whoever made one hears before its guest
/// finds out.
/// </summary>
public sealed class LinkWatching(LanternDb db, LinkEditing links, OpeningsInputs inputs, LinkPost post, IClock clock)
{
    // Most links have something within days.
    private const int DaysLookedAtFirst = 14;

    private static readonly Duration Every = Duration.FromMinutes(1);

    public static readonly DueKind Looks = new(
        TimeSpan.FromSeconds(3),
        Duration.FromMinutes(2),
        // What is looked at now is due again in a while, whatever comes of it.
        (db, now, until, most, ct) =>
            db
                .Database.SqlQuery<DueRow>(
                    $"""
                    UPDATE links SET check_due_at = {now + Every} WHERE id IN (
                        SELECT id FROM links WHERE check_due_at <= {now} AND out_at IS NOT NULL AND revoked_at IS NULL ORDER BY check_due_at LIMIT {most} FOR NO KEY UPDATE SKIP LOCKED)
                    RETURNING id, workspace_id
                    """
                )
                .ToListAsync(ct),
        (services, id, ct) => services.GetRequiredService<LinkWatching>().LookAsync(id, ct)
    );

    public async Task LookAsync(Guid id, CancellationToken ct)
    {
        // It may be gone since it was found to be due.
        if (await links.FindAsync(id, ct) is not { } link || !link.Course.IsOpenAt(clock.GetCurrentInstant()))
            return;
        var isLeft = await IsLeftAsync(link.Page!, ct);
        if (isLeft == (link.NoneLeftAt is null))
            return;

        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        await db.Database.ExecuteSqlAsync($"SELECT 1 FROM links WHERE id = {id} FOR NO KEY UPDATE", ct);
        await db.Entry(link).ReloadAsync(ct);
        // Somebody else may have told already.
        if (isLeft == (link.NoneLeftAt is null))
            return;
        link.NoneLeftAt = isLeft ? null : clock.GetCurrentInstant();
        if (!isLeft && !await IsToldOfMailingAsync(link, ct))
            await post.TellMakerAsync(link, MessageKind.NoneLeftForMaker, [], "", ct);
        await db.SaveChangesAsync(ct);
        await transaction.CommitAsync(ct);
    }

    /// <summary>All links of a mailing draw on the same times: that nothing is left of them is told once.</summary>
    private async Task<bool> IsToldOfMailingAsync(AvailabilityLink link, CancellationToken ct)
    {
        if (link.MailingId is not { } mailing)
            return false;
        await db.Database.ExecuteSqlAsync($"SELECT 1 FROM mailings WHERE id = {mailing} FOR NO KEY UPDATE", ct);
        return await db.Links.AnyAsync(
            row => row.MailingId == mailing && row.Id != link.Id && row.NoneLeftAt != null,
            ct
        );
    }

    /// <summary>Whether anything of it is open, whichever of its openings are shown.</summary>
    private async Task<bool> IsLeftAsync(Page page, CancellationToken ct)
    {
        var rules = inputs.Rules(page);
        var today = inputs.Today(rules);
        var last = LocalDate.Min(page.Offer!.Times.Until, today.PlusDays(PageLimits.MostDaysAsked - 1));
        for (
            var (from, days) = (today, DaysLookedAtFirst);
            from <= last;
            (from, days) = (from.PlusDays(days), days * 2)
        )
        {
            foreach (var duration in page.Durations)
            {
                if (
                    (
                        await inputs.OpeningsAsync(
                            rules,
                            from,
                            LocalDate.Min(last, from.PlusDays(days - 1)),
                            duration,
                            ct
                        )
                    ).Count > 0
                )
                    return true;
            }
        }

        return false;
    }
}

/// <summary>
/// Has links looked at as soon as time of their hosts was taken or let go, told by the notes of changes: nobody who
/// takes a time looks for links under its locks.
/// </summary>
public sealed class LinksToLookAt(IServiceScopeFactory scopes, IClock clock)
{
    private string? _seen;

    /// <summary>
    /// Marks the links that changed since it was last asked; who looks at one of them just now is not waited for, and
    /// looks again within its minute. The first time there is nothing to go by: all are looked at within that minute.
    /// </summary>
    public async Task MarkAsync(CancellationToken ct)
    {
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<LanternDb>();
        var trip = new RoundTrip(db);
        var snapshot = trip.Ask($"SELECT pg_current_snapshot()::text", row => row.GetString(0));
        if (_seen is { } seen)
        {
            var now = clock.GetCurrentInstant();
            trip.Do(
                $"""
                UPDATE links SET check_due_at = {now} WHERE id IN (
                    SELECT l.id FROM links l WHERE l.check_due_at > {now} AND l.out_at IS NOT NULL AND l.revoked_at IS NULL AND l.ends_at > {now}
                        AND EXISTS (SELECT 1 FROM seats s JOIN seat_hosts h ON h.seat_id = s.id
                            WHERE s.page_id = l.id AND h.host_id IN (
                                SELECT of FROM fact_changes WHERE kind = 1 AND xid >= pg_snapshot_xmin({seen}::pg_snapshot)
                                    AND NOT pg_visible_in_snapshot(xid, {seen}::pg_snapshot)))
                    FOR NO KEY UPDATE SKIP LOCKED)
                """
            );
        }

        await trip.RunAsync(ct);
        _seen = snapshot.Row;
    }
}

/// <summary>Looks after links that are out.</summary>
public sealed class LinkWatch(IServiceScopeFactory scopes, IClock clock, ILogger<LinkWatch> logger) : BackgroundService
{
    protected override Task ExecuteAsync(CancellationToken stoppingToken)
    {
        var changed = new LinksToLookAt(scopes, clock);
        var kind = LinkWatching.Looks with
        {
            ClaimAsync = async (db, now, until, most, ct) =>
            {
                await changed.MarkAsync(ct);
                return await LinkWatching.Looks.ClaimAsync(db, now, until, most, ct);
            },
        };
        return DueWork.RunAsync(kind, scopes, clock, logger, stoppingToken);
    }
}
