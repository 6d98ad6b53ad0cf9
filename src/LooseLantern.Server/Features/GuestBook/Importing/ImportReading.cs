using System.Globalization;
using LooseLantern.Core;
using LooseLantern.Formats.Tables;
using LooseLantern.Formats.VCards;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Hours;
using LooseLantern.Server.Features.Profile;
using LooseLantern.Server.Features.TimeZones;
using LooseLantern.Server.Hosting;

namespace LooseLantern.Server.Features.GuestBook.Importing;

/// <summary>What is wrong with a row.</summary>
/// <param name="Row">The line of the file it begins on.</param>
/// <param name="Column">The column's name, or "column 3" where it has none; empty for the row as a whole.</param>
/// <param name="Value">What stands there.</param>
/// <param name="Mend">What it needs, in words.</param>
public sealed record ImportFault(int Row, string Column, string Value, string Mend);

/// <summary>What a row says of a guest.</summary>
/// <param name="Facts">With the keeper's id; blank where the row says nothing.</param>
public sealed record ReadGuest(int Row, GuestFacts Facts, IReadOnlyList<string> Emails, string Note);

/// <summary>What the workspace has that rows speak of.</summary>
public sealed record ImportSetting(
    IReadOnlyList<GuestField> Fields,
    IReadOnlyList<(Guid Id, string Name, string Email)> People
);

/// <summary>A file of guests, read as a table.</summary>
/// <param name="IsCards">Whether it is one of cards, whose columns are known.</param>
public sealed record ImportFile(TextTable Table, bool IsCards);

/// <summary>Reads rows of a file as guests, and says what is wrong with each.</summary>
public static class ImportReading
{
    public const int MostRows = 50_000;

    private static readonly string[] CardColumns =
    [
        "Name",
        "Email",
        "Other emails",
        "Organisation",
        "Phone",
        "Time zone",
        "Language",
        "Note",
    ];

    private static readonly Dictionary<string, string> LanguageNames = new(StringComparer.OrdinalIgnoreCase)
    {
        ["english"] = "en",
        ["german"] = "de",
        ["deutsch"] = "de",
        ["french"] = "fr",
        ["français"] = "fr",
        ["spanish"] = "es",
        ["español"] = "es",
        ["danish"] = "da",
        ["dansk"] = "da",
    };

    /// <exception cref="Refusal">400 naming why the file can't be read.</exception>
    public static ImportFile Open(byte[] bytes, string? encoding, char? separator)
    {
        try
        {
            if (!VCardReading.IsCards(bytes))
                return new ImportFile(TableReading.Read(bytes, encoding, separator, MostRows), IsCards: false);
            var rows = VCardReading
                .Read(bytes, MostRows)
                .Select(card => new TableRow(
                    card.Line,
                    [
                        card.Name,
                        card.Emails.FirstOrDefault(""),
                        string.Join(" ", card.Emails.Skip(1)),
                        card.Organisation,
                        card.Phone,
                        card.Zone,
                        card.Language,
                        card.Note,
                    ]
                ));
            return new ImportFile(new TextTable("utf-8", ',', CardColumns, [.. rows]), IsCards: true);
        }
        catch (TableFileException e)
        {
            throw Refusal.Invalid(
                "file",
                e.Fault switch
                {
                    TableFault.TooManyRows => Phrase.Of("table-rows", ("most", MostRows)),
                    TableFault.TooManyColumns => Phrase.Of("table-columns", ("most", TableReading.MostColumns)),
                    TableFault.CellTooLong => Phrase.Of("table-cell", ("line", e.Line ?? 1)),
                    TableFault.NoCards => "table-cards",
                    TableFault.Empty => "table-empty",
                    _ => "table-text",
                }
            );
        }
    }

    /// <summary>Guests of the rows that nothing is wrong with, and all faults of the others.</summary>
    public static (List<ReadGuest> Guests, List<ImportFault> Faults) Read(
        TextTable table,
        IReadOnlyList<ColumnChoice> choices,
        ImportSetting setting
    )
    {
        var (guests, faults) = (new List<ReadGuest>(), new List<ImportFault>());
        var seen = new Dictionary<string, int>();
        foreach (var row in table.Rows)
        {
            var before = faults.Count;
            var guest = Guest(table, row, choices, setting, faults);
            foreach (var key in guest.Emails.Select(GuestEmail.KeyOf))
            {
                if (!seen.TryAdd(key, row.Line) && seen[key] != row.Line)
                    faults.Add(
                        new ImportFault(
                            row.Line,
                            "",
                            key,
                            Phrases.Mend(Phrase.Of("import-email-again", ("row", seen[key])))
                        )
                    );
            }

            if (faults.Count == before)
                guests.Add(guest);
        }

        return (guests, faults);
    }

