using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Features.Record;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Npgsql;

namespace LooseLantern.Server.Features.Pages;

/// <summary>Makes and changes pages. A save names the version it started from, so that nobody overwrites what a colleague just saved.</summary>
public sealed class PageEditing(LanternDb db, Tenant tenant, Allowances allowances, RecordKeeping record, CalendarChoosing choices, IClock clock)
{
    private static readonly PageFormRules Checks = new();
    private static readonly PageTimesRules TimesChecks = new();

    public IQueryable<Page> Whole() => db.Pages
        .Include(page => page.Desk)
        .Include(page => page.Hours)
        .Include(page => page.Blocks)
        .Include(page => page.Seats).ThenInclude(seat => seat.Hosts).ThenInclude(seatHost => seatHost.Host)
        .AsSplitQuery();

    public async Task<Page> GetAsync(Guid id, CancellationToken ct) =>
        await Whole().FirstOrDefaultAsync(page => page.Id == id, ct) ?? throw Refusal.NotFound("page");

    /// <summary>A page that whoever asks may change, by the leave of its hosts.</summary>
    public async Task<Page> HeldAsync(Guid id, CancellationToken ct)
    {
        var page = await Whole().AsNoTracking().FirstOrDefaultAsync(row => row.Id == id, ct) ?? throw Refusal.NotFound("page");
        await allowances.HoldToAsync(HostsOf(page), Allowance.Offer, ct);
        return page;
    }

    /// <summary>Makes a draft, which no guest sees yet.</summary>
    public async Task<Page> CreateAsync(PageForm form, CancellationToken ct)
    {
        Checks.Check(form);
        var page = Blank(form.DeskId, clock.GetCurrentInstant());
        await FillAsync(page, form, ct);
        var hosts = HostsOf(page);
        await allowances.HoldToAsync(hosts, Allowance.Offer, ct);
        page.Mark = await MarkOfAsync(page.Title, ct);
        db.Pages.Add(page);
        record.Note(page.Id, $"Made “{page.Title}”", hosts);
        await SaveAsync(form, ct);
        return await GetAsync(page.Id, ct);
    }

    public async Task<Page> ChangeAsync(Guid id, int version, PageForm form, CancellationToken ct)
    {
        Checks.Check(form);
        var page = await GetAsync(id, ct);
        HoldTo(page, version);
        var before = HostsOf(page);
        await FillAsync(page, form, ct);
        List<Guid> hosts = [.. before.Union(HostsOf(page))];
        await allowances.HoldToAsync(hosts, Allowance.Offer, ct);
        page.Version++;
        record.Note(id, $"Changed “{page.Title}”", hosts);
        await SaveAsync(form, ct);
        return await GetAsync(id, ct);
    }

    public async Task<Page> SetStateAsync(Guid id, int version, PageState state, CancellationToken ct)
    {
        var page = await GetAsync(id, ct);
        HoldTo(page, version);
        var hosts = HostsOf(page);
        await allowances.HoldToAsync(hosts, Allowance.Offer, ct);
        page.State = state;
        page.Version++;
        record.Note(id, $"{(state == PageState.Published ? "Published" : "Unpublished")} “{page.Title}”", hosts);
        await SaveAsync(null, ct);
        return page;
    }

    /// <summary>The page that these times would make, not saved and not named: enough to compute its openings.</summary>
    /// <param name="of">The page whose sessions count against caps and places; null for a new one.</param>
    public async Task<Page> TryOutAsync(PageTimes times, Guid? of, CancellationToken ct)
    {
        TimesChecks.Check(times, "times.");
        var page = Blank(Guid.Empty, clock.GetCurrentInstant(), of);
        await FillTimesAsync(page, times, ct);
        return page;
    }

    public async Task<bool> IsAddressFreeAsync(Guid deskId, string address, Guid? exceptPage, CancellationToken ct) =>
        !await db.Pages.AnyAsync(page => page.DeskId == deskId && page.Address == address && page.Id != exceptPage, ct);

    private static List<Guid> HostsOf(Page page) => [.. page.Seats.SelectMany(seat => seat.Hosts).Select(host => host.HostId).Distinct()];

    /// <summary>Two letters of the title that no other page has, as far as there are such.</summary>
    private async Task<string> MarkOfAsync(string title, CancellationToken ct)
    {
        var taken = await db.Pages.Select(page => page.Mark).ToListAsync(ct);
        var letters = title.Where(char.IsLetter).Append('x').Append('x').ToArray();
        var initials = title.Split(' ', StringSplitOptions.RemoveEmptyEntries).Where(word => char.IsLetter(word[0])).Select(word => word[0]).ToArray();
        IEnumerable<string> marks = [.. initials.Skip(1).Select(second => Mark(initials[0], second)), .. letters.Skip(1).Select(second => Mark(letters[0], second))];
        return marks.FirstOrDefault(mark => !taken.Contains(mark)) ?? Mark(letters[0], letters[1]);

        static string Mark(char first, char second) => $"{char.ToUpperInvariant(first)}{char.ToLowerInvariant(second)}";
    }

    private Page Blank(Guid deskId, Instant now, Guid? id = null) => new()
    {
        Id = id ?? Guid.CreateVersion7(),
        WorkspaceId = tenant.WorkspaceId!.Value,
        DeskId = deskId,
        Address = "",
        Title = "",
        Zone = "UTC",
        Durations = [],
        CreatedAt = now,
    };

