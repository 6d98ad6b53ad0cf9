using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Features.Record;
using LooseLantern.Server.Hosting;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.GuestBook.Importing;

/// <summary>How a file is to be read, and what it does.</summary>
/// <param name="Encoding">Null to find it.</param>
/// <param name="Separator">One letter; null to find it.</param>
/// <param name="Columns">What each column is; null to guess.</param>
/// <param name="LeaveOutFaulty">Whether the rows that something is wrong with are left out, and the others come
/// in.</param>
public sealed record ImportForm(
    string? Encoding = null,
    string? Separator = null,
    IReadOnlyList<ColumnChoice>? Columns = null,
    KnownGuests Known = KnownGuests.Fill,
    bool LeaveOutFaulty = false
);

/// <param name="Samples">What stands in it further down.</param>
public sealed record ImportColumn(string Name, IReadOnlyList<string> Samples, ColumnChoice Choice);

/// <summary>A guest as a row would make them.</summary>
/// <param name="Row">The line of the file it begins on.</param>
public sealed record ImportSample(
    int Row,
    RowOutcome Outcome,
    string Name,
    string Email,
    string Organisation,
    string Phone
);

/// <summary>What a file would do, as it is to be read now.</summary>
/// <param name="Rows">How many there are in all.</param>
/// <param name="Faulty">With how many of them something is wrong.</param>
/// <param name="Faults">The first of them.</param>
/// <param name="Samples">The first rows that would come in.</param>
/// <param name="Encodings">Those that can be chosen.</param>
public sealed record ImportPreview(
    Guid Id,
    string FileName,
    bool IsCards,
    string Encoding,
    string Separator,
    IReadOnlyList<ImportColumn> Columns,
    int Rows,
    int New,
    int Changed,
    int Unchanged,
    int Faulty,
    IReadOnlyList<ImportFault> Faults,
    IReadOnlyList<ImportSample> Samples,
    IReadOnlyList<string> Encodings
);

