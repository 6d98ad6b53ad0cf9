using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Features.Record;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.GuestBook;

/// <summary>Which facts of the other one count, where both are known.</summary>
/// <param name="Version">Of the one who stays, and <paramref name="OtherVersion"/> of the one who goes, as they were
/// looked at.</param>
/// <param name="Take">Names of facts, or ids of fields, that are taken from the one who goes. What the one who stays
/// lacks is always taken.</param>
public sealed record MergeForm(Guid Other, int Version, int OtherVersion, IReadOnlyList<string> Take);

/// <summary>Makes one guest of two who turned out to be one, and two again.</summary>
public sealed class GuestMerging(LanternDb db, GuestEditing editing, Actor actor, RecordKeeping record, IClock clock)
{
    /// <exception cref="Refusal">404 where one is not there, 409 where one was changed meanwhile.</exception>
    public async Task MergeAsync(Guid id, MergeForm form, CancellationToken ct)
    {
        if (id == form.Other)
            throw Refusal.Invalid("other", "guest-merge-self");
        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        // In the order of their ids, so that two who merge at once wait and don't block one another; and so that
        // whoever books for one of them just now waits, or is waited for.
        await db.Database.ExecuteSqlAsync(
            $"SELECT 1 FROM guests WHERE id IN ({id}, {form.Other}) ORDER BY id FOR UPDATE",
            ct
        );
        var (kept, gone) = (await editing.FindAsync(id, ct), await editing.FindAsync(form.Other, ct));
        if (kept.Version != form.Version || gone.Version != form.OtherVersion)
            throw GuestEditing.ChangedMeanwhile();
        var (before, after) = (FactsOf(kept), Merged(FactsOf(kept), FactsOf(gone), form.Take));
        var merge = new GuestMerge
        {
            WorkspaceId = kept.WorkspaceId,
            KeptId = id,
            GoneId = gone.Id,
            At = clock.GetCurrentInstant(),
            PersonName = actor.Person?.Name ?? "",
            Things = new MergedThings(
                before,
                after,
                [.. gone.Emails.Select(email => email.Key)],
                await Bookings().Where(row => row.GuestId == gone.Id).Select(row => row.Id).ToListAsync(ct),
                await Bookings().Where(row => row.BookerId == gone.Id).Select(row => row.Id).ToListAsync(ct),
                await db
                    .LinkGuests.Where(row => row.GuestId == gone.Id)
                    .Select(row => row.LinkId)
                    .Distinct()
                    .ToListAsync(ct),
                await db.GuestNotes.Where(row => row.GuestId == gone.Id).Select(row => row.Id).ToListAsync(ct)
            ),
        };
        db.GuestMerges.Add(merge);
        Fill(kept, after);
        kept.Version++;
        gone.MergedInto = id;
        gone.Version++;
        record.Note(id, $"Merged another guest into {RecordWords.Guest}");
        await db.SaveChangesAsync(ct);
        await MoveAsync(merge.Things, gone.Id, id, kept.Emails.Count, ct);
        await transaction.CommitAsync(ct);
    }

    /// <summary>Makes two guests of one again; what was changed since stays with the one who stayed.</summary>
    /// <returns>The one who was merged.</returns>
    /// <exception cref="Refusal">404 where there is no such merge, 409 where it was undone or the one who stayed was
    /// merged into another since.</exception>
    public async Task<Guid> UndoAsync(Guid mergeId, CancellationToken ct)
    {
        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        await db.Database.ExecuteSqlAsync($"SELECT 1 FROM guest_merges WHERE id = {mergeId} FOR NO KEY UPDATE", ct);
        var merge = await db.GuestMerges.FirstOrDefaultAsync(row => row.Id == mergeId, ct)
            ?? throw Refusal.NotFound("merge");
        await db.Database.ExecuteSqlAsync(
            $"SELECT 1 FROM guests WHERE id IN ({merge.KeptId}, {merge.GoneId}) ORDER BY id FOR UPDATE",
            ct
        );
        var kept = await db.Guests.SingleAsync(row => row.Id == merge.KeptId, ct);
        var gone = await db.Guests.SingleAsync(row => row.Id == merge.GoneId, ct);
        if (merge.UndoneAt is not null)
            throw new Refusal(StatusCodes.Status409Conflict, "merge-undone");
        if (kept.MergedInto is not null)
            throw new Refusal(StatusCodes.Status409Conflict, "merged-since");
        var things = merge.Things;
        Fill(kept, Restored(FactsOf(kept), things.Before, things.After));
        kept.Version++;
        gone.MergedInto = null;
        gone.Version++;
        merge.UndoneAt = clock.GetCurrentInstant();
        record.Note(kept.Id, $"Undid a merge with {RecordWords.Guest}");
        await db.SaveChangesAsync(ct);
        await MoveAsync(things, kept.Id, gone.Id, 0, ct);
        // What was booked since by an email that is the other's again is theirs.
        var emails = things.Emails.ToList();
        await Bookings()
            .Where(row => row.GuestId == kept.Id && emails.Contains(row.GuestEmail.Trim().ToLower()))
            .ExecuteUpdateAsync(row => row.SetProperty(booking => booking.GuestId, gone.Id), ct);
        await transaction.CommitAsync(ct);
        return gone.Id;
    }

