using LooseLantern.Formats.ICalendar.Reading;
using LooseLantern.Server.CalDav;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Calendars.Looking;
using LooseLantern.Server.Features.Record;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Outside;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Calendars.Joining;

/// <summary>
/// Joins calendars to hosts from iCalendar files, from addresses and from CalDAV accounts. Each is done whole or not at
/// all.
/// </summary>
public sealed class CalendarJoining(
    LanternDb db,
    Tenant tenant,
    CalendarUnrolling unrolling,
    CalendarStoring storing,
    CalendarOwning owning,
    CalendarSecrets secrets,
    CalDavDiscovery discovery,
    IcsAddress addresses,
    OutsideHttp http,
    RecordKeeping record,
    IClock clock
)
{
    public const int MostBytes = IcsAddress.MostBytes;

    private const int MostCalendars = 30;

    /// <exception cref="Refusal">When the host is not of this workspace or the file can't be read; says what and
    /// where.</exception>
    public async Task<Guid> JoinFileAsync(
        CalendarOwners owners,
        string? name,
        string fileName,
        byte[] file,
        CancellationToken ct
    )
    {
        var hosts = await owning.CheckAsync(owners, "", ct);
        Check(name, file);
        var calendar = Blank(
            CalendarKind.File,
            owners,
            hosts,
            NameOf(name, Path.GetFileNameWithoutExtension(fileName)),
            Path.GetFileName(fileName)
        );
        await JoinAsync([(calendar, [new DavObject("", null, file)])], ct);
        return calendar.Id;
    }

    /// <summary>Puts another file in the place of a calendar's; until that is done the old one counts.</summary>
    /// <exception cref="Refusal">As for joining one; 409 for a calendar that is no file.</exception>
    public async Task ReplaceFileAsync(Guid calendarId, string fileName, byte[] file, CancellationToken ct)
    {
        Check(null, file);
        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        var calendar = await unrolling.LockedAsync(calendarId, ct) ?? throw Refusal.NotFound("calendar");
        await owning.CheckAsync(
            new CalendarOwners(
                calendar.HostId,
                calendar.HostId is null ? [.. calendar.For.Select(row => row.HostId)] : null
            ),
            "",
            ct
        );
        if (calendar.Kind != CalendarKind.File)
            throw new Refusal(StatusCodes.Status409Conflict, "no-file");
        calendar.Source = Path.GetFileName(fileName);
        record.Note(calendar.Id, $"Replaced the file of “{calendar.Name}”", calendar.For.Select(row => row.HostId));
        await storing.StoreAsync(calendar, [new DavObject("", null, file)], [], ct);
        calendar.LoadedAt = clock.GetCurrentInstant();
        await db.SaveChangesAsync(ct);
        await transaction.CommitAsync(ct);
    }

    /// <exception cref="Refusal">When the address can't be read or has no calendar.</exception>
    public async Task<Guid> JoinAddressAsync(AddressForm form, CancellationToken ct)
    {
        var hosts = await owning.CheckAsync(form.For, "for.", ct);
        CheckName(form.Name);
        var address = IcsAddress.Read(form.Address) ?? throw Refusal.Invalid("address", "calendar-address");
        var file = await AskAsync("address", () => addresses.FetchAsync(address, null, ct));
        var calendar = Blank(
            CalendarKind.Address,
            form.For,
            hosts,
            NameOf(form.Name, file.Name ?? address.Host),
            address.Host,
            protectedAddress: secrets.Protect(address.AbsoluteUri)
        );
        calendar.EntityTag = file.EntityTag;
        calendar.RefreshSeconds = file.RefreshEvery is { } every
            ? (int)Math.Clamp(every.TotalSeconds, 0, 12 * 3600)
            : null;
        await JoinAsync([(calendar, [new DavObject("", file.EntityTag, file.File!)])], ct);
        return calendar.Id;
    }

    /// <summary>The calendars an account has; nothing is kept.</summary>
    /// <exception cref="Refusal">When there is no account, or it does not let the name in.</exception>
    public async Task<AccountFound> FindAsync(AccountForm form, Guid? hostId, CancellationToken ct)
    {
        CheckAccount(form, "");
        var found = await AskAsync("server", () =>
            discovery.FindAsync(form.Server, new Credentials(form.UserName, form.Password), ct)
        );
        var origin = found.Origin.ToString();
        var joined = await db
            .Calendars.Where(row => row.HostId == hostId && row.Account!.Url == origin)
            .Select(row => row.CollectionUrl)
            .ToListAsync(ct);
        return new AccountFound(
            found.Origin.Authority,
            [
                .. found.Calendars.Select(each => new AccountCalendar(
                    each.Path,
                    each.Name,
                    each.MayWrite,
                    joined.Contains(each.Path)
                )),
            ]
        );
    }

    /// <summary>Joins some of an account's calendars, each read whole before any of them counts.</summary>
    /// <exception cref="Refusal">When one of them can't be read; none is joined then.</exception>
    public async Task<IReadOnlyList<Guid>> JoinAccountAsync(JoinAccountForm form, CancellationToken ct)
    {
        var hosts = await owning.CheckAsync(form.For, "for.", ct);
        CheckAccount(form.Account, "account.");
        if (form.Calendars.Count is 0 or > MostCalendars)
            throw Refusal.Invalid("calendars", Phrase.Of("account-calendars", ("most", MostCalendars)));
        if (form.WriteTo is not null && form.For.HostId is null)
            throw Refusal.Invalid("writeTo", "write-to-own");

        var credentials = new Credentials(form.Account.UserName, form.Account.Password);
        var found = await AskAsync("account.server", () => discovery.FindAsync(form.Account.Server, credentials, ct));
        var server = new CalDavServer(http, found.Origin, credentials);
        var account = new CalendarAccount
        {
            WorkspaceId = tenant.WorkspaceId!.Value,
            Url = found.Origin.ToString(),
            UserName = form.Account.UserName.Trim(),
            ProtectedPassword = secrets.Protect(form.Account.Password),
        };
        var joining = new List<(Calendar, IReadOnlyList<DavObject>)>();
        foreach (var (path, index) in form.Calendars.Distinct().Select((path, index) => (path, index)))
        {
            var each = found.Calendars.FirstOrDefault(calendar => calendar.Path == path)
                ?? throw Refusal.Invalid($"calendars[{index}]", "account-calendar-gone");
            if (path == form.WriteTo && !each.MayWrite)
                throw Refusal.Invalid("writeTo", Phrase.Of("calendar-read-only", ("name", each.Name)));
            if (
                await db.Calendars.AnyAsync(
                    row =>
                        row.HostId == form.For.HostId && row.Account!.Url == account.Url && row.CollectionUrl == path,
                    ct
                )
            )
                throw Refusal.Invalid($"calendars[{index}]", Phrase.Of("calendar-joined", ("name", each.Name)));
            var look = await AskAsync($"calendars[{index}]", () =>
                CalDavLooking.LookAsync(
                    server,
                    path,
                    new Dictionary<string, string?>(),
                    null,
                    each.TellsChanges,
                    whole: true,
                    ct
                )
            );
            var calendar = Blank(
                CalendarKind.Account,
                form.For,
                hosts,
                NameOf(null, each.Name),
                found.Origin.Authority,
                account: account,
                collection: path
            );
            (calendar.MayWrite, calendar.TellsChanges, calendar.SyncToken) = (
                each.MayWrite,
                each.TellsChanges && look.SyncToken is not null,
                look.SyncToken
            );
            joining.Add((calendar, look.Objects));
        }

        if (form.WriteTo is { } writeTo && !form.Calendars.Contains(writeTo))
            throw Refusal.Invalid("writeTo", "joined-calendar");
        await JoinAsync(joining, ct, form.WriteTo);
        return joining.ConvertAll(pair => pair.Item1.Id);
    }

    private async Task JoinAsync(
        IReadOnlyList<(Calendar Calendar, IReadOnlyList<DavObject> Objects)> joining,
        CancellationToken ct,
        string? writeTo = null
    )
    {
        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        foreach (var (calendar, objects) in joining)
        {
            db.Calendars.Add(calendar);
            record.Note(calendar.Id, $"Joined the calendar “{calendar.Name}”", calendar.For.Select(row => row.HostId));
            await db.SaveChangesAsync(ct);
            await db.Entry(calendar).Collection(row => row.For).Query().Include(row => row.Host).LoadAsync(ct);
            calendar.ReadRange = unrolling.UsualRange().ToRange();
            await storing.StoreAsync(calendar, objects, [], ct);
            if (writeTo is not null && calendar.CollectionUrl == writeTo)
            {
                var host = await db.Hosts.SingleAsync(row => row.Id == calendar.HostId, ct);
                host.WrittenCalendarId = calendar.Id;
                await db.SaveChangesAsync(ct);
            }
        }

        await transaction.CommitAsync(ct);
    }

    private Calendar Blank(
        CalendarKind kind,
        CalendarOwners owners,
        List<Guid> hosts,
        string name,
        string source,
        string? protectedAddress = null,
        CalendarAccount? account = null,
        string? collection = null
    )
    {
        var now = clock.GetCurrentInstant();
        var calendar = new Calendar
        {
            WorkspaceId = tenant.WorkspaceId!.Value,
            Kind = kind,
            HostId = owners.HostId,
            Name = name,
            Source = source,
            LoadedAt = now,
            LookedAt = now,
            ReadWholeAt = now,
            ReadRange = unrolling.UsualRange().ToRange(),
            NextLookAt = kind == CalendarKind.File ? null : now + CalendarLooking.Every,
            ProtectedAddress = protectedAddress,
            Account = account,
            CollectionUrl = collection,
        };
        calendar.For.AddRange(hosts.Select(id => new CalendarHost { WorkspaceId = calendar.WorkspaceId, HostId = id }));
        return calendar;
    }

    /// <summary>
    /// Asks another server for what somebody waits for; what stands in the way is a fault of a field.
    /// </summary>
    private static async Task<T> AskAsync<T>(string field, Func<Task<T>> ask)
    {
        try
        {
            return await ask();
        }
        catch (OutsideException e)
        {
            throw Refusal.Invalid(
                e.Fault == OutsideFault.NotLetIn && field.EndsWith("server", StringComparison.Ordinal)
                    ? field.Replace("server", "password", StringComparison.Ordinal)
                    : field,
                Phrase.Told(e.Message)
            );
        }
    }

    private static void CheckAccount(AccountForm form, string path)
    {
        var faults = new Dictionary<string, Phrase[]>();
        if (string.IsNullOrWhiteSpace(form.Server) || form.Server.Length > 500)
            faults[$"{path}server"] = ["calendar-server"];
        if (
            string.IsNullOrWhiteSpace(form.UserName)
            || form.UserName.Length > 200
            || form.UserName.Any(char.IsControl)
            || form.UserName.Contains(':')
        )
            faults[$"{path}userName"] = ["account-name"];
        if (form.Password.Length is 0 or > 500)
            faults[$"{path}password"] = ["account-password-new"];
        if (faults.Count > 0)
            throw Refusal.Invalid(faults);
    }

    private static void CheckName(string? name)
    {
        if (name is { Length: > 0 } && !Words.FitOneLine(name))
            throw Refusal.Invalid("name", "calendar-name");
    }

    private static void Check(string? name, byte[] file)
    {
        CheckName(name);
        if (file.Length > MostBytes)
            throw Refusal.Invalid("file", "calendar-too-large");
        try
        {
            CalendarFile.Parse(file);
        }
        catch (CalendarFileException e)
        {
            throw Refusal.Invalid("file", Phrase.Told(e.Message));
        }
    }

    private static string NameOf(string? typed, string own)
    {
        if (!string.IsNullOrWhiteSpace(typed))
            return typed.Trim();
        return Words.FitOneLine(own) ? own.Trim() : "Calendar";
    }
}
