using System.Text.Json;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Npgsql;
using NpgsqlTypes;

namespace LooseLantern.Server.Features.GuestBook.Importing;

/// <summary>
/// Writes what an import makes and changes, in the transaction at hand. Rows by the ten thousand go as a few arrays,
/// and not as statements of their own.
/// </summary>
public sealed class ImportWriting(LanternDb db, Actor actor)
{
    /// <summary>So many rows change no plan.</summary>
    private const int MostUnnoticed = 500;

    /// <exception cref="Refusal">409 where somebody else brought one of the guests in meanwhile.</exception>
    public async Task WriteAsync(GuestImport import, List<PlannedRow> plan, Instant now, CancellationToken ct)
    {
        var made = plan.FindAll(row => row.Outcome == RowOutcome.New)
            .ConvertAll(row => (Id: Guid.CreateVersion7(), Row: row));
        var changed = plan.FindAll(row => row.Outcome == RowOutcome.Changed);
        var workspace = import.WorkspaceId;
        try
        {
            await RunAsync(
                """
                INSERT INTO guests (id, workspace_id, name, organisation, phone, zone, language, keeper_id, fields, source, made_at,
                    version, booker_key, not_same)
                SELECT id, @workspace, name, organisation, phone, zone, language, keeper, fields::jsonb, 'Import', @now, 1, '', ARRAY[]::uuid[]
                FROM unnest(@ids, @names, @organisations, @phones, @zones, @languages, @keepers, @fields)
                    AS one(id, name, organisation, phone, zone, language, keeper, fields)
                """,
                Values(workspace, now, [.. made.Select(one => (one.Id, one.Row.After))]),
                ct
            );
            await ChangeAsync(changed, workspace, now, ct);
            await EmailsAsync(
                [
                    .. made.SelectMany(one => one.Row.NewEmails.Select((email, place) => (one.Id, email, place))),
                    .. changed.SelectMany(row =>
                        row.NewEmails.Select((email, at) => (row.Guest!.Id, email, row.Guest.Emails.Count + at))
                    ),
                ],
                workspace,
                ct
            );
        }
        catch (PostgresException e) when (e.SqlState == PostgresErrorCodes.UniqueViolation)
        {
            throw new Refusal(StatusCodes.Status409Conflict, "changed-meanwhile", "changed-meanwhile.import");
        }

        await NotesAsync(
            [
                .. made.Where(one => one.Row.Read.Note.Length > 0).Select(one => (one.Id, one.Row.Read.Note)),
                .. changed.Where(row => row.Read.Note.Length > 0).Select(row => (row.Guest!.Id, row.Read.Note)),
            ],
            workspace,
            now,
            ct
        );
        await RememberAsync(import, made, changed, ct);
        // Else the planner would go on for a minute by what there was before.
        if (plan.Count >= MostUnnoticed)
            await db.Database.ExecuteSqlAsync($"ANALYZE guests, guest_emails, guest_import_rows", ct);
    }

    private async Task ChangeAsync(List<PlannedRow> changed, Guid workspace, Instant now, CancellationToken ct)
    {
        var values = Values(workspace, now, [.. changed.Select(row => (row.Guest!.Id, row.After))]);
        values.Add(
            new NpgsqlParameter("versions", NpgsqlDbType.Array | NpgsqlDbType.Integer)
            {
                Value = changed.ConvertAll(row => row.Guest!.Version).ToArray(),
            }
        );
        var rows = await RunAsync(
            """
            UPDATE guests g SET name = one.name, organisation = one.organisation, phone = one.phone, zone = one.zone,
                language = one.language, keeper_id = one.keeper, fields = one.fields::jsonb, version = g.version + 1
            FROM unnest(@ids, @names, @organisations, @phones, @zones, @languages, @keepers, @fields, @versions)
                AS one(id, name, organisation, phone, zone, language, keeper, fields, version)
            WHERE g.id = one.id AND g.workspace_id = @workspace AND g.version = one.version AND g.merged_into IS NULL
            """,
            values,
            ct
        );
        if (rows != changed.Count)
            throw new Refusal(StatusCodes.Status409Conflict, "changed-meanwhile", "changed-meanwhile.import");
    }

