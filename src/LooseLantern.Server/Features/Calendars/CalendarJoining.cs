using LooseLantern.Formats.ICalendar.Reading;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Features.Record;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using NpgsqlTypes;

namespace LooseLantern.Server.Features.Calendars;

/// <summary>Joins calendars to hosts from iCalendar files, replaces and takes them away. Each is done whole or not at all.</summary>
public sealed class CalendarJoining(LanternDb db, Tenant tenant, CalendarUnrolling unrolling, Allowances allowances, RecordKeeping record, IClock clock)
{
    public const int MostBytes = 5 * 1024 * 1024;

    /// <exception cref="Refusal">When the host is not of this workspace or the file can't be read; says what and where.</exception>
    public async Task<Calendar> JoinAsync(Guid hostId, string? name, string fileName, byte[] file, CancellationToken ct)
    {
        Check(name, file);
        if (!await db.Hosts.AnyAsync(host => host.Id == hostId && host.RetiredAt == null, ct)) throw Refusal.Invalid("hostId", "Choose whose calendar this is.");
        await allowances.HoldToAsync([hostId], Allowance.Offer, ct);

        var calendar = new Calendar
        {
            WorkspaceId = tenant.WorkspaceId!.Value,
            HostId = hostId,
            Name = NameOf(name, fileName),
            FileName = Path.GetFileName(fileName),
            Source = file,
            LoadedAt = clock.GetCurrentInstant(),
            ReadRange = NpgsqlRange<Instant>.Empty,
        };

        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        db.Calendars.Add(calendar);
        record.Note(calendar.Id, $"Joined the calendar “{calendar.Name}”", hostId);
        await db.SaveChangesAsync(ct);
        await UnrollAsync(calendar, ct);
        await transaction.CommitAsync(ct);
        return calendar;
    }

    /// <summary>Puts another file in the place of a calendar's; until that is done the old one counts.</summary>
    /// <inheritdoc cref="JoinAsync"/>
    public async Task<Calendar> ReplaceAsync(Guid calendarId, string fileName, byte[] file, CancellationToken ct)
    {
        Check(null, file);
        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        var calendar = await db.Calendars.FirstOrDefaultAsync(row => row.Id == calendarId, ct) ?? throw Refusal.NotFound("calendar");
        await allowances.HoldToAsync([calendar.HostId], Allowance.Offer, ct);
        record.Note(calendar.Id, $"Replaced the file of “{calendar.Name}”", calendar.HostId);
        calendar.FileName = Path.GetFileName(fileName);
        calendar.Source = file;
        calendar.LoadedAt = clock.GetCurrentInstant();
        await UnrollAsync(calendar, ct);
        await transaction.CommitAsync(ct);
        return calendar;
    }

    /// <summary>Names a calendar, and says what of it is in the way of openings.</summary>
    public async Task<Calendar> ChangeAsync(Guid calendarId, CalendarForm form, CancellationToken ct)
    {
        if (!Words.FitOneLine(form.Name)) throw Refusal.Invalid("name", "Name the calendar in up to 120 characters.");
        var calendar = await db.Calendars.FirstOrDefaultAsync(row => row.Id == calendarId, ct) ?? throw Refusal.NotFound("calendar");
        await allowances.HoldToAsync([calendar.HostId], Allowance.Offer, ct);
        (calendar.Name, calendar.IsAsked, calendar.TentativeCounts) = (form.Name.Trim(), form.IsAsked, form.TentativeCounts);
        record.Note(calendarId, $"{(form.IsAsked ? "Asks" : "No longer asks")} the calendar “{calendar.Name}”{(form.IsAsked && !form.TentativeCounts ? ", but for what is tentative" : "")}", calendar.HostId);
        await db.SaveChangesAsync(ct);
        return calendar;
    }

    public async Task RemoveAsync(Guid calendarId, CancellationToken ct)
    {
        var calendar = await db.Calendars.FirstOrDefaultAsync(row => row.Id == calendarId, ct) ?? throw Refusal.NotFound("calendar");
        await allowances.HoldToAsync([calendar.HostId], Allowance.Offer, ct);
        record.Note(calendarId, $"Took the calendar “{calendar.Name}” away", calendar.HostId);
        db.Calendars.Remove(calendar);
        await db.SaveChangesAsync(ct);
    }

    private static void Check(string? name, byte[] file)
    {
        if (name is { Length: > 0 } && !Words.FitOneLine(name)) throw Refusal.Invalid("name", "Name the calendar in up to 120 characters.");
        if (file.Length > MostBytes) throw Refusal.Invalid("file", "The file is over 5 MB; export a shorter run of time.");
        try
        {
            CalendarFile.Parse(file);
        }
        catch (CalendarFileException e)
        {
            throw Refusal.Invalid("file", e.Message);
        }
    }

    private static string NameOf(string? name, string fileName)
    {
        if (!string.IsNullOrWhiteSpace(name)) return name.Trim();
        var own = Path.GetFileNameWithoutExtension(fileName).Trim();
        return Words.FitOneLine(own) ? own : "Calendar";
    }

    private async Task UnrollAsync(Calendar calendar, CancellationToken ct)
    {
        try
        {
            await unrolling.UnrollAsync(calendar, unrolling.UsualRange(), ct);
        }
        catch (CalendarTooLargeException e)
        {
            throw Refusal.Invalid("file", e.Message);
        }
    }
}
