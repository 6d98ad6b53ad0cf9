using System.Text;
using LooseLantern.Core;
using LooseLantern.Formats.ICalendar.Writing;
using LooseLantern.Server.CalDav;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Calendars.Looking;
using LooseLantern.Server.Jobs;
using LooseLantern.Server.Outside;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Calendars.Writing;

/// <summary>
/// Carries out what should stand in hosts' calendars. Whatever breaks off in the middle, doing it again comes to the
/// same: an event has one path by its UID, and what is found there is compared before it is written over.
/// </summary>
public sealed class EventWriting(
    LanternDb db,
    SessionTexts texts,
    CalendarUnrolling unrolling,
    OutsideNoticing noticing,
    CalendarSecrets secrets,
    OutsideHttp http,
    IClock clock
)
{
    private const int MostTries = 3;

    /// <summary>
    /// Writes, changes or deletes one event, and notes how that went; a server that fails is asked again later.
    /// </summary>
    public async Task WriteAsync(Guid id, CancellationToken ct)
    {
        var row = await db
            .WrittenEvents.Include(written => written.Calendar)
                .ThenInclude(calendar => calendar!.Account)
            .FirstOrDefaultAsync(written => written.Id == id, ct);
        if (row?.Calendar?.Account is not { } account)
            return;
        var wish = row.Wish;
        try
        {
            var server = new CalDavServer(http, new Uri(account.Url), secrets.Of(account));
            var path = row.Path ?? $"{row.Calendar.CollectionUrl!.TrimEnd('/')}/{row.Uid}.ics";
            var now = clock.GetCurrentInstant();
            var written = row.IsWanted && !row.IsLeftOff ? await texts.OfAsync(row, ct) : null;
            if (written is null)
                await DeleteAsync(server, row, path, ct);
            // What lies behind is left as it was.
            else if (written.Time.End > now || row.Path is not null)
                await PutAsync(server, row, path, written, ct);
            (row.Attempts, row.Fault) = (0, null);
            await SettleAsync(row, wish, null, ct);
        }
        catch (OutsideException e)
        {
            row.Attempts++;
            row.Fault = CutText.Kept(e.Message, 400);
            await SettleAsync(
                row,
                wish,
                clock.GetCurrentInstant() + BackOff.After(row.Attempts, CalendarLooking.MostBackOff),
                ct
            );
        }
        catch (DbUpdateConcurrencyException)
        {
            // The calendar was taken away meanwhile, and with it what should stand there.
        }
    }

    private async Task DeleteAsync(CalDavServer server, WrittenEvent row, string path, CancellationToken ct)
    {
        // Two hosts may have one calendar; the event stays as long as it is meant for one of them.
        var isOfOthers = await db.WrittenEvents.AnyAsync(
            other =>
                other.Id != row.Id
                && other.Uid == row.Uid
                && other.IsWanted
                && other.Calendar!.Account!.Url == row.Calendar!.Account!.Url
                && other.Calendar.CollectionUrl == row.Calendar.CollectionUrl,
            ct
        );
        // Where this breaks off, whoever wants it there again does not take it for somebody else's doing that it is
        // gone.
        if (row.WrittenStart is not null)
        {
            (row.EntityTag, row.WrittenStart, row.WrittenEnd) = (null, null, null);
            await db.SaveChangesAsync(ct);
        }

        // It is ours whatever was made of it, so no entity tag is asked for.
        if (!isOfOthers)
            await server.DeleteAsync(path, null, ct);
        (row.Path, row.TriedStart, row.TriedEnd) = (null, null, null);
        (row.Outside, row.OutsideStart, row.OutsideEnd, row.NoticedAt) = (OutsideChange.None, null, null, null);
    }

    private async Task PutAsync(
        CalDavServer server,
        WrittenEvent row,
        string path,
        SessionEvent session,
        CancellationToken ct
    )
    {
        var text = SessionFile.Write(session);
        await BeginAsync(server, row, path, session.Time, ct);
        var entityTag = row.EntityTag;
        if (entityTag is null && row.WrittenStart is not null && await server.GetAsync(path, ct) is { } known)
            entityTag = known.EntityTag ?? "";
        for (var attempt = 1; attempt <= MostTries; attempt++)
        {
            var (isWritten, newTag) = await server.PutAsync(path, text, entityTag, ct);
            if (isWritten)
            {
                // Where the server changed the text it tells no tag (RFC 4791 section 5.3.4).
                newTag ??= (await server.GetAsync(path, ct))?.EntityTag;
                await KeepAsync(row, path, newTag, text, session.Time, ct);
                return;
            }

            if (await server.GetAsync(path, ct) is not { } found)
            {
                if (row.WrittenStart is null)
                    throw new OutsideException(
                        OutsideFault.Odd,
                        $"{server.Origin.Host} takes no event at its path, though nothing is there."
                    );
                noticing.Deleted(row);
                return;
            }

            // A server that has no tags can't be asked for one.
            entityTag = found.EntityTag ?? "";
            var there = new CalendarResource
            {
                WorkspaceId = row.WorkspaceId,
                CalendarId = row.CalendarId,
                Path = path,
                Body = found.Body,
                EntityTag = found.EntityTag,
            };
            // What an earlier try left there, before it could be noted, is as good as written by this one.
            if (
                row.WrittenStart is not null
                && !noticing.Compare(row, there)
                && (row.OutsideStart != session.Time.Start || row.OutsideEnd != session.Time.End)
            )
                return;
        }

        (row.Outside, row.OutsideStart, row.OutsideEnd, row.NoticedAt) = (OutsideChange.None, null, null, null);
        throw new OutsideException(
            OutsideFault.Odd,
            $"{server.Origin.Host} says each time that the event has changed meanwhile."
        );
    }

    /// <summary>
    /// Notes, before an event is moved, where to: where that breaks off, what stands there then is told from what
    /// somebody else did to it. So is what an earlier try left.
    /// </summary>
    private async Task BeginAsync(CalDavServer server, WrittenEvent row, string path, Span time, CancellationToken ct)
    {
        if (
            row is { TriedStart: { } start, TriedEnd: { } end }
            && await server.GetAsync(path, ct) is { } left
            && OutsideNoticing.TimeOf(left.Body, row.Uid) == new Span(start, end)
        )
            (row.EntityTag, row.WrittenStart, row.WrittenEnd) = (left.EntityTag, start, end);
        var isMove = row.WrittenStart is not null && (row.WrittenStart != time.Start || row.WrittenEnd != time.End);
        (row.TriedStart, row.TriedEnd) = (isMove ? time.Start : null, isMove ? time.End : null);
        await db.SaveChangesAsync(ct);
    }

    /// <summary>
    /// Keeps the text beside those that were read, so that its going is seen even by the very next look; a look that
    /// began before counts no more.
    /// </summary>
    private async Task KeepAsync(
        WrittenEvent row,
        string path,
        string? entityTag,
        string text,
        Span time,
        CancellationToken ct
    )
    {
        (row.Path, row.EntityTag, row.WrittenStart, row.WrittenEnd) = (path, entityTag, time.Start, time.End);
        (row.TriedStart, row.TriedEnd) = (null, null);
        (row.Outside, row.OutsideStart, row.OutsideEnd, row.NoticedAt) = (OutsideChange.None, null, null, null);
        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        if (await unrolling.LockedAsync(row.CalendarId, ct) is not { } calendar)
            return;
        calendar.Looks++;
        var body = Encoding.UTF8.GetBytes(text);
        var resource = await db.CalendarResources.FirstOrDefaultAsync(
            known => known.CalendarId == calendar.Id && known.Path == path,
            ct
        );
        if (resource is null)
            db.CalendarResources.Add(
                new CalendarResource
                {
                    WorkspaceId = row.WorkspaceId,
                    CalendarId = calendar.Id,
                    Path = path,
                    Body = body,
                    EntityTag = entityTag,
                }
            );
        else
            (resource.Body, resource.EntityTag) = (body, entityTag);
        await db.SaveChangesAsync(ct);
        await transaction.CommitAsync(ct);
    }

    /// <summary>Notes how it went; where something else was wished for meanwhile, that is due at once.</summary>
    private async Task SettleAsync(WrittenEvent row, int wish, Instant? again, CancellationToken ct)
    {
        // Both or neither, or somebody else would take it up in between.
        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        // The host before the event, as bookings do: a row that is changed twice in one transaction asks for its host
        // again, which a booking may have locked.
        await db.Database.ExecuteSqlAsync($"SELECT 1 FROM hosts WHERE id = {row.HostId} FOR KEY SHARE", ct);
        row.WritingUntil = null;
        await db.SaveChangesAsync(ct);
        await db
            .WrittenEvents.Where(written => written.Id == row.Id && written.Wish == wish)
            .ExecuteUpdateAsync(set => set.SetProperty(written => written.DueAt, again), ct);
        await transaction.CommitAsync(ct);
    }
}