    private Task<int> EmailsAsync(
        List<(Guid Guest, string Email, int Place)> emails,
        Guid workspace,
        CancellationToken ct
    ) =>
        RunAsync(
            """
            INSERT INTO guest_emails (workspace_id, key, guest_id, email, place)
            SELECT @workspace, key, guest, email, place FROM unnest(@keys, @guests, @emails, @places) AS one(key, guest, email, place)
            ORDER BY key
            """,
            [
                new NpgsqlParameter("workspace", workspace),
                Texts("keys", emails.Select(one => GuestEmail.KeyOf(one.Email))),
                Ids("guests", emails.Select(one => one.Guest)),
                Texts("emails", emails.Select(one => one.Email)),
                new NpgsqlParameter("places", NpgsqlDbType.Array | NpgsqlDbType.Integer)
                {
                    Value = emails.ConvertAll(one => one.Place).ToArray(),
                },
            ],
            ct
        );

    private Task<int> NotesAsync(
        List<(Guid Guest, string Text)> notes,
        Guid workspace,
        Instant now,
        CancellationToken ct
    ) =>
        RunAsync(
            """
            INSERT INTO guest_notes (id, workspace_id, guest_id, person_id, person_name, at, text)
            SELECT gen_random_uuid(), @workspace, guest, @person, @by, @now, text FROM unnest(@guests, @texts) AS one(guest, text)
            """,
            [
                new NpgsqlParameter("workspace", workspace),
                new NpgsqlParameter("now", now),
                new NpgsqlParameter("person", actor.Required.Id),
                new NpgsqlParameter("by", actor.Required.Name),
                Ids("guests", notes.Select(one => one.Guest)),
                Texts("texts", notes.Select(one => one.Text)),
            ],
            ct
        );

    private Task<int> RememberAsync(
        GuestImport import,
        List<(Guid Id, PlannedRow Row)> made,
        List<PlannedRow> changed,
        CancellationToken ct
    )
    {
        var rows = made.ConvertAll(one => (one.Id, Version: 1, Before: (GuestFacts?)null, one.Row.NewEmails));
        rows.AddRange(
            changed.Select(row =>
                (row.Guest!.Id, row.Guest.Version + 1, (GuestFacts?)GuestMerging.FactsOf(row.Guest), row.NewEmails)
            )
        );
        return RunAsync(
            """
            INSERT INTO guest_import_rows (workspace_id, import_id, guest_id, version, before, emails)
            SELECT @workspace, @import, guest, version, before::jsonb,
                CASE WHEN emails = '' THEN ARRAY[]::text[] ELSE string_to_array(emails, ' ') END
            FROM unnest(@guests, @versions, @before, @emails) AS one(guest, version, before, emails)
            """,
            [
                new NpgsqlParameter("workspace", import.WorkspaceId),
                new NpgsqlParameter("import", import.Id),
                Ids("guests", rows.Select(row => row.Id)),
                new NpgsqlParameter("versions", NpgsqlDbType.Array | NpgsqlDbType.Integer)
                {
                    Value = rows.ConvertAll(row => row.Version).ToArray(),
                },
                Texts(
                    "before",
                    rows.Select(row => row.Before is null ? null : JsonSerializer.Serialize(row.Before, Json.Options))
                ),
                Texts("emails", rows.Select(row => string.Join(' ', row.NewEmails.Select(GuestEmail.KeyOf)))),
            ],
            ct
        );
    }

    private static List<NpgsqlParameter> Values(Guid workspace, Instant now, List<(Guid Id, GuestFacts Facts)> rows) =>
        [
            new NpgsqlParameter("workspace", workspace),
            new NpgsqlParameter("now", now),
            Ids("ids", rows.Select(row => row.Id)),
            Texts("names", rows.Select(row => row.Facts.Name)),
            Texts("organisations", rows.Select(row => row.Facts.Organisation)),
            Texts("phones", rows.Select(row => row.Facts.Phone)),
            Texts("zones", rows.Select(row => row.Facts.Zone)),
            Texts("languages", rows.Select(row => row.Facts.Language)),
            new NpgsqlParameter("keepers", NpgsqlDbType.Array | NpgsqlDbType.Uuid)
            {
                Value = rows.ConvertAll(row => row.Facts.KeeperId).ToArray(),
            },
            Texts("fields", rows.Select(row => JsonSerializer.Serialize(row.Facts.Fields, Json.Options))),
        ];

    private static NpgsqlParameter Texts(string name, IEnumerable<string?> values) =>
        new(name, NpgsqlDbType.Array | NpgsqlDbType.Text) { Value = values.ToArray() };

    private static NpgsqlParameter Ids(string name, IEnumerable<Guid> values) =>
        new(name, NpgsqlDbType.Array | NpgsqlDbType.Uuid) { Value = values.ToArray() };

    private Task<int> RunAsync(string sql, IEnumerable<NpgsqlParameter> values, CancellationToken ct) =>
        db.Database.ExecuteSqlRawAsync(sql, values, ct);
}