/// <summary>Looks at files of guests and brings them in, whole or not at all.</summary>
public sealed class GuestImporting(
    LanternDb db,
    Tenant tenant,
    Actor actor,
    RecordKeeping record,
    ImportPlanning planning,
    ImportWriting writing,
    IClock clock
)
{
    public const int MostBytes = 20 * 1024 * 1024;

    private const int MostFaults = 500;
    private const int MostSamples = 20;
    private const int MostRemembered = 20;

    /// <summary>What nobody brought in by then is not kept longer.</summary>
    private static readonly Duration KeptFor = Duration.FromHours(24);

    /// <exception cref="Refusal">400 for a file that can't be read.</exception>
    public async Task<ImportPreview> LookAsync(Upload upload, CancellationToken ct)
    {
        // Before it is kept: what can't be read is not.
        ImportReading.Open(upload.Bytes, null, null);
        var now = clock.GetCurrentInstant();
        var import = new GuestImport
        {
            WorkspaceId = tenant.WorkspaceId!.Value,
            FileName = FileNameOf(upload.FileName),
            Bytes = upload.Bytes,
            PersonName = actor.Required.Name,
            MadeAt = now,
        };
        await db
            .GuestImports.Where(row => row.State == ImportState.Draft && row.MadeAt < now - KeptFor)
            .ExecuteDeleteAsync(ct);
        db.GuestImports.Add(import);
        await db.SaveChangesAsync(ct);
        return await PreviewAsync(import, new ImportForm(), ct);
    }

    /// <exception cref="Refusal">404 where there is no such file, 409 where it came in already, 400 naming what can't
    /// be so.</exception>
    public async Task<ImportPreview> PreviewAsync(Guid id, ImportForm form, CancellationToken ct) =>
        await PreviewAsync(await DraftAsync(id, ct), form, ct);

    /// <exception cref="Refusal">As above; 409 also while something is wrong with rows that are not to be left
    /// out.</exception>
    public async Task<ImportRow> RunAsync(Guid id, ImportForm form, CancellationToken ct)
    {
        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        await db.Database.ExecuteSqlAsync($"SELECT 1 FROM guest_imports WHERE id = {id} FOR NO KEY UPDATE", ct);
        var import = await DraftAsync(id, ct);
        var (plan, faults, columns, _) = await PlanAsync(import, form, ct);
        var faulty = faults.Select(fault => fault.Row).Distinct().Count();
        if (faulty > 0 && !form.LeaveOutFaulty)
            throw new Refusal(
                StatusCodes.Status409Conflict,
                "import-faulty",
                Phrase.Of("import-faulty", ("rows", faulty))
            );
        var now = clock.GetCurrentInstant();
        await writing.WriteAsync(import, plan, now, ct);
        (import.State, import.Bytes, import.DoneAt) = (ImportState.Done, null, now);
        (import.Made, import.Changed, import.Unchanged, import.LeftOut) = (
            plan.Count(row => row.Outcome == RowOutcome.New),
            plan.Count(row => row.Outcome == RowOutcome.Changed),
            plan.Count(row => row.Outcome == RowOutcome.Unchanged),
            faulty
        );
        import.Columns =
        [
            .. columns
                .Where(column => column.Name.Length > 0)
                .Select(column => new RememberedColumn(column.Name, column.Choice)),
        ];
        record.Note(import.Id, $"Imported guests from “{import.FileName}”");
        await db.SaveChangesAsync(ct);
        await transaction.CommitAsync(ct);
        return ImportUndoing.RowOf(import);
    }

    /// <summary>The name alone, in as many letters as a line takes.</summary>
    private static string FileNameOf(string given)
    {
        var name = string.Concat(Path.GetFileName(given).Where(letter => !char.IsControl(letter))).Trim();
        return name.Length is 0 ? "file" : name[..Math.Min(name.Length, Words.MostOfALine)];
    }

    private async Task<GuestImport> DraftAsync(Guid id, CancellationToken ct)
    {
        var import = await db.GuestImports.FirstOrDefaultAsync(row => row.Id == id, ct)
            ?? throw Refusal.NotFound("import");
        return import.State == ImportState.Draft
            ? import
            : throw new Refusal(StatusCodes.Status409Conflict, "import-done");
    }

    private async Task<ImportPreview> PreviewAsync(GuestImport import, ImportForm form, CancellationToken ct)
    {
        var (plan, faults, columns, file) = await PlanAsync(import, form, ct);
        return new ImportPreview(
            import.Id,
            import.FileName,
            file.IsCards,
            file.Table.Encoding,
            file.Table.Separator.ToString(),
            columns,
            file.Table.Rows.Count,
            plan.Count(row => row.Outcome == RowOutcome.New),
            plan.Count(row => row.Outcome == RowOutcome.Changed),
            plan.Count(row => row.Outcome == RowOutcome.Unchanged),
            faults.Select(fault => fault.Row).Distinct().Count(),
            [.. faults.Take(MostFaults)],
            [
                .. plan.Take(MostSamples)
                    .Select(row => new ImportSample(
                        row.Read.Row,
                        row.Outcome,
                        row.After.Name,
                        row.Guest?.Emails.OrderBy(email => email.Place).Select(email => email.Email).FirstOrDefault()
                            ?? row.Read.Emails.FirstOrDefault(""),
                        row.After.Organisation,
                        row.After.Phone
                    )),
            ],
            Formats.Tables.TableText.Encodings
        );
    }

    private async Task<(
        List<PlannedRow> Plan,
        List<ImportFault> Faults,
        IReadOnlyList<ImportColumn> Columns,
        ImportFile File
    )> PlanAsync(GuestImport import, ImportForm form, CancellationToken ct)
    {
        Check(form);
        var file = ImportReading.Open(import.Bytes!, form.Encoding, form.Separator is { } by ? by[0] : null);
        var setting = new ImportSetting(
            await db.Workspaces.AsNoTracking().Select(row => row.GuestFields).SingleAsync(ct),
            [
                .. (
                    await db
                        .Users.Where(person => person.LeftAt == null)
                        .Select(person => new
                        {
                            person.Id,
                            person.Name,
                            person.Email,
                        })
                        .ToListAsync(ct)
                ).Select(person => (person.Id, person.Name, person.Email ?? "")),
            ]
        );
        var choices = await ChoicesAsync(file, form, setting, ct);
        var (guests, faults) = ImportReading.Read(file.Table, choices, setting);
        var plan = await planning.PlanAsync(guests, form.Known, ct);
        faults.AddRange(
            plan.Where(row => row.Outcome == RowOutcome.Unclear)
                .Select(row => new ImportFault(
                    row.Read.Row,
                    "",
                    string.Join(", ", row.Read.Emails),
                    Phrases.Mend(row.Guest is null ? "import-unclear" : "import-guest-again")
                ))
        );
        plan.RemoveAll(row => row.Outcome == RowOutcome.Unclear);
        faults.Sort((one, other) => one.Row.CompareTo(other.Row));
        return (
            plan,
            faults,
            [.. file.Table.Head.Select((name, i) => new ImportColumn(name, SamplesOf(file, i), choices[i]))],
            file
        );
    }

    private async Task<IReadOnlyList<ColumnChoice>> ChoicesAsync(
        ImportFile file,
        ImportForm form,
        ImportSetting setting,
        CancellationToken ct
    )
    {
        if (form.Columns is { } chosen && chosen.Count == file.Table.Head.Count)
        {
            foreach (var (i, choice) in chosen.Index())
            {
                if (choice.Meaning == ColumnMeaning.Field && setting.Fields.All(field => field.Id != choice.Field))
                    throw Refusal.Invalid($"columns[{i}]", "import-column");
                if (choice.Meaning != ColumnMeaning.Nothing && chosen.Take(i).Contains(choice))
                    throw Refusal.Invalid($"columns[{i}]", "import-column-twice");
            }

            return chosen;
        }

        // Of another encoding or separator the columns are others.
        var remembered = await db
            .GuestImports.AsNoTracking()
            .Where(row => row.State != ImportState.Draft)
            .OrderByDescending(row => row.DoneAt)
            .Take(MostRemembered)
            .Select(row => row.Columns)
            .ToListAsync(ct);
        return ImportColumns.Guess(
            file.Table.Head,
            [.. file.Table.Head.Select((_, i) => SamplesOf(file, i))],
            [.. remembered.SelectMany(columns => columns)],
            setting.Fields
        );
    }

    private static IReadOnlyList<string> SamplesOf(ImportFile file, int column) =>
        [
            .. file
                .Table.Rows.Select(row => row.Cells[column])
                .Where(cell => cell.Length > 0)
                .Take(3)
                .Select(cell => cell.Length > 60 ? cell[..60] + "…" : cell),
        ];

    private static void Check(ImportForm form)
    {
        if (form.Columns?.Any(column => column is null) == true)
            throw Refusal.Invalid("columns", "missing-or-odd");
        if (form.Encoding is { } encoding && !Formats.Tables.TableText.Encodings.Contains(encoding))
            throw Refusal.Invalid(
                "encoding",
                Phrase.Of("import-encoding", ("encodings", Formats.Tables.TableText.Encodings))
            );
        if (
            form.Separator is { } separator
            && (separator.Length != 1 || !Formats.Tables.TableReading.Separators.Contains(separator[0]))
        )
            throw Refusal.Invalid("separator", "import-separator");
    }
}
