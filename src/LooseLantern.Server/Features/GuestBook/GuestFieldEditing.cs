using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Record;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;

namespace LooseLantern.Server.Features.GuestBook;

/// <param name="Id">Null for a new one.</param>
/// <param name="Options">Of a choice.</param>
public sealed record GuestFieldForm(Guid? Id, string Name, GuestFieldKind Kind, IReadOnlyList<string> Options);

/// <param name="Filled">How many guests have a value in it.</param>
public sealed record GuestFieldView(
    Guid Id,
    string Name,
    GuestFieldKind Kind,
    IReadOnlyList<string> Options,
    int Filled
);

/// <summary>The workspace's own fields of guests, changed all together.</summary>
public sealed class GuestFieldEditing(LanternDb db, Tenant tenant, RecordKeeping record)
{
    public const int MostFields = 30;

    private const int MostOptions = 50;

    public async Task<IReadOnlyList<GuestFieldView>> ListAsync(CancellationToken ct)
    {
        var fields = await db.Workspaces.AsNoTracking().Select(row => row.GuestFields).SingleAsync(ct);
        var trip = new RoundTrip(db);
        var counts = trip.Ask(
            $"""
            SELECT key, count(*)::int FROM guests g, jsonb_object_keys(g.fields) AS key
            WHERE g.workspace_id = {tenant.WorkspaceId!.Value} AND g.merged_into IS NULL GROUP BY key
            """,
            row => (Field: Guid.Parse(row.GetString(0)), Count: row.GetInt32(1))
        );
        await trip.RunAsync(ct);
        var filled = counts.Rows.ToDictionary(row => row.Field, row => row.Count);
        return
        [
            .. fields.Select(field => new GuestFieldView(
                field.Id,
                field.Name,
                field.Kind,
                field.Options,
                filled.GetValueOrDefault(field.Id)
            )),
        ];
    }

    /// <summary>Makes them as the forms say. What is left out is taken away, with what guests have in it.</summary>
    /// <exception cref="Refusal">400 naming each fault, also for another kind than a field has.</exception>
    public async Task ReplaceAsync(IReadOnlyList<GuestFieldForm> forms, CancellationToken ct)
    {
        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        var workspace = await db.Workspaces.SingleAsync(ct);
        Check(forms, workspace.GuestFields);
        foreach (var gone in workspace.GuestFields.Where(field => forms.All(form => form.Id != field.Id)))
        {
            var key = gone.Id.ToString("D");
            await db.Database.ExecuteSqlAsync(
                $"UPDATE guests SET fields = fields - {key} WHERE workspace_id = {workspace.Id} AND fields ? {key}",
                ct
            );
        }

        workspace.GuestFields =
        [
            .. forms.Select(form => new GuestField(
                form.Id is { } id && workspace.GuestFields.Any(field => field.Id == id) ? id : Guid.CreateVersion7(),
                form.Name.Trim(),
                form.Kind,
                form.Kind == GuestFieldKind.Choice ? [.. form.Options.Select(option => option.Trim())] : []
            )),
        ];
        record.Note(tenant.WorkspaceId!.Value, "Changed the fields of guests");
        await db.SaveChangesAsync(ct);
        await transaction.CommitAsync(ct);
    }

    private static void Check(IReadOnlyList<GuestFieldForm> forms, IReadOnlyList<GuestField> fields)
    {
        if (forms.Any(form => form is null))
            throw Refusal.Invalid("fields", "missing-or-odd");
        if (forms.Count > MostFields)
            throw Refusal.Invalid("fields", Phrase.Of("guest-fields-too-many", ("most", MostFields)));
        var faults = new Dictionary<string, Phrase[]>();
        foreach (var (i, form) in forms.Index())
        {
            if (!Words.FitOneLine(form.Name))
                faults[$"fields[{i}].name"] = ["guest-field-name"];
            else if (forms.Count(one => Same(one.Name, form.Name)) > 1)
                faults[$"fields[{i}].name"] = ["guest-field-twice"];
            if (form.Id is { } id && fields.FirstOrDefault(one => one.Id == id)?.Kind != form.Kind)
                faults[$"fields[{i}].kind"] = ["guest-field-kind"];
            if (
                form.Kind == GuestFieldKind.Choice
                && (
                    form.Options.Count is 0 or > MostOptions
                    || !form.Options.All(Words.FitOneLine)
                    || form.Options.DistinctBy(option => option.Trim(), StringComparer.OrdinalIgnoreCase).Count()
                        != form.Options.Count
                )
            )
                faults[$"fields[{i}].options"] = [Phrase.Of("guest-field-options", ("most", MostOptions))];
        }

        if (faults.Count > 0)
            throw Refusal.Invalid(faults);
    }

    private static bool Same(string? one, string? other) =>
        string.Equals(one?.Trim(), other?.Trim(), StringComparison.OrdinalIgnoreCase);
}
