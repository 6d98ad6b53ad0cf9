using LooseLantern.Server.CalDav;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Features.Calendars.Looking;
using LooseLantern.Server.Features.Record;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Outside;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using NpgsqlTypes;

namespace LooseLantern.Server.Features.Calendars.Joining;

/// <param name="IsAsked">Whether its busy times are in the way of openings; else it is only shown.</param>
/// <param name="TentativeCounts">Whether what it has only tentatively is in the way too.</param>
/// <param name="HostIds">Whom one of the whole team counts for; null to leave that as it is.</param>
public sealed record CalendarForm(string Name, bool IsAsked, bool TentativeCounts, IReadOnlyList<Guid>? HostIds = null);

/// <summary>Changes joined calendars, takes them away, and chooses which one bookings are written to.</summary>
public sealed class CalendarEditing(
    LanternDb db,
    Allowances allowances,
    CalendarOwning owning,
    CalendarLooking looking,
    CalendarSecrets secrets,
    OutsideHttp http,
    RecordKeeping record
)
{
    /// <summary>Names a calendar, and says what of it is in the way of whose openings.</summary>
    public async Task ChangeAsync(Guid calendarId, CalendarForm form, CancellationToken ct)
    {
        if (!Words.FitOneLine(form.Name))
            throw Refusal.Invalid("name", "calendar-name");
        var calendar = await AllowedAsync(calendarId, ct);
        if (form.HostIds is not null && calendar.HostId is not null)
            throw Refusal.Invalid("hostIds", "own-calendar");
        (calendar.Name, calendar.IsAsked, calendar.TentativeCounts) = (
            form.Name.Trim(),
            form.IsAsked,
            form.TentativeCounts
        );
        if (form.HostIds is not null)
            await CountForAsync(calendar, form.HostIds, ct);
        record.Note(
            calendarId,
            $"{(form.IsAsked ? "Asks" : "No longer asks")} the calendar “{calendar.Name}”{(form.IsAsked && !form.TentativeCounts ? ", but for what is tentative" : "")}",
            HostsOf(calendar)
        );
        await db.SaveChangesAsync(ct);
    }

    /// <summary>Takes a calendar away. Events that were written there stay, and are looked after no longer.</summary>
    public async Task RemoveAsync(Guid calendarId, CancellationToken ct)
    {
        var calendar = await AllowedAsync(calendarId, ct);
        if (calendar.Kind == CalendarKind.BuiltIn)
            throw new Refusal(StatusCodes.Status409Conflict, "built-in");
        record.Note(calendar.Id, $"Took away the calendar “{calendar.Name}”", HostsOf(calendar));
        await ForgetOnPagesAsync(calendar.Id, ct);
        db.Calendars.Remove(calendar);
        await db.SaveChangesAsync(ct);
        // With the last calendar of an account its password goes too.
        if (calendar.AccountId is { } accountId && !await db.Calendars.AnyAsync(row => row.AccountId == accountId, ct))
            await db.CalendarAccounts.Where(row => row.Id == accountId).ExecuteDeleteAsync(ct);
    }

    /// <summary>
    /// Chooses the calendar to which a host's new bookings are written; null for the one that is kept here.
    /// </summary>
    public async Task WriteToAsync(Guid hostId, Guid? calendarId, CancellationToken ct)
    {
        var host = await db.Hosts.FirstOrDefaultAsync(row => row.Id == hostId && row.RetiredAt == null, ct)
            ?? throw Refusal.NotFound("host");
        await allowances.RequireAsync([hostId], Allowance.Offer, ct);
        var calendar = calendarId is null
            ? null
            : await db.Calendars.FirstOrDefaultAsync(row => row.Id == calendarId && row.HostId == hostId, ct);
        if (
            calendarId is not null
            && calendar is not ({ Kind: CalendarKind.Account, MayWrite: true } or { Kind: CalendarKind.BuiltIn })
        )
            throw Refusal.Invalid("calendarId", "writable-calendar");
        host.WrittenCalendarId = calendar?.Kind == CalendarKind.Account ? calendar.Id : null;
        record.Note(
            hostId,
            calendar?.Kind == CalendarKind.Account
                ? $"New bookings of {host.Name} are written to “{calendar.Name}”"
                : $"New bookings of {host.Name} are written to no other calendar",
            hostId
        );
        await db.SaveChangesAsync(ct);
    }

    /// <summary>Looks at a calendar now, whole, whatever its server says is unchanged.</summary>
    public async Task LookAgainAsync(Guid calendarId, CancellationToken ct)
    {
        await AllowedAsync(calendarId, ct);
        db.ChangeTracker.Clear();
        await looking.LookAsync(calendarId, whole: true, ct);
    }

    /// <summary>Gives an account its new password, once the server has let us in with it.</summary>
    public async Task ChangePasswordAsync(Guid calendarId, string password, CancellationToken ct)
    {
        var calendar = await AllowedAsync(calendarId, ct);
        if (calendar.Kind != CalendarKind.Account)
            throw new Refusal(StatusCodes.Status409Conflict, "no-account");
        if (password.Length is 0 or > 500)
            throw Refusal.Invalid("password", "account-password");
        var account = await db.CalendarAccounts.SingleAsync(row => row.Id == calendar.AccountId, ct);
        try
        {
            var server = new CalDavServer(http, new Uri(account.Url), new Credentials(account.UserName, password));
            await server.PropFindAsync(calendar.CollectionUrl!, "0", Dav.PropFind(Dav.D + "resourcetype"), ct);
        }
        catch (OutsideException e)
        {
            throw Refusal.Invalid("password", Phrase.Told(e.Message));
        }

        account.ProtectedPassword = secrets.Protect(password);
        record.Note(calendarId, $"Gave the account of “{calendar.Name}” its new password", HostsOf(calendar));
        await db.SaveChangesAsync(ct);
        db.ChangeTracker.Clear();
        var ids = await db.Calendars.Where(row => row.AccountId == account.Id).Select(row => row.Id).ToListAsync(ct);
        foreach (var id in ids)
            await looking.LookAsync(id, whole: false, ct);
    }

    /// <summary>A page that asked this one alone asks the usual ones again, rather than none.</summary>
    private async Task ForgetOnPagesAsync(Guid calendarId, CancellationToken ct)
    {
        foreach (var page in await db.Pages.ToListAsync(ct))
        {
            if (
                !page.CalendarChoices.Any(choice =>
                    choice.WrittenTo == calendarId || choice.Asked?.Contains(calendarId) == true
                )
            )
                continue;
            page.CalendarChoices =
            [
                .. page
                    .CalendarChoices.Select(choice =>
                        choice with
                        {
                            Asked = choice.Asked?.Where(id => id != calendarId).ToList() is { Count: > 0 } others
                                ? others
                                : null,
                            WrittenTo = choice.WrittenTo == calendarId ? null : choice.WrittenTo,
                        }
                    )
                    .Where(choice => choice.Asked is not null || choice.WrittenTo is not null),
            ];
        }
    }

    private async Task CountForAsync(Calendar calendar, IReadOnlyList<Guid> hostIds, CancellationToken ct)
    {
        var ids = await owning.CheckAsync(new CalendarOwners(null, hostIds), "", ct);
        if (calendar.For.Select(row => row.HostId).ToHashSet().SetEquals(ids))
            return;
        calendar.For.RemoveAll(row => !ids.Contains(row.HostId));
        calendar.For.AddRange(
            ids.Where(id => !calendar.For.Exists(row => row.HostId == id))
                .Select(id => new CalendarHost { WorkspaceId = calendar.WorkspaceId, HostId = id })
        );
        // Each host's rows are their own; all are made anew when somebody next asks.
        await db
            .CalendarEntries.Where(entry => entry.CalendarId == calendar.Id && !ids.Contains(entry.HostId))
            .ExecuteDeleteAsync(ct);
        calendar.ReadRange = NpgsqlRange<Instant>.Empty;
    }

    private async Task<Calendar> AllowedAsync(Guid calendarId, CancellationToken ct)
    {
        var calendar = await db.Calendars.Include(row => row.For).FirstOrDefaultAsync(row => row.Id == calendarId, ct)
            ?? throw Refusal.NotFound("calendar");
        await allowances.RequireAsync(HostsOf(calendar), Allowance.Offer, ct);
        return calendar;
    }

    private static List<Guid> HostsOf(Calendar calendar) => calendar.For.ConvertAll(row => row.HostId);
}
