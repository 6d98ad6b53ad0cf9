using LooseLantern.Core.Openings;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Pages;

/// <summary>Fills rows of pages from forms.</summary>
public sealed class PageFilling(LanternDb db, Tenant tenant, Actor actor, IClock clock)
{
    /// <summary>A page of the workspace at hand with nothing filled in.</summary>
    public Page Blank(Guid deskId, Instant now, Guid? id = null) =>
        new()
        {
            Id = id ?? Guid.CreateVersion7(),
            WorkspaceId = tenant.WorkspaceId!.Value,
            DeskId = deskId,
            Address = "",
            Title = "",
            Zone = "UTC",
            Durations = [],
            CreatedAt = now,
            MadeBy = actor.Person?.Id,
        };

    /// <summary>Two letters of the title that no other page has, as far as there are such.</summary>
    public async Task<string> MarkOfAsync(string title, CancellationToken ct)
    {
        var taken = await db.Pages.Select(page => page.Mark).ToListAsync(ct);
        var letters = title.Where(char.IsLetter).Append('x').Append('x').ToArray();
        var initials = title
            .Split(' ', StringSplitOptions.RemoveEmptyEntries)
            .Where(word => char.IsLetter(word[0]))
            .Select(word => word[0])
            .ToArray();
        IEnumerable<string> marks =
        [
            .. initials.Skip(1).Select(second => Mark(initials[0], second)),
            .. letters.Skip(1).Select(second => Mark(letters[0], second)),
        ];
        return marks.FirstOrDefault(mark => !taken.Contains(mark)) ?? Mark(letters[0], letters[1]);

        static string Mark(char first, char second) => $"{char.ToUpperInvariant(first)}{char.ToLowerInvariant(second)}";
    }

    /// <param name="form">As it is kept: tidied, and checked.</param>
    public void Fill(Page page, PageForm form)
    {
        page.DeskId = form.DeskId;
        page.Address = form.Address;
        page.Title = form.Title;
        page.Description = form.Description;
        page.PlaceKind = form.PlaceKind;
        page.Place = form.Place;
        page.KeepsHosts = form.KeepsHosts;
        page.Changes = form.Changes!;
        page.Post = form.Post!;
        page.ApprovalHours = form.ApprovalHours;
        page.Questions = form.Questions!;
        page.Details = form.Details!;
        FillTimes(page, form.Times);
    }

    /// <param name="since">Since when hosts have had their seat of a page that is only tried out.</param>
    public void FillTimes(Page page, PageTimes times, IReadOnlyDictionary<Guid, Instant>? since = null)
    {
        page.Zone = times.Zone;
        page.Durations = [.. times.Durations];
        page.Step = times.Step;
        page.StepOffset = times.StepOffset;
        page.StepFrom = times.StepFrom;
        page.BufferBefore = times.BufferBefore;
        page.BufferAfter = times.BufferAfter;
        page.Notice = times.Notice;
        page.AheadDays = times.AheadDays;
        page.Window = times.Window;
        page.HoursMode = times.HoursMode;
        page.DailyCap = times.DailyCap;
        page.WeeklyCap = times.WeeklyCap;
        page.Places = times.Places;
        page.StartsApart = times.StartsApart;
        page.CalendarChoices = times.Calendars ?? [];

        // A named set is not this page's to change or to take away.
        var own = page.Hours is { IsNamed: false } hours ? hours : null;
        if (times.Hours is null || times.Blocks is not null)
        {
            if (own is not null)
                db.Hours.Remove(own);
            page.Hours = null;
        }
        else if (own is null)
            page.Hours = new HoursRow
            {
                WorkspaceId = page.WorkspaceId,
                Name = "Of a page",
                IsNamed = false,
                Document = times.Hours,
            };
        else
        {
            own.Document = times.Hours;
            own.Version++;
        }

        FillBlocks(page, times.Blocks);
        FillSeats(page, times.LineUp, since);
    }

    /// <summary>Has a page that is to be saved follow a named set of hours, where its form says so.</summary>
    /// <exception cref="Refusal">400 where there is no such set (any more).</exception>
    public async Task FollowHoursAsync(Page page, PageTimes times, CancellationToken ct)
    {
        if (times.HoursOf is not { } id || times.Blocks is not null || times.HoursMode == HoursMode.Hosts)
            return;
        var named = await db.Hours.FirstOrDefaultAsync(row => row.Id == id && row.IsNamed, ct)
            ?? throw Refusal.Invalid("times.hoursOf", "hours-set");
        if (page.Hours is { IsNamed: false } own && db.Entry(own).State != EntityState.Detached)
            db.Hours.Remove(own);
        page.Hours = named;
    }

    private static void FillBlocks(Page page, BlocksForm? blocks)
    {
        page.OffersWholeBlocks = blocks?.Whole ?? false;
        page.Blocks.Clear();
        page.Blocks.AddRange(
            (blocks?.List ?? []).Select(block => new BlockRow
            {
                WorkspaceId = page.WorkspaceId,
                Start = block.Start,
                Length = block.Length,
                Rule = block.Rule,
                Without = [.. block.Without],
            })
        );
    }

    /// <exception cref="Refusal">400 naming each host who is none of the team.</exception>
    public async Task RequireTeamAsync(IReadOnlyList<SeatForm> lineUp, CancellationToken ct)
    {
        var asked = lineUp.SelectMany(seat => seat.HostIds).Distinct().ToList();
        var known = await db
            .Hosts.Where(host => asked.Contains(host.Id) && host.RetiredAt == null)
            .Select(host => host.Id)
            .ToListAsync(ct);
        for (var seat = 0; seat < lineUp.Count; seat++)
        {
            for (var host = 0; host < lineUp[seat].HostIds.Count; host++)
            {
                if (!known.Contains(lineUp[seat].HostIds[host]))
                    throw Refusal.Invalid($"times.lineUp[{seat}].hostIds[{host}]", "team-hosts");
            }
        }
    }

    /// <summary>
    /// Seats keep their rows by position, and hosts theirs by seat, so that nobody becomes a newcomer by an edit of
    /// something else.
    /// </summary>
    private void FillSeats(Page page, IReadOnlyList<SeatForm> lineUp, IReadOnlyDictionary<Guid, Instant>? since)
    {
        var now = clock.GetCurrentInstant();
        page.Seats.RemoveAll(seat => seat.Position >= lineUp.Count);
        for (var position = 0; position < lineUp.Count; position++)
        {
            var seat = page.Seats.Find(row => row.Position == position);
            if (seat is null)
                page.Seats.Add(seat = new SeatRow { WorkspaceId = page.WorkspaceId, Position = position });
            (seat.Fill, seat.Keeper) = (lineUp[position].Fill, lineUp[position].Keeper);

            var hosts = lineUp[position].HostIds;
            seat.Hosts.RemoveAll(row => !hosts.Contains(row.HostId));
            for (var place = 0; place < hosts.Count; place++)
            {
                if (seat.Hosts.Find(row => row.HostId == hosts[place]) is { } stays)
                    stays.Position = place;
                else
                    seat.Hosts.Add(
                        new SeatHost
                        {
                            WorkspaceId = page.WorkspaceId,
                            HostId = hosts[place],
                            Position = place,
                            Since = since?.GetValueOrDefault(hosts[place], now) ?? now,
                        }
                    );
            }
        }
    }
}
