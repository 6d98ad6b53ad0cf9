using LooseLantern.Core;
using LooseLantern.Server.CalDav;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Jobs;
using LooseLantern.Server.Outside;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Calendars.Looking;

/// <summary>
/// Looks at one calendar outside, and keeps what it says. The network is never asked inside a transaction; what a look
/// brought is kept only if no other look, and no event we wrote, came between.
/// </summary>
public sealed partial class CalendarLooking(
    LanternDb db,
    CalendarUnrolling unrolling,
    CalendarStoring storing,
    CalendarSecrets secrets,
    OutsideHttp http,
    IcsAddress addresses,
    IClock clock,
    ILogger<CalendarLooking> logger
)
{
    private const int MostTries = 4;
    private const int MostFault = 400;

    /// <summary>So often, that a change outside shows within a minute.</summary>
    public static readonly Duration Every = Duration.FromSeconds(30);

    /// <summary>The longest pause before a calendar that is out of reach is tried again.</summary>
    public static readonly Duration MostBackOff = Duration.FromMinutes(15);

    private static readonly Duration MostRefresh = Duration.FromHours(12);
    private static readonly Duration WholeEvery = Duration.FromHours(6);

    /// <summary>Looks now.</summary>
    /// <param name="whole">Whether all is read anew, whatever the server says is unchanged.</param>
    /// <returns>Whether the calendar could be read. Where not, what was known still counts, and the calendar says since
    /// when.</returns>
    public async Task<bool> LookAsync(Guid calendarId, bool whole, CancellationToken ct)
    {
        for (var attempt = 1; ; attempt++)
        {
            var calendar = await db
                .Calendars.AsNoTracking()
                .Include(row => row.Account)
                .FirstOrDefaultAsync(row => row.Id == calendarId, ct);
            if (calendar?.Kind is not (CalendarKind.Account or CalendarKind.Address))
                return calendar is not null;
            var isWhole = whole || calendar.ReadWholeAt + WholeEvery <= clock.GetCurrentInstant();
            try
            {
                var look = await AskAsync(calendar, isWhole, ct);
                if (await KeepAsync(calendar, look, isWhole, ct))
                    return true;
                if (attempt < MostTries)
                    continue;
                // Others kept theirs each time, so it is fresh; the next look comes as usual.
                await db
                    .Calendars.Where(row => row.Id == calendarId)
                    .ExecuteUpdateAsync(set => set.SetProperty(row => row.LookingUntil, (Instant?)null), ct);
                return true;
            }
            catch (OutsideException e)
            {
                await FailAsync(calendarId, e.Message, ct);
                return false;
            }
            catch (Exception e) when (e is not OperationCanceledException || !ct.IsCancellationRequested)
            {
                // No calendar stops being read in silence: whatever went wrong is told like a server out of reach.
                LogFailed(logger, calendarId, e);
                await FailAsync(
                    calendarId,
                    "What it sends can’t be kept here; whoever runs this finds why in the log.",
                    ct
                );
                return false;
            }
        }
    }

    /// <summary>
    /// Who looked before then has fallen behind: that is twice the rhythm.
    /// </summary>
    public static Instant Late(Instant now) => now - Every - Every;

    /// <summary>
    /// Looks at the calendars of these hosts at which nobody looked for longer than they should; what can't be reached
    /// counts as it was.
    /// </summary>
    public async Task FreshenAsync(IReadOnlyCollection<Guid> hostIds, CancellationToken ct)
    {
        // One that is out of reach is not waited for.
        var late = Late(clock.GetCurrentInstant());
        var stale = await db
            .Calendars.Where(row =>
                row.Kind == CalendarKind.Account
                && row.UnreachableSince == null
                && row.LookedAt < late
                && row.For.Any(host => hostIds.Contains(host.HostId))
            )
            .Select(row => row.Id)
            .ToListAsync(ct);
        foreach (var id in stale)
            await LookAsync(id, whole: false, ct);
        db.ChangeTracker.Clear();
    }

    private async Task<Look> AskAsync(Calendar calendar, bool whole, CancellationToken ct)
    {
        if (calendar.Kind == CalendarKind.Address)
        {
            var file = await addresses.FetchAsync(secrets.Address(calendar), whole ? null : calendar.EntityTag, ct);
            return new Look(
                file.File is { } body ? [new DavObject("", file.EntityTag, body)] : [],
                [],
                null,
                file.EntityTag,
                file.File is null ? calendar.RefreshSeconds : SecondsOf(file.RefreshEvery)
            );
        }

        var known = await db
            .CalendarResources.Where(row => row.CalendarId == calendar.Id)
            .ToDictionaryAsync(row => row.Path, row => row.EntityTag, ct);
        var server = new CalDavServer(http, new Uri(calendar.Account!.Url), secrets.Of(calendar.Account));
        var look = await CalDavLooking.LookAsync(
            server,
            calendar.CollectionUrl!,
            known,
            calendar.SyncToken,
            calendar.TellsChanges,
            whole,
            ct
        );
        return new Look(look.Objects, look.Gone, look.SyncToken, null, null);
    }

    private async Task<bool> KeepAsync(Calendar before, Look look, bool whole, CancellationToken ct)
    {
        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        db.ChangeTracker.Clear();
        if (await unrolling.LockedAsync(before.Id, ct) is not { } calendar)
            return true;
        if (calendar.Looks != before.Looks)
            return false;
        await storing.StoreAsync(calendar, look.Objects, look.Gone, ct);
        var now = clock.GetCurrentInstant();
        calendar.Looks++;
        (calendar.SyncToken, calendar.EntityTag, calendar.RefreshSeconds) = (
            look.SyncToken,
            look.EntityTag,
            look.RefreshSeconds
        );
        (calendar.LookedAt, calendar.NextLookAt, calendar.LookingUntil) = (now, now + RhythmOf(calendar), null);
        (calendar.UnreachableSince, calendar.Attempts, calendar.Fault) = (null, 0, null);
        if (whole)
            calendar.ReadWholeAt = now;
        await db.SaveChangesAsync(ct);
        await transaction.CommitAsync(ct);
        db.ChangeTracker.Clear();
        return true;
    }

    private async Task FailAsync(Guid calendarId, string fault, CancellationToken ct)
    {
        db.ChangeTracker.Clear();
        if (await db.Calendars.FirstOrDefaultAsync(row => row.Id == calendarId, ct) is not { } calendar)
            return;
        var now = clock.GetCurrentInstant();
        calendar.UnreachableSince ??= now;
        calendar.Attempts++;
        calendar.Fault = CutText.Kept(fault, MostFault);
        (calendar.NextLookAt, calendar.LookingUntil) = (now + BackOff.After(calendar.Attempts, MostBackOff), null);
        await db.SaveChangesAsync(ct);
        db.ChangeTracker.Clear();
    }

    [LoggerMessage(Level = LogLevel.Error, Message = "What calendar {CalendarId} sends could not be kept")]
    private static partial void LogFailed(ILogger logger, Guid calendarId, Exception fault);

    private static Duration RhythmOf(Calendar calendar) =>
        calendar.RefreshSeconds is { } seconds
            ? Duration.Max(Every, Duration.Min(MostRefresh, Duration.FromSeconds(seconds)))
            : Every;

    private static int? SecondsOf(Duration? hint) =>
        hint is { } every ? (int)Math.Clamp(every.TotalSeconds, 0, MostRefresh.TotalSeconds) : null;

    private sealed record Look(
        IReadOnlyList<DavObject> Objects,
        IReadOnlyList<string> Gone,
        string? SyncToken,
        string? EntityTag,
        int? RefreshSeconds
    );
}
