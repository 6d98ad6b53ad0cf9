using System.Globalization;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Jobs;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Post;

/// <summary>Puts all that somebody hears of once a day into one mail.</summary>
public sealed class DailyPost(LanternDb db, IClock clock)
{
    public static readonly DueKind Gathers = new(
        TimeSpan.FromSeconds(5),
        Duration.FromMinutes(3),
        (db, now, until, most, ct) =>
            db
                .Database.SqlQuery<DueRow>(
                    $"""
                    UPDATE messages SET sending_until = {until}
                    WHERE id IN (
                        SELECT m.id FROM messages m WHERE state = 'Gathered' AND due_at <= {now} AND (sending_until IS NULL OR sending_until <= {now})
                            -- One mail a reader: the first of them takes the others along.
                            AND NOT EXISTS (SELECT 1 FROM messages e WHERE e.workspace_id = m.workspace_id AND e.person_id = m.person_id AND e.state = 'Gathered' AND e.id < m.id)
                        ORDER BY due_at, id LIMIT {most} FOR NO KEY UPDATE SKIP LOCKED)
                    RETURNING id, workspace_id
                    """
                )
                .ToListAsync(ct),
        (services, id, ct) => services.GetRequiredService<DailyPost>().GatherAsync(id, ct)
    );

    /// <summary>The next time that it is that time of day.</summary>
    public static Instant Next(LocalTime at, DateTimeZone zone, Instant now)
    {
        var today = now.InZone(zone).Date.At(at).InZoneLeniently(zone).ToInstant();
        return today > now ? today : now.InZone(zone).Date.PlusDays(1).At(at).InZoneLeniently(zone).ToInstant();
    }

    private async Task GatherAsync(Guid firstId, CancellationToken ct)
    {
        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        var personId = await db
            .Messages.Where(row => row.Id == firstId && row.State == MessageState.Gathered)
            .Select(row => row.PersonId)
            .FirstOrDefaultAsync(ct);
        if (personId is null)
            return;
        await db.Database.ExecuteSqlAsync(
            $"SELECT 1 FROM messages WHERE person_id = {personId} AND state = 'Gathered' ORDER BY id FOR NO KEY UPDATE",
            ct
        );
        var parts = await db
            .Messages.Where(row => row.PersonId == personId && row.State == MessageState.Gathered)
            .OrderBy(row => row.WrittenAt)
            .ThenBy(row => row.Id)
            .ToListAsync(ct);
        var person = await db.Users.AsNoTracking().SingleOrDefaultAsync(row => row.Id == personId, ct);
        if (parts.Count == 0 || person?.Email is null)
            return;
        var workspace = await db.Workspaces.Select(row => row.Name).SingleAsync(ct);
        var (now, reader) = (clock.GetCurrentInstant(), Reader.Of(person));
        var text = string.Join("\n\n", parts.Select(part => $"* {part.Subject}\n{part.Text}"));
        var mail = PostTemplates.Write(
            MessageKind.Daily,
            reader.Language,
            new Dictionary<string, string>
            {
                ["workspace"] = workspace,
                ["count"] = parts.Count.ToString(CultureInfo.InvariantCulture),
                ["parts"] = text,
            }
        );
        var daily = PostDraft.Of(parts[0].WorkspaceId, workspace, MessageKind.Daily, reader, mail, now);
        daily.PersonId = personId;
        db.Messages.Add(daily);
        foreach (var part in parts)
            (part.State, part.SentAt, part.SendingUntil) = (MessageState.Sent, now, null);
        await db.SaveChangesAsync(ct);
        await transaction.CommitAsync(ct);
    }
}
