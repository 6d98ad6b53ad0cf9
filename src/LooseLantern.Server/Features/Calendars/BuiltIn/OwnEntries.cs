using System.Text;
using LooseLantern.Core.Days;
using LooseLantern.Formats.ICalendar.Writing;
using LooseLantern.Server.CalDav;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Features.Record;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Calendars.BuiltIn;

public sealed record OwnEntryView(long Id, OwnEntryForm Entry);

/// <summary>The calendar that everybody has here, and the entries that are made in it.</summary>
public sealed class OwnEntries(
    LanternDb db,
    CalendarUnrolling unrolling,
    CalendarStoring storing,
    Allowances allowances,
    RecordKeeping record,
    IClock clock
)
{
    public const int MostEntries = 2_000;

    private static readonly OwnEntryRules Checks = new();

    /// <summary>The calendar of a new host, to be saved with it.</summary>
    public static Calendar For(Host host, Instant now)
    {
        var calendar = new Calendar
        {
            WorkspaceId = host.WorkspaceId,
            Kind = CalendarKind.BuiltIn,
            HostId = host.Id,
            Name = "Kept here",
            Source = "",
            LoadedAt = now,
            LookedAt = now,
            ReadWholeAt = now,
            ReadRange = CalendarUnrolling.UsualRange(now).ToRange(),
        };
        calendar.For.Add(new CalendarHost { WorkspaceId = host.WorkspaceId, HostId = host.Id });
        return calendar;
    }

    /// <summary>By start; those that are over, and come no more, last.</summary>
    public async Task<IReadOnlyList<OwnEntryView>> ListAsync(Guid calendarId, CancellationToken ct)
    {
        var calendar = await FoundAsync(calendarId, ct);
        await allowances.RequireAsync([calendar.HostId!.Value], Allowance.SeeTitles, ct);
        var rows = await db
            .CalendarResources.AsNoTracking()
            .Where(row => row.CalendarId == calendarId && row.Own != null)
            .Select(row => new OwnEntryView(row.Id, row.Own!))
            .ToListAsync(ct);
        var today = clock.GetCurrentInstant().InZone(DateTimeZoneProviders.Tzdb[calendar.Host!.Zone]).LocalDateTime;
        return [.. rows.OrderBy(row => IsOver(row.Entry, today)).ThenBy(row => row.Entry.Start)];
    }

    public async Task<OwnEntryView> AddAsync(Guid calendarId, OwnEntryForm form, CancellationToken ct)
    {
        if (await db.CalendarResources.CountAsync(row => row.CalendarId == calendarId, ct) >= MostEntries)
            throw new Refusal(
                StatusCodes.Status409Conflict,
                "too-many",
                Phrase.Of("too-many.entries", ("most", MostEntries))
            );
        return await PutAsync(calendarId, $"{Guid.CreateVersion7():N}@loose-lantern.example", form, ct);
    }

    public async Task<OwnEntryView> ChangeAsync(Guid calendarId, long id, OwnEntryForm form, CancellationToken ct) =>
        await PutAsync(calendarId, (await ResourceAsync(calendarId, id, ct)).Path, form, ct);

    public async Task RemoveAsync(Guid calendarId, long id, CancellationToken ct)
    {
        var path = (await ResourceAsync(calendarId, id, ct)).Path;
        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        var calendar = await LockedAsync(calendarId, ct);
        await storing.StoreAsync(calendar, [], [path], ct);
        record.Note(calendarId, "Took an entry out of the calendar that is kept here", calendar.HostId!.Value);
        await db.SaveChangesAsync(ct);
        await transaction.CommitAsync(ct);
    }

    private async Task<OwnEntryView> PutAsync(Guid calendarId, string path, OwnEntryForm form, CancellationToken ct)
    {
        Checks.Check(form);
        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        var calendar = await LockedAsync(calendarId, ct);
        var entry = new OwnEntry(
            path,
            clock.GetCurrentInstant(),
            form.Title.Trim(),
            form.Start,
            form.End,
            form.WholeDay,
            calendar.Host!.Zone,
            RuleOf(form, DateTimeZoneProviders.Tzdb[calendar.Host.Zone]),
            form.Shows == EntryShows.Free,
            form.Shows == EntryShows.Tentative
        );
        if (calendar.ReadRange.IsEmpty)
            await unrolling.UnrollAsync(calendar, unrolling.UsualRange(), ct);
        await storing.StoreAsync(
            calendar,
            [new DavObject(path, null, Encoding.UTF8.GetBytes(OwnEntryFile.Write(entry)))],
            [],
            ct
        );
        var kept = await db.CalendarResources.SingleAsync(row => row.CalendarId == calendarId && row.Path == path, ct);
        kept.Own = form;
        record.Note(calendarId, "Wrote an entry into the calendar that is kept here", calendar.HostId!.Value);
        await db.SaveChangesAsync(ct);
        await transaction.CommitAsync(ct);
        return new OwnEntryView(kept.Id, form);
    }

    private static string? RuleOf(OwnEntryForm form, DateTimeZone zone)
    {
        if (form.Repeats == EntryRepeats.Once)
            return null;
        var frequency = form.Repeats switch
        {
            EntryRepeats.Daily => "DAILY",
            EntryRepeats.Weekly => "WEEKLY",
            _ => "MONTHLY",
        };
        if (form.Until is not { } last)
            return $"FREQ={frequency}";
        // A date for whole days, else an instant in UTC (RFC 5545 section 3.3.10); the whole of that date is meant.
        return form.WholeDay
            ? $"FREQ={frequency};UNTIL={last:uuuuMMdd}"
            : $"FREQ={frequency};UNTIL={LocalDays.Start(zone, last.PlusDays(1)) - Duration.FromSeconds(1):uuuuMMdd'T'HHmmss'Z'}";
    }

    private static bool IsOver(OwnEntryForm entry, LocalDateTime now) =>
        entry.Repeats == EntryRepeats.Once ? entry.End <= now : entry.Until is { } until && until < now.Date;

    private async Task<Calendar> LockedAsync(Guid calendarId, CancellationToken ct)
    {
        await allowances.RequireAsync([(await FoundAsync(calendarId, ct)).HostId!.Value], Allowance.Offer, ct);
        return await unrolling.LockedAsync(calendarId, ct) ?? throw Refusal.NotFound("calendar");
    }

    private async Task<Calendar> FoundAsync(Guid calendarId, CancellationToken ct) =>
        await db
            .Calendars.Include(row => row.Host)
            .FirstOrDefaultAsync(row => row.Id == calendarId && row.Kind == CalendarKind.BuiltIn, ct)
        ?? throw Refusal.NotFound("calendar");

    private async Task<CalendarResource> ResourceAsync(Guid calendarId, long id, CancellationToken ct) =>
        await db
            .CalendarResources.AsNoTracking()
            .FirstOrDefaultAsync(row => row.CalendarId == calendarId && row.Id == id, ct)
        ?? throw Refusal.NotFound("entry");
}
