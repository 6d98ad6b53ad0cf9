using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Features.Record;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Undo;

/// <summary>Something that can be taken back.</summary>
/// <param name="Until">Until when; its mail waits as long.</param>
/// <param name="What">In words, as the record has it: its first lines.</param>
/// <param name="More">How many lines more the record has of it.</param>
/// <param name="Mails">How many mails wait.</param>
public sealed record Undoable(Guid Id, Instant At, Instant Until, IReadOnlyList<string> What, int More, int Mails);

/// <summary>What the person who asks can take back.</summary>
public sealed class UndoLists(LanternDb db, Tellings tellings, Actor actor, IClock clock)
{
    private const int MostLines = 3;

    public async Task<IReadOnlyList<Undoable>> OwnAsync(CancellationToken ct)
    {
        var (now, person) = (clock.GetCurrentInstant(), actor.Required.Id);
        var acts = await db
            .UndoActs.AsNoTracking()
            .Where(act =>
                act.PersonId == person
                && act.Until > now
                && act.UndoneAt == null
                && db.UndoRows.Any(row => row.ActId == act.Id)
            )
            .OrderByDescending(act => act.At)
            .ThenByDescending(act => act.Id)
            .ToListAsync(ct);
        if (acts.Count == 0)
            return [];
        // Mails are counted that wait, also those that are just about to be written.
        await tellings.WriteAllAsync(null, ct);
        var ids = acts.ConvertAll(act => (Guid?)act.Id);
        var lines = await db
            .Record.AsNoTracking()
            .Where(line => ids.Contains(line.ActId))
            .OrderBy(line => line.Id)
            .ToListAsync(ct);
        var said = await RecordWords.SaidAsync(db, lines, ct);
        var mails = await db
            .Messages.Where(message =>
                ids.Contains(message.ActId)
                // What is to come is remembered anew by the way.
                && message.Kind != MessageKind.ReminderForGuest
                && message.Kind != MessageKind.ReminderForHost
            )
            .GroupBy(message => message.ActId!.Value)
            .ToDictionaryAsync(group => group.Key, group => group.Count(), ct);
        return
        [
            .. acts.Select(act =>
            {
                List<string> own =
                    act.Whole.Length > 0 ? [act.Whole] : [.. said.Where((_, at) => lines[at].ActId == act.Id)];
                return new Undoable(
                    act.Id,
                    act.At,
                    act.Until,
                    [.. own.Take(MostLines)],
                    Math.Max(0, own.Count - MostLines),
                    mails.GetValueOrDefault(act.Id)
                );
            }),
        ];
    }
}