    public static GuestFacts FactsOf(Guest guest) =>
        new(
            guest.Name,
            guest.Organisation,
            guest.Phone,
            guest.Zone,
            guest.Language,
            guest.Clock,
            guest.KeeperId,
            guest.Fields
        );

    public static void Fill(Guest guest, GuestFacts facts)
    {
        (guest.Name, guest.Organisation, guest.Phone) = (facts.Name, facts.Organisation, facts.Phone);
        (guest.Zone, guest.Language, guest.Clock) = (facts.Zone, facts.Language, facts.Clock);
        (guest.KeeperId, guest.Fields) = (facts.KeeperId, facts.Fields);
    }

    private static GuestFacts Merged(GuestFacts kept, GuestFacts gone, IReadOnlyList<string> take)
    {
        var fields = new Dictionary<Guid, string>(gone.Fields);
        foreach (var (id, value) in kept.Fields)
        {
            if (!take.Contains(id.ToString("D")) || !gone.Fields.ContainsKey(id))
                fields[id] = value;
        }

        return new GuestFacts(
            Text("name", kept.Name, gone.Name),
            Text("organisation", kept.Organisation, gone.Organisation),
            Text("phone", kept.Phone, gone.Phone),
            Chosen("zone", kept.Zone, gone.Zone),
            Chosen("language", kept.Language, gone.Language),
            Takes("clock") && gone.Clock is not null ? gone.Clock : kept.Clock ?? gone.Clock,
            Takes("keeper") && gone.KeeperId is not null ? gone.KeeperId : kept.KeeperId ?? gone.KeeperId,
            fields
        );
        bool Takes(string fact) => take.Contains(fact);
        string Text(string fact, string one, string other) =>
            other.Length > 0 && (one.Length == 0 || Takes(fact)) ? other : one;
        string? Chosen(string fact, string? one, string? other) =>
            other is not null && (one is null || Takes(fact)) ? other : one;
    }

    /// <summary>Each fact as it was before, unless somebody changed it since.</summary>
    private static GuestFacts Restored(GuestFacts now, GuestFacts before, GuestFacts after)
    {
        var fields = new Dictionary<Guid, string>();
        foreach (var id in now.Fields.Keys.Union(before.Fields.Keys))
        {
            var value = now.Fields.GetValueOrDefault(id);
            var restored = value == after.Fields.GetValueOrDefault(id) ? before.Fields.GetValueOrDefault(id) : value;
            if (restored is not null)
                fields[id] = restored;
        }

        return new GuestFacts(
            now.Name == after.Name ? before.Name : now.Name,
            now.Organisation == after.Organisation ? before.Organisation : now.Organisation,
            now.Phone == after.Phone ? before.Phone : now.Phone,
            now.Zone == after.Zone ? before.Zone : now.Zone,
            now.Language == after.Language ? before.Language : now.Language,
            now.Clock == after.Clock ? before.Clock : now.Clock,
            now.KeeperId == after.KeeperId ? before.KeeperId : now.KeeperId,
            fields
        );
    }

    private IQueryable<Booking> Bookings() => db.Bookings.IgnoreQueryFilters([LanternDb.NotCancelled]);

    private async Task MoveAsync(MergedThings things, Guid from, Guid to, int places, CancellationToken ct)
    {
        await db
            .GuestEmails.Where(row => row.GuestId == from && things.Emails.Contains(row.Key))
            .ExecuteUpdateAsync(
                row =>
                    row.SetProperty(email => email.GuestId, to)
                        .SetProperty(email => email.Place, email => email.Place + places),
                ct
            );
        await Bookings()
            .Where(row => row.GuestId == from && things.Bookings.Contains(row.Id))
            .ExecuteUpdateAsync(row => row.SetProperty(booking => booking.GuestId, to), ct);
        await Bookings()
            .Where(row => row.BookerId == from && things.BookedFor.Contains(row.Id))
            .ExecuteUpdateAsync(row => row.SetProperty(booking => booking.BookerId, to), ct);
        await db
            .LinkGuests.Where(row => row.GuestId == from && things.Links.Contains(row.LinkId))
            .ExecuteUpdateAsync(row => row.SetProperty(link => link.GuestId, to), ct);
        await db
            .GuestNotes.Where(row => row.GuestId == from && things.Notes.Contains(row.Id))
            .ExecuteUpdateAsync(row => row.SetProperty(note => note.GuestId, to), ct);
    }
}