    private static ReadGuest Guest(
        TextTable table,
        TableRow row,
        IReadOnlyList<ColumnChoice> choices,
        ImportSetting setting,
        List<ImportFault> faults
    )
    {
        var (name, given, family, organisation, phone, note) = ("", "", "", "", "", "");
        var (zone, language, keeper) = ((string?)null, (string?)null, (Guid?)null);
        var (emails, fields) = (new List<string>(), new Dictionary<Guid, string>());
        foreach (var (i, cell) in row.Cells.Index())
        {
            if (cell.Length == 0)
                continue;
            switch (choices[i].Meaning)
            {
                case ColumnMeaning.Name:
                    name = cell;
                    break;
                case ColumnMeaning.GivenName:
                    given = cell;
                    break;
                case ColumnMeaning.FamilyName:
                    family = cell;
                    break;
                case ColumnMeaning.Email:
                    if (EmailAddress.IsPlausible(cell))
                        emails.Insert(0, cell);
                    else
                        Fault(i, cell, "email");
                    break;
                case ColumnMeaning.OtherEmails:
                    foreach (var email in cell.Split([' ', ',', ';', '\n'], StringSplitOptions.RemoveEmptyEntries))
                    {
                        if (EmailAddress.IsPlausible(email))
                            emails.Add(email);
                        else
                            Fault(i, email, "email");
                    }

                    break;
                case ColumnMeaning.Organisation:
                    if (Words.FitOneLine(cell))
                        organisation = cell;
                    else
                        Fault(i, cell, "guest-organisation");
                    break;
                case ColumnMeaning.Phone:
                    if (GuestFormRules.IsPhone(cell))
                        phone = cell;
                    else
                        Fault(i, cell, "guest-phone");
                    break;
                case ColumnMeaning.Zone:
                    zone = ZoneOf(cell);
                    if (zone is null)
                        Fault(i, cell, "import-zone");
                    break;
                case ColumnMeaning.Language:
                    language = LanguageOf(cell);
                    if (language is null)
                        Fault(i, cell, Phrase.Of("languages", ("languages", MeEndpoints.Languages)));
                    break;
                case ColumnMeaning.Keeper:
                    keeper = KeeperOf(cell, setting);
                    if (keeper is null)
                        Fault(i, cell, "guest-keeper");
                    break;
                case ColumnMeaning.Note:
                    if (cell.Length <= NoteForm.Most)
                        note = cell;
                    else
                        Fault(i, cell, Phrase.Of("guest-note", ("most", NoteForm.Most)));
                    break;
                case ColumnMeaning.Field:
                    var field = setting.Fields.First(one => one.Id == choices[i].Field);
                    if (GuestFieldValues.Tidy(field, cell) is { } value)
                        fields[field.Id] = value;
                    else
                        Fault(i, cell, GuestFieldValues.MendOf(field));
                    break;
            }
        }

        if (name.Length == 0)
            name = $"{given} {family}".Trim();
        // Whoever has an email has something to be called by.
        if (name.Length == 0 && emails.Count > 0)
            name = emails[0].Split('@')[0];
        if (!Words.FitOneLine(name))
            faults.Add(new ImportFault(row.Line, "", name, Phrases.Mend("import-name")));
        var kept = emails.DistinctBy(GuestEmail.KeyOf).ToList();
        if (kept.Count > GuestFormRules.MostEmails)
            faults.Add(
                new ImportFault(
                    row.Line,
                    "",
                    "",
                    Phrases.Mend(Phrase.Of("guest-emails-too-many", ("most", GuestFormRules.MostEmails)))
                )
            );
        return new ReadGuest(
            row.Line,
            new GuestFacts(name, organisation, phone, zone, language, Clock: null, keeper, fields),
            kept,
            note
        );
        void Fault(int i, string value, Phrase mend) =>
            faults.Add(
                new ImportFault(
                    row.Line,
                    table.Head[i].Length > 0
                        ? table.Head[i]
                        : string.Create(CultureInfo.InvariantCulture, $"column {i + 1}"),
                    value.Length > 200 ? value[..200] + "…" : value,
                    Phrases.Mend(mend)
                )
            );
    }

    /// <summary>By its id, or by its city.</summary>
    private static string? ZoneOf(string cell) =>
        Zones.IsKnown(cell) && cell.Contains('/', StringComparison.Ordinal) ? cell : ZoneList.OfCity(cell);

    private static string? LanguageOf(string cell)
    {
        var tag = cell.Split('-', '_')[0].ToLowerInvariant();
        return MeEndpoints.Languages.Contains(tag) ? tag : LanguageNames.GetValueOrDefault(cell);
    }

    private static Guid? KeeperOf(string cell, ImportSetting setting)
    {
        var found = setting
            .People.Where(person =>
                person.Name.Equals(cell, StringComparison.OrdinalIgnoreCase) || EmailAddress.AreSame(person.Email, cell)
            )
            .ToList();
        return found.Count == 1 ? found[0].Id : null;
    }
}
