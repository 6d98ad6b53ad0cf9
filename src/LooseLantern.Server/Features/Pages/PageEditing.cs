using System.Text.Json;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Features.Record;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Npgsql;

namespace LooseLantern.Server.Features.Pages;

/// <summary>
/// Makes and changes pages. A save names the version it started from, so that nobody overwrites what a colleague just
/// saved.
/// </summary>
public sealed class PageEditing(
    LanternDb db,
    Allowances allowances,
    RecordKeeping record,
    CalendarChoosing choices,
    PageEditions editions,
    PageFilling filling,
    Tellings tellings,
    IClock clock
)
{
    private static readonly PageFormRules Checks = new();
    private static readonly PageTimesRules TimesChecks = new();

    /// <summary>Pages of desks, whole.</summary>
    public IQueryable<Page> OfDesks() => Whole().Where(page => page.Offer == null);

    /// <summary>All pages, those of availability links too, with everything that belongs to them.</summary>
    public IQueryable<Page> Whole() =>
        db
            .Pages.Include(page => page.Desk)
            .Include(page => page.Hours)
            .Include(page => page.Blocks)
            .Include(page => page.Seats)
                .ThenInclude(seat => seat.Hosts)
                    .ThenInclude(seatHost => seatHost.Host)
            .AsSplitQuery();

    public async Task<Page> GetAsync(Guid id, CancellationToken ct) =>
        await OfDesks().FirstOrDefaultAsync(page => page.Id == id, ct) ?? throw Refusal.NotFound("page");

    /// <summary>A page that whoever asks may change, by the leave of its hosts.</summary>
    public async Task<Page> HeldAsync(Guid id, CancellationToken ct)
    {
        var page = await OfDesks().AsNoTracking().FirstOrDefaultAsync(row => row.Id == id, ct)
            ?? throw Refusal.NotFound("page");
        await allowances.RequireAsync(HostsOf(page), Allowance.Offer, ct);
        return page;
    }

    /// <summary>Makes a draft, which no guest sees yet.</summary>
    public async Task<Page> CreateAsync(PageForm form, CancellationToken ct)
    {
        Checks.Check(form);
        var page = filling.Blank(form.DeskId, clock.GetCurrentInstant());
        await FillAsync(page, await RequireAsync(form, page, ct), ct);
        var hosts = HostsOf(page);
        await allowances.RequireAsync(hosts, Allowance.Offer, ct);
        db.Pages.Add(page);
        record.Note(page.Id, $"Made “{page.Title}”", hosts);
        await SaveAsync(form, ct);
        return await GetAsync(page.Id, ct);
    }

    /// <summary>
    /// Changes a draft, or what is not published yet of a page that guests can open; they go on seeing it as it was.
    /// </summary>
    public async Task<Page> ChangeAsync(Guid id, int version, PageForm form, CancellationToken ct)
    {
        Checks.Check(form);
        var page = await GetAsync(id, ct);
        Require(page, version);
        var tidy = await RequireAsync(form, page, ct);
        List<Guid> hosts = [.. HostsOf(page).Union(HostsOf(tidy))];
        await allowances.RequireAsync(hosts, Allowance.Offer, ct);
        if (page.State == PageState.Published)
            page.Draft = IsSame(tidy, PageView.FormOf(page)) ? null : tidy;
        else
        {
            await FillAsync(page, tidy, ct);
            page.Draft = null;
        }

        page.Version++;
        record.Note(id, $"Changed “{tidy.Title}”", hosts);
        await SaveAsync(form, ct);
        return await GetAsync(id, ct);
    }

    /// <summary>Opens a page to guests, with all that waits to be published.</summary>
    public async Task<Page> PublishAsync(Guid id, int version, CancellationToken ct)
    {
        // Whoever booked is told in the words that were published then.
        await tellings.WriteAllAsync(id, ct);
        var page = await GetAsync(id, ct);
        Require(page, version);
        var draft = page.Draft;
        List<Guid> hosts = [.. HostsOf(page).Union(draft is null ? [] : HostsOf(draft))];
        await allowances.RequireAsync(hosts, Allowance.Offer, ct);
        if (draft is not null)
        {
            // What was right when it was kept need not be so any more: somebody may have left, or have changed its
            // office hours.
            Checks.Check(draft);
            await FillAsync(page, await RequireAsync(draft, page, ct), ct);
            page.Draft = null;
        }

        record.Note(
            id,
            page.State == PageState.Published ? $"Published changes of “{page.Title}”" : $"Published “{page.Title}”",
            hosts
        );
        page.State = PageState.Published;
        page.Version++;
        await editions.AddAsync(page, ct);
        await SaveAsync(PageView.FormOf(page), ct);
        return await GetAsync(id, ct);
    }

    /// <summary>Closes a page to guests. What waits to be published goes on waiting.</summary>
    public Task<Page> UnpublishAsync(Guid id, int version, CancellationToken ct) =>
        CloseAsync(id, version, PageState.Draft, ct);

    /// <summary>Puts a page away: closed to guests, and on no list. What is booked stands.</summary>
    public Task<Page> ArchiveAsync(Guid id, int version, CancellationToken ct) =>
        CloseAsync(id, version, PageState.Archived, ct);

    private async Task<Page> CloseAsync(Guid id, int version, PageState state, CancellationToken ct)
    {
        var page = await GetAsync(id, ct);
        Require(page, version);
        var hosts = HostsOf(page);
        await allowances.RequireAsync(hosts, Allowance.Offer, ct);
        var done =
            state == PageState.Archived ? "Archived"
            : page.State == PageState.Archived ? "Took back"
            : "Unpublished";
        page.State = state;
        page.Version++;
        record.Note(id, $"{done} “{page.Title}”", hosts);
        await SaveAsync(null, ct);
        return page;
    }

    /// <summary>Throws away what is not published yet.</summary>
    public async Task<Page> DiscardAsync(Guid id, int version, CancellationToken ct)
    {
        var page = await GetAsync(id, ct);
        Require(page, version);
        var hosts = HostsOf(page);
        await allowances.RequireAsync(hosts, Allowance.Offer, ct);
        if (page.Draft is null)
            return page;
        page.Draft = null;
        page.Version++;
        record.Note(id, $"Discarded changes of “{page.Title}”", hosts);
        await SaveAsync(null, ct);
        return page;
    }

    /// <summary>
    /// Changes the office hours of a page, at once where it is published, and no more than them: what else waits to be
    /// published goes on waiting.
    /// </summary>
    public async Task<Page> ChangeBlocksAsync(Guid id, int version, BlocksForm blocks, CancellationToken ct)
    {
        var page = await GetAsync(id, ct);
        Require(page, version);
        var form = PageView.FormOf(page);
        form = form with { Times = WithBlocks(form.Times, blocks) };
        Checks.Check(form);
        var hosts = HostsOf(page);
        await allowances.RequireAsync(hosts, Allowance.Offer, ct);
        await FillAsync(page, await RequireAsync(form, page, ct), ct);
        if (page.Draft is { } draft)
            page.Draft = draft with { Times = WithBlocks(draft.Times, blocks) };
        page.Version++;
        record.Note(id, $"Changed the office hours of “{page.Title}”", hosts);
        if (page.State == PageState.Published)
            await editions.AddAsync(page, ct);
        await SaveAsync(form, ct);
        return await GetAsync(id, ct);
    }

    /// <summary>Blocks offered whole take the page's one duration along.</summary>
    private static PageTimes WithBlocks(PageTimes times, BlocksForm blocks) =>
        blocks is { Whole: true, List: [{ } first, ..] } && blocks.List.All(block => block.Length == first.Length)
            ? times with
            {
                Blocks = blocks,
                Durations = [first.Length],
                Step = Math.Max(first.Length, 5),
            }
            : times with
            {
                Blocks = blocks,
            };

    /// <summary>
    /// The page that these times would make, not saved and not named: enough to compute its openings.
    /// </summary>
    /// <param name="of">The page whose sessions count against caps and places; null for a new one.</param>
    public async Task<Page> TryOutAsync(PageTimes times, Guid? of, CancellationToken ct)
    {
        TimesChecks.Check(times, "times.");
        var page = filling.Blank(Guid.Empty, clock.GetCurrentInstant(), of);
        await filling.RequireTeamAsync(times.LineUp, ct);
        var since = await db
            .Pages.Where(row => row.Id == of)
            .SelectMany(row => row.Seats)
            .SelectMany(seat => seat.Hosts)
            .GroupBy(row => row.HostId)
            .Select(rows => new { Host = rows.Key, Since = rows.Min(row => row.Since) })
            .ToDictionaryAsync(row => row.Host, row => row.Since, ct);
        filling.FillTimes(page, times with { Calendars = await choices.CheckAsync(times, ct) }, since);
        return page;
    }

    /// <summary>The page as it would be once all of it is published, not tracked and never to be saved.</summary>
    public async Task<Page> AsPublishedAsync(Guid id, CancellationToken ct)
    {
        var page = await OfDesks().AsNoTracking().FirstOrDefaultAsync(row => row.Id == id, ct)
            ?? throw Refusal.NotFound("page");
        if (page.Draft is not { } draft)
            return page;
        var then = filling.Blank(draft.DeskId, page.CreatedAt, id);
        then.Mark = page.Mark;
        filling.Fill(then, draft);
        then.Desk = await db.Desks.AsNoTracking().FirstOrDefaultAsync(desk => desk.Id == draft.DeskId, ct) ?? page.Desk;
        var asked = HostsOf(draft);
        var hosts = await db
            .Hosts.AsNoTracking()
            .Where(host => asked.Contains(host.Id))
            .ToDictionaryAsync(host => host.Id, ct);
        foreach (var seated in then.Seats.SelectMany(seat => seat.Hosts))
            seated.Host = hosts.GetValueOrDefault(seated.HostId);
        return then;
    }

    public async Task<bool> IsAddressFreeAsync(Guid deskId, string address, Guid? exceptPage, CancellationToken ct) =>
        !await db.Pages.AnyAsync(page => page.DeskId == deskId && page.Address == address && page.Id != exceptPage, ct);

    private static bool IsSame(PageForm one, PageForm other) =>
        JsonSerializer.Serialize(one, Json.Options) == JsonSerializer.Serialize(other, Json.Options);

    private static List<Guid> HostsOf(PageForm form) =>
        [.. form.Times.LineUp.SelectMany(seat => seat.HostIds).Distinct()];

    private static List<Guid> HostsOf(Page page) =>
        [.. page.Seats.SelectMany(seat => seat.Hosts).Select(host => host.HostId).Distinct()];

    private static void Require(Page page, int version)
    {
        if (page.Version != version)
            throw ChangedMeanwhile();
    }

    private static Refusal ChangedMeanwhile() =>
        new(StatusCodes.Status409Conflict, "changed-meanwhile", "changed-meanwhile.page");

    /// <summary>The form as it is kept, once all of it that rows tell is right.</summary>
    private async Task<PageForm> RequireAsync(PageForm form, Page page, CancellationToken ct)
    {
        if (!await db.Desks.AnyAsync(desk => desk.Id == form.DeskId, ct))
            throw Refusal.Invalid("deskId", "your-desk");
        var isWhereItWas = page.DeskId == form.DeskId && page.Address == form.Address;
        if (!isWhereItWas && !await IsAddressFreeAsync(form.DeskId, form.Address, page.Id, ct))
            throw AddressTaken(form);
        var details = PageDetailsRules.Tidy(form.Details ?? PageDetails.Usual);
        if (
            details.Naming.Kind.Length > 0
            && !(await db.Workspaces.Select(row => row.Kinds).SingleAsync(ct)).Contains(details.Naming.Kind)
        )
            throw Refusal.Invalid("details.naming.kind", "kind");
        await filling.RequireTeamAsync(form.Times.LineUp, ct);
        if (details.Keepers.Count > 0)
            await KeeperRules.RequirePeopleAsync(db, details, ct);
        return form with
        {
            Title = form.Title.Trim(),
            Description = form.Description.Trim(),
            Place = form.Place.Trim(),
            Changes = form.Changes is { } changes
                ? changes with
                {
                    CancelWords = changes.CancelWords.Trim(),
                    AskWhom = changes.AskWhom.Trim(),
                }
                : ChangeRules.Usual,
            Post = PagePostRules.Tidy(form.Post ?? PagePost.Usual),
            Questions = QuestionRules.Tidy(form.Questions ?? []),
            Details = details,
            Times = form.Times with
            {
                Calendars = await choices.CheckAsync(form.Times, ct),
                Window = form.Times.Window is { Kind: WindowKind.Ahead } ? null : form.Times.Window,
            },
        };
    }

    /// <param name="form">As <see cref="RequireAsync(PageForm, Page, CancellationToken)"/> gives it.</param>
    private async Task FillAsync(Page page, PageForm form, CancellationToken ct)
    {
        if (page.DeskId != form.DeskId || page.Address != form.Address)
            await editions.MoveAsync(page, form.DeskId, form.Address, ct);
        filling.Fill(page, form);
        await filling.FollowHoursAsync(page, form.Times, ct);
        page.Mark = page.Details.Naming.Mark
            ?? (page.Mark.Length > 0 ? page.Mark : await filling.MarkOfAsync(page.Title, ct));
    }

    private async Task SaveAsync(PageForm? form, CancellationToken ct)
    {
        try
        {
            await db.SaveChangesAsync(ct);
        }
        catch (DbUpdateConcurrencyException)
        {
            throw ChangedMeanwhile();
        }
        catch (DbUpdateException e)
            when (e.InnerException is PostgresException { ConstraintName: LanternDb.OneEdition })
        {
            // Two published one version at once.
            throw ChangedMeanwhile();
        }
        catch (DbUpdateException e)
            when (form is not null && e.InnerException is PostgresException { ConstraintName: LanternDb.OnePageAddress }
            )
        {
            throw AddressTaken(form);
        }
    }

    private static Refusal AddressTaken(PageForm form) =>
        Refusal.Invalid("address", Phrase.Of("page-address-taken", ("address", form.Address)));
}