    private static void HoldTo(Page page, int version)
    {
        if (page.Version != version) throw ChangedMeanwhile();
    }

    private static Refusal ChangedMeanwhile() => new(
        StatusCodes.Status409Conflict, "changed-meanwhile", "Somebody else has saved this page since you opened it.",
        "Load it again to see what changed, then make your changes once more.");

    private async Task FillAsync(Page page, PageForm form, CancellationToken ct)
    {
        if (!await db.Desks.AnyAsync(desk => desk.Id == form.DeskId, ct)) throw Refusal.Invalid("deskId", "Choose one of your desks.");
        page.DeskId = form.DeskId;
        page.Address = form.Address;
        page.Title = form.Title.Trim();
        page.Description = form.Description.Trim();
        page.PlaceKind = form.PlaceKind;
        page.Place = form.Place.Trim();
        page.KeepsHosts = form.KeepsHosts;
        page.Changes = form.Changes is { } changes ? changes with { CancelWords = changes.CancelWords.Trim(), AskWhom = changes.AskWhom.Trim() } : ChangeRules.Usual;
        page.Post = PagePostRules.Tidy(form.Post ?? PagePost.Usual);
        page.ApprovalHours = form.ApprovalHours;
        page.Questions = QuestionRules.Tidy(form.Questions ?? []);
        await FillTimesAsync(page, form.Times, ct);
    }

    private async Task FillTimesAsync(Page page, PageTimes times, CancellationToken ct)
    {
        await HoldToTeamAsync(times.LineUp, ct);
        page.Zone = times.Zone;
        page.Durations = [.. times.Durations];
        page.Step = times.Step;
        page.StepOffset = times.StepOffset;
        page.StepFrom = times.StepFrom;
        page.BufferBefore = times.BufferBefore;
        page.BufferAfter = times.BufferAfter;
        page.Notice = times.Notice;
        page.AheadDays = times.AheadDays;
        page.HoursMode = times.HoursMode;
        page.DailyCap = times.DailyCap;
        page.WeeklyCap = times.WeeklyCap;
        page.Places = times.Places;
        page.CalendarChoices = await choices.CheckAsync(times, ct);

        if (times.Hours is null || times.Blocks is not null)
        {
            // Hours of a page are nobody else's.
            if (page.Hours is not null) db.Hours.Remove(page.Hours);
            page.Hours = null;
        }
        else if (page.Hours is null) page.Hours = new HoursRow { WorkspaceId = page.WorkspaceId, Name = "Of a page", IsNamed = false, Document = times.Hours };
        else page.Hours.Document = times.Hours;

        FillBlocks(page, times.Blocks);
        FillSeats(page, times.LineUp);
    }

    private static void FillBlocks(Page page, BlocksForm? blocks)
    {
        page.OffersWholeBlocks = blocks?.Whole ?? false;
        page.Blocks.Clear();
        page.Blocks.AddRange((blocks?.List ?? []).Select(block => new BlockRow
        {
            WorkspaceId = page.WorkspaceId, Start = block.Start, Length = block.Length, Rule = block.Rule, Without = [.. block.Without],
        }));
    }

    private async Task HoldToTeamAsync(IReadOnlyList<SeatForm> lineUp, CancellationToken ct)
    {
        var asked = lineUp.SelectMany(seat => seat.HostIds).Distinct().ToList();
        var known = await db.Hosts.Where(host => asked.Contains(host.Id) && host.RetiredAt == null).Select(host => host.Id).ToListAsync(ct);
        for (var seat = 0; seat < lineUp.Count; seat++)
        {
            for (var host = 0; host < lineUp[seat].HostIds.Count; host++)
            {
                if (!known.Contains(lineUp[seat].HostIds[host]))
                    throw Refusal.Invalid($"times.lineUp[{seat}].hostIds[{host}]", "Choose hosts of your team.");
            }
        }
    }

    /// <summary>Seats keep their rows by position, and hosts theirs by seat, so that nobody becomes a newcomer by an edit of something else.</summary>
    private void FillSeats(Page page, IReadOnlyList<SeatForm> lineUp)
    {
        page.Seats.RemoveAll(seat => seat.Position >= lineUp.Count);
        for (var position = 0; position < lineUp.Count; position++)
        {
            var seat = page.Seats.Find(row => row.Position == position);
            if (seat is null) page.Seats.Add(seat = new SeatRow { WorkspaceId = page.WorkspaceId, Position = position });
            seat.Fill = lineUp[position].Fill;

            var hosts = lineUp[position].HostIds;
            seat.Hosts.RemoveAll(row => !hosts.Contains(row.HostId));
            for (var place = 0; place < hosts.Count; place++)
            {
                if (seat.Hosts.Find(row => row.HostId == hosts[place]) is { } stays) stays.Position = place;
                else seat.Hosts.Add(new SeatHost { WorkspaceId = page.WorkspaceId, HostId = hosts[place], Position = place, Since = clock.GetCurrentInstant() });
            }
        }
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
        catch (DbUpdateException e) when (form is not null && e.InnerException is PostgresException { ConstraintName: LanternDb.OnePageAddress })
        {
            throw Refusal.Invalid("address", $"Another page of this desk has the address {form.Address}; choose a different one.");
        }
    }
}
