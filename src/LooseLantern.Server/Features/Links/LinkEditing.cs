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

/// <summary>What becomes of a link once it is saved.</summary>
public enum LinkGoes
{
    Nowhere,

    /// <summary>Its times are given out as text; its address is not.</summary>
    AsText,

    /// <summary>Its guests can open it.</summary>
    Out,
}

/// <summary>
/// Makes, changes, sends out, holds and revokes links. Whatever a link holds is brought in line in the same
/// transaction, under the locks that bookings take too.
/// </summary>
public sealed class LinkEditing(
    LanternDb db,
    PageEditing pages,
    PageFilling pageFilling,
    LinkFilling filling,
    LinkAddresses addresses,
    Holding holding,
    TimeLocks locks,
    LinkTaking taking,
    Allowances allowances,
    RecordKeeping record,
    Actor actor,
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

    /// <param name="goes">Whether guests can open it at once, or have its times as text; else it is a draft.</param>
    /// <param name="id">That it gets; null for a new one.</param>
    /// <exception cref="Refusal">400 where it can't go out as it is. Nothing is written then.</exception>
    public async Task<AvailabilityLink> CreateAsync(
        LinkForm form,
        CancellationToken ct,
        LinkGoes goes = LinkGoes.Nowhere,
        Guid? id = null
    )
    {
        var tidy = await filling.CheckAsync(form, ct);
        await allowances.RequireAsync(HostsOf(tidy), Allowance.Offer, ct);
        var link = Add(tidy, await pageFilling.MarkOfAsync(tidy.Title, ct), id);
        record.Note(link.Id, $"Made the link “{link.Page!.Title}”", HostsOf(tidy));
        LetGo(link, goes);
        taking.SettleNew(link);
        await db.SaveChangesAsync(ct);
        db.ChangeTracker.Clear();
        return await GetAsync(link.Id, ct);
    }

    /// <summary>Makes links of a mailing, which are out at once; they differ in their guests alone.</summary>
    /// <param name="forms">As <see cref="LinkFilling.CheckAsync"/> gives them, at least one. They are not saved
    /// yet.</param>
    /// <exception cref="Refusal">400 where they can't go out as they are; 403 where a host does not let their time be
    /// offered.</exception>
    public async Task<IReadOnlyList<AvailabilityLink>> AddForMailingAsync(
        Guid mailing,
        IReadOnlyList<LinkForm> forms,
        CancellationToken ct
    )
    {
        await allowances.RequireAsync(HostsOf(forms[0]), Allowance.Offer, ct);
        var (mark, links) = (await pageFilling.MarkOfAsync(forms[0].Title, ct), new List<AvailabilityLink>());
        foreach (var form in forms)
        {
            var link = Add(form, mark, id: null, mailing);
            RequireSomething(link);
            Open(link);
            taking.SettleNew(link);
            links.Add(link);
        }

        return links;
    }

    private AvailabilityLink Add(LinkForm tidy, string mark, Guid? id, Guid? mailing = null)
    {
        var now = clock.GetCurrentInstant();
        var page = pageFilling.Blank(tidy.DeskId, now, id);
        // No address that anybody could type.
        page.Address = $"~{page.Id:D}";
        var secret = addresses.Create();
        var link = new AvailabilityLink
        {
            Id = page.Id,
            WorkspaceId = page.WorkspaceId,
            Page = page,
            Topic = "",
            SecretHash = secret.Hash,
            ProtectedSecret = secret.Protected,
            MadeBy = actor.Person?.Id,
            MadeAt = now,
            MailingId = mailing,
            EndsOn = tidy.Details.EndsOn,
            CheckDueAt = now,
        };
        filling.Fill(page, link, tidy);
        page.Mark = mark;
        db.Add(page);
        db.Links.Add(link);
        return link;
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
                LetGo(link, goes);
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
                LetOut(link);
                return Task.CompletedTask;
            },
            ct
        );

    private void LetGo(AvailabilityLink link, LinkGoes goes)
    {
        if (goes == LinkGoes.Out)
            LetOut(link);
        if (goes != LinkGoes.AsText)
            return;
        RequireLiving(link);
        RequireSomething(link);
        if (link.GivenAt is null)
            record.Note(link.Id, $"Gave out times of “{link.Page!.Title}” as text", HostsOf(link));
        link.GivenAt ??= clock.GetCurrentInstant();
    }

    private void LetOut(AvailabilityLink link)
    {
        RequireLiving(link);
        if (link.OutAt is not null)
            return;
        RequireSomething(link);
        Open(link);
        record.Note(link.Id, $"Sent out the link “{link.Page!.Title}”", HostsOf(link));
    }

    private void Open(AvailabilityLink link)
    {
        (link.OutAt, link.Page!.State) = (clock.GetCurrentInstant(), PageState.Published);
        link.SentBy = actor.Person?.Id;
    }

    /// <exception cref="Refusal">400 naming what keeps it from offering anything.</exception>
    private void RequireSomething(AvailabilityLink link)
    {
        if (link.EndsOn < Today(link))
            throw Refusal.Invalid("details.endsOn", "link-end-past");
        var times = link.Page!.Offer!.Times;
        if (times.Until < Today(link))
            throw Refusal.Invalid("times.offer.until", "link-until-past");
        if (times is { By: OfferBy.Picked, Picked.Count: 0 })
            throw Refusal.Invalid("times.offer.picked", "pick-something");
        if (times is { By: OfferBy.Painted, Painted.Count: 0 })
            throw Refusal.Invalid("times.offer.painted", "paint-something");
    }

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

    private static void RequireLiving(AvailabilityLink link)
    {
        if (link.RevokedAt is not null)
            throw new Refusal(StatusCodes.Status409Conflict, "revoked", "revoked.repeat");
    }

    private void RequireUntaken(AvailabilityLink link)
    {
        RequireLiving(link);
        if (!link.Course.MayBeTakenAt(clock.GetCurrentInstant()))
            throw new Refusal(StatusCodes.Status409Conflict, "link-over", "link-over.times");
    }

    private LocalDate Today(AvailabilityLink link) =>
        clock.GetCurrentInstant().InZone(DateTimeZoneProviders.Tzdb[link.Page!.Zone]).Date;

    private static List<Guid> HostsOf(LinkForm form) =>
        [.. form.Times.LineUp.SelectMany(seat => seat.HostIds).Distinct()];

    public static List<Guid> HostsOf(AvailabilityLink link) =>
        [.. link.Page!.Seats.SelectMany(seat => seat.Hosts).Select(host => host.HostId).Distinct()];
}
