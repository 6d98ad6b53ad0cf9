using LooseLantern.Core.Links;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Features.Pages;
using LooseLantern.Server.Features.Record;
using LooseLantern.Server.Features.Reserving;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Links;

/// <summary>
/// Changes, sends out, holds and revokes links. Whatever a link holds is brought in line in the same
/// transaction, under the locks that bookings take too.
/// </summary>
public sealed class LinkEditing(
    LanternDb db,
    PageEditing pages,
    LinkFilling filling,
    LinkGoing going,
    Holding holding,
    TimeLocks locks,
    LinkTaking taking,
    Allowances allowances,
    RecordKeeping record,
    IClock clock
)
{
    private static readonly Duration LongestHold = Duration.FromDays(90);

    /// <summary>A link with its page, whole, and its wishes.</summary>
    public async Task<AvailabilityLink> GetAsync(Guid id, CancellationToken ct) =>
        await FindAsync(id, ct) ?? throw Refusal.NotFound("link");

    /// <summary>The same; null where there is none.</summary>
    public async Task<AvailabilityLink?> FindAsync(Guid id, CancellationToken ct)
    {
        if (await pages.Whole().FirstOrDefaultAsync(row => row.Id == id && row.Offer != null, ct) is not { } page)
            return null;
        // Somebody may delete a draft in between.
        return await db.Links.Include(row => row.Wishes).SingleOrDefaultAsync(row => row.Id == page.Id, ct);
    }

    /// <summary>Changes a link, also one that is out: its guest sees it as it is now.</summary>
    /// <param name="goes">Whether guests can open it from then on, or have its times as text; one that is out stays
    /// so.</param>
    /// <exception cref="Refusal">409 where somebody else changed it, or where a picked time can't be held; 400 where it
    /// can't go out as it is. Nothing is written then.</exception>
    public async Task<AvailabilityLink> ChangeAsync(
        Guid id,
        int version,
        LinkForm form,
        CancellationToken ct,
        LinkGoes goes = LinkGoes.Nowhere
    )
    {
        var tidy = await filling.CheckAsync(form, ct);
        await allowances.RequireAsync(HostsOf(tidy), Allowance.Offer, ct);
        await holding.PrepareAsync(await filling.TryOutAsync(tidy.Times, id, ct), ct);
        return await InLocksAsync(
            id,
            HostsOf(tidy),
            link =>
            {
                if (link.Page!.Version != version)
                    throw new Refusal(StatusCodes.Status409Conflict, "changed-meanwhile", "changed-meanwhile.link");
                filling.Fill(link.Page, link, tidy);
                link.NoneLeftAt = null;
                record.Note(id, $"Changed the link “{link.Page.Title}”", HostsOf(tidy));
                going.Let(link, goes);
                return Task.CompletedTask;
            },
            ct
        );
    }

    /// <summary>Lets guests open it; one that is out stays so.</summary>
    /// <exception cref="Refusal">400 where it is over already or offers nothing, 409 for one that is
    /// revoked.</exception>
    public Task<AvailabilityLink> SendOutAsync(Guid id, CancellationToken ct) =>
        InLocksAsync(
            id,
            [],
            link =>
            {
                going.LetOut(link);
                return Task.CompletedTask;
            },
            ct
        );

    /// <summary>Takes a link back for good. What was booked by it stands; what it holds is let go.</summary>
    public Task<AvailabilityLink> RevokeAsync(Guid id, CancellationToken ct) =>
        InLocksAsync(
            id,
            [],
            link =>
            {
                if (link.RevokedAt is not null)
                    return Task.CompletedTask;
                (link.RevokedAt, link.Page!.State, link.HoldUntil) = (
                    clock.GetCurrentInstant(),
                    PageState.Archived,
                    null
                );
                record.Note(id, $"Revoked the link “{link.Page.Title}”", HostsOf(link));
                return Task.CompletedTask;
            },
            ct
        );

    /// <summary>Holds all its picked times until an instant, or lets all of them go.</summary>
    /// <param name="until">Null to let go.</param>
    /// <exception cref="Refusal">400 for a time that is past or too far, 403 where a host does not let their time be
    /// offered, 409 with the times that can't be held.</exception>
    public async Task<AvailabilityLink> HoldAsync(Guid id, Instant? until, CancellationToken ct)
    {
        var found = await GetAsync(id, ct);
        var now = clock.GetCurrentInstant();
        if (until <= now || until > now + LongestHold)
            throw Refusal.Invalid("until", "hold-until");
        if (until is not null && found.Page!.Offer!.Times.By != OfferBy.Picked)
            throw Refusal.Invalid("until", "hold-picked");
        await allowances.RequireAsync(HostsOf(found), Allowance.Offer, ct);
        if (until is not null)
            await holding.PrepareAsync(found.Page!, ct);
        return await InLocksAsync(
            id,
            [],
            async link =>
            {
                if (until is not null)
                    RequireUntaken(link);
                link.HoldUntil = until;
                record.Note(
                    id,
                    until is null
                        ? $"Let go of the times of “{link.Page!.Title}”"
                        : $"Held the times of “{link.Page!.Title}”",
                    HostsOf(link)
                );
            },
            ct
        );
    }

    /// <summary>Takes some picked times back, with what is held of them; the link goes on offering the rest.</summary>
    public Task<AvailabilityLink> ReleaseAsync(Guid id, IReadOnlyList<Instant> starts, CancellationToken ct) =>
        InLocksAsync(
            id,
            [],
            link =>
            {
                var offer = link.Page!.Offer!;
                link.Page.Offer = offer with
                {
                    Times = offer.Times with { Picked = [.. offer.Times.Picked.Except(starts)] },
                };
                record.Note(
                    id,
                    $"Released {(starts.Count == 1 ? "a time" : $"{starts.Count} times")} of “{link.Page.Title}”",
                    HostsOf(link)
                );
                return Task.CompletedTask;
            },
            ct
        );

    /// <summary>
    /// Counts that somebody looks at it. What is being done to the link meanwhile waits for none of these.
    /// </summary>
    public async Task NoteOpenedAsync(Guid id, CancellationToken ct)
    {
        var now = clock.GetCurrentInstant();
        await db
            .Links.Where(row => row.Id == id)
            .ExecuteUpdateAsync(
                set =>
                    set.SetProperty(row => row.Opened, row => row.Opened + 1)
                        .SetProperty(row => row.LastOpenedAt, now)
                        .SetProperty(row => row.FirstOpenedAt, row => row.FirstOpenedAt ?? now),
                ct
            );
        if (await db.Links.AnyAsync(row => row.Id == id && row.State == LinkState.Out, ct))
            await SettleOpenedAsync(id, ct);
    }

    /// <summary>The first guest who opens it changes where it stands.</summary>
    private async Task SettleOpenedAsync(Guid id, CancellationToken ct)
    {
        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        db.ChangeTracker.Clear();
        await taking.SettleAsync(id, ct);
        await transaction.CommitAsync(ct);
    }

    /// <summary>Takes away a draft that nobody was sent.</summary>
    public async Task DeleteAsync(Guid id, CancellationToken ct)
    {
        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        var link = await LockedAsync(id, [], ct);
        if (
            link.OutAt is not null
            || link.GivenAt is not null
            || await db.Sessions.IgnoreQueryFilters([LanternDb.NotCancelled]).AnyAsync(row => row.PageId == id, ct)
        )
            throw new Refusal(StatusCodes.Status409Conflict, "out");
        await allowances.RequireAsync(HostsOf(link), Allowance.Offer, ct);
        link.HoldUntil = null;
        await holding.KeepAsync(link.Page!, link, ct);
        await db.SaveChangesAsync(ct);
        db.Remove(link);
        await db.SaveChangesAsync(ct);
        db.Remove(link.Page!);
        await db.SaveChangesAsync(ct);
        await transaction.CommitAsync(ct);
    }

    /// <summary>
    /// Does something to a link under its locks, brings what it holds in line, and saves all of it or nothing.
    /// </summary>
    private async Task<AvailabilityLink> InLocksAsync(
        Guid id,
        IReadOnlyCollection<Guid> moreHosts,
        Func<AvailabilityLink, Task> change,
        CancellationToken ct
    )
    {
        await using (var transaction = await db.Database.BeginTransactionAsync(ct))
        {
            var link = await LockedAsync(id, moreHosts, ct);
            await allowances.RequireAsync(HostsOf(link), Allowance.Offer, ct);
            await change(link);
            await holding.KeepAsync(link.Page!, link, ct);
            await taking.SettleAsync(link, ct);
            link.Page!.Version++;
            await db.SaveChangesAsync(ct);
            await transaction.CommitAsync(ct);
        }

        db.ChangeTracker.Clear();
        return await GetAsync(id, ct);
    }

    private async Task<AvailabilityLink> LockedAsync(Guid id, IReadOnlyCollection<Guid> moreHosts, CancellationToken ct)
    {
        await locks.TakeAsync(
            new TimeLock
            {
                Pages = [id],
                LineUps = true,
                Hosts = moreHosts,
                HostsOfHolder = id,
            },
            ct
        );
        return await GetAsync(id, ct);
    }

    private void RequireUntaken(AvailabilityLink link)
    {
        LinkGoing.RequireLiving(link);
        if (!link.Course.MayBeTakenAt(clock.GetCurrentInstant()))
            throw new Refusal(StatusCodes.Status409Conflict, "link-over", "link-over.times");
    }

    public static List<Guid> HostsOf(LinkForm form) =>
        [.. form.Times.LineUp.SelectMany(seat => seat.HostIds).Distinct()];

    public static List<Guid> HostsOf(AvailabilityLink link) =>
        [.. link.Page!.Seats.SelectMany(seat => seat.Hosts).Select(host => host.HostId).Distinct()];
}
