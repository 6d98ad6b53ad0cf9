using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Record;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.GuestBook.Erasing;

/// <summary>For how long guests are kept, and whom that would erase.</summary>
/// <param name="Kinds">The workspace's kinds that pages have, with "" for none.</param>
/// <param name="Tonight">How many would be erased the next time that it is looked.</param>
/// <param name="Soon">How many would be erased in the next 30 days, those of tonight among them.</param>
/// <param name="First">The first of these.</param>
public sealed record RetentionView(
    GuestRetention Rules,
    IReadOnlyList<string> Kinds,
    int Tonight,
    int Soon,
    IReadOnlyList<RetainedGuest> First,
    Instant Now
);

/// <summary>Changes for how long guests are kept, and tells beforehand whom that erases.</summary>
public sealed class RetentionEditing(LanternDb db, RetentionLooking looking, RecordKeeping record, IClock clock)
{
    public const int MostMonths = 240;

    private const int MostShown = 50;

    private static readonly Duration Soon = Duration.FromDays(30);

    public async Task<RetentionView> ReadAsync(CancellationToken ct) =>
        await ViewAsync(await db.Workspaces.AsNoTracking().SingleAsync(ct), null, ct);

    /// <summary>What rules would do that are not saved yet.</summary>
    /// <exception cref="Refusal">400 naming each fault.</exception>
    public async Task<RetentionView> PreviewAsync(GuestRetention rules, CancellationToken ct)
    {
        var workspace = await db.Workspaces.AsNoTracking().SingleAsync(ct);
        return await ViewAsync(workspace, Check(rules, workspace), ct);
    }

    /// <inheritdoc cref="PreviewAsync"/>
    public async Task<RetentionView> ChangeAsync(GuestRetention rules, CancellationToken ct)
    {
        var workspace = await db.Workspaces.SingleAsync(ct);
        workspace.GuestRetention = Check(rules, workspace);
        workspace.RetentionDueAt = workspace.GuestRetention.IsEver
            ? null
            : RetentionRunning.NextNight(workspace.Zone, clock.GetCurrentInstant());
        record.Note(workspace.Id, "Changed how long guests are kept");
        await db.SaveChangesAsync(ct);
        return await ViewAsync(workspace, null, ct);
    }

    private async Task<RetentionView> ViewAsync(Workspace workspace, GuestRetention? tried, CancellationToken ct)
    {
        var (rules, now) = (tried ?? workspace.GuestRetention, clock.GetCurrentInstant());
        var night = RetentionRunning.NextNight(workspace.Zone, now);
        var (_, tonight) = await looking.DueAsync(rules, now, night, 1, null, ct);
        var (first, soon) = await looking.DueAsync(rules, now, now + Soon, MostShown, null, ct);
        return new RetentionView(rules, ["", .. workspace.Kinds], tonight, soon, first, now);
    }

    private static GuestRetention Check(GuestRetention rules, Workspace workspace)
    {
        var faults = new Dictionary<string, Phrase[]>();
        if (rules.WithoutBooking is < 1 or > MostMonths)
            faults["withoutBooking"] = [Phrase.Of("retention-months", ("most", MostMonths))];
        foreach (var (i, kind) in rules.Kinds.Index())
        {
            if (kind.Months is < 1 or > MostMonths)
                faults[$"kinds[{i}].months"] = [Phrase.Of("retention-months", ("most", MostMonths))];
            if (
                (kind.Kind.Length > 0 && !workspace.Kinds.Contains(kind.Kind))
                || rules.Kinds.Take(i).Any(one => one.Kind == kind.Kind)
            )
                faults[$"kinds[{i}].kind"] = ["retention-kind"];
        }

        return faults.Count > 0 ? throw Refusal.Invalid(faults) : rules;
    }
}
