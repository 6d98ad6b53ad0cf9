using LooseLantern.Server.Data.Model;

namespace LooseLantern.Server.Features.GuestBook.Importing;

/// <summary>What a column of a file tells of a guest.</summary>
public enum ColumnMeaning
{
    /// <summary>Nothing that is kept.</summary>
    Nothing,
    Name,
    GivenName,
    FamilyName,
    Email,

    /// <summary>Further emails, with commas, semicolons or blanks between.</summary>
    OtherEmails,
    Organisation,
    Phone,
    Zone,
    Language,

    /// <summary>A person of the team, by name or email.</summary>
    Keeper,

    /// <summary>A note for the team.</summary>
    Note,

    /// <summary>One of the workspace's own fields.</summary>
    Field,
}

/// <summary>What one column is taken for.</summary>
/// <param name="Field">Which field, where it is one; else null.</param>
public sealed record ColumnChoice(ColumnMeaning Meaning, Guid? Field = null)
{
    public static readonly ColumnChoice Nothing = new(ColumnMeaning.Nothing);
}

/// <summary>What a column of this name was taken for.</summary>
public sealed record RememberedColumn(string Name, ColumnChoice Choice);

/// <summary>Guesses what the columns of a file are from their names.</summary>
public static class ImportColumns
{
    // In the languages that guests' lists are kept in; compared in small letters without signs between.
    private static readonly Dictionary<string, ColumnMeaning> Names = new()
    {
        ["name"] = ColumnMeaning.Name,
        ["fullname"] = ColumnMeaning.Name,
        ["guest"] = ColumnMeaning.Name,
        ["contact"] = ColumnMeaning.Name,
        ["nom"] = ColumnMeaning.Name,
        ["nombre"] = ColumnMeaning.Name,
        ["navn"] = ColumnMeaning.Name,
        ["firstname"] = ColumnMeaning.GivenName,
        ["givenname"] = ColumnMeaning.GivenName,
        ["vorname"] = ColumnMeaning.GivenName,
        ["prénom"] = ColumnMeaning.GivenName,
        ["fornavn"] = ColumnMeaning.GivenName,
        ["lastname"] = ColumnMeaning.FamilyName,
        ["surname"] = ColumnMeaning.FamilyName,
        ["familyname"] = ColumnMeaning.FamilyName,
        ["nachname"] = ColumnMeaning.FamilyName,
        ["nomdefamille"] = ColumnMeaning.FamilyName,
        ["apellidos"] = ColumnMeaning.FamilyName,
        ["efternavn"] = ColumnMeaning.FamilyName,
        ["email"] = ColumnMeaning.Email,
        ["mail"] = ColumnMeaning.Email,
        ["emailaddress"] = ColumnMeaning.Email,
        ["courriel"] = ColumnMeaning.Email,
        ["correo"] = ColumnMeaning.Email,
        ["correoelectrónico"] = ColumnMeaning.Email,
        ["otheremails"] = ColumnMeaning.OtherEmails,
        ["organisation"] = ColumnMeaning.Organisation,
        ["organization"] = ColumnMeaning.Organisation,
        ["company"] = ColumnMeaning.Organisation,
        ["firma"] = ColumnMeaning.Organisation,
        ["entreprise"] = ColumnMeaning.Organisation,
        ["empresa"] = ColumnMeaning.Organisation,
        ["virksomhed"] = ColumnMeaning.Organisation,
        ["phone"] = ColumnMeaning.Phone,
        ["telephone"] = ColumnMeaning.Phone,
        ["mobile"] = ColumnMeaning.Phone,
        ["tel"] = ColumnMeaning.Phone,
        ["telefon"] = ColumnMeaning.Phone,
        ["téléphone"] = ColumnMeaning.Phone,
        ["teléfono"] = ColumnMeaning.Phone,
        ["timezone"] = ColumnMeaning.Zone,
        ["zone"] = ColumnMeaning.Zone,
        ["zeitzone"] = ColumnMeaning.Zone,
        ["tidszone"] = ColumnMeaning.Zone,
        ["language"] = ColumnMeaning.Language,
        ["sprache"] = ColumnMeaning.Language,
        ["langue"] = ColumnMeaning.Language,
        ["idioma"] = ColumnMeaning.Language,
        ["sprog"] = ColumnMeaning.Language,
        ["keeper"] = ColumnMeaning.Keeper,
        ["note"] = ColumnMeaning.Note,
        ["notes"] = ColumnMeaning.Note,
    };

    /// <summary>
    /// As it was taken last time; else by the name of a field, else by a usual name, else by what stands in it. Each
    /// meaning is given to one column, but for fields that have the same name twice.
    /// </summary>
    /// <param name="samples">What stands in each column.</param>
    public static IReadOnlyList<ColumnChoice> Guess(
        IReadOnlyList<string> head,
        IReadOnlyList<IReadOnlyList<string>> samples,
        IReadOnlyList<RememberedColumn> remembered,
        IReadOnlyList<GuestField> fields
    )
    {
        var choices = new List<ColumnChoice>();
        foreach (var (i, name) in head.Index())
        {
            var choice = remembered
                .FirstOrDefault(column => Key(column.Name) == Key(name) && Key(name).Length > 0)
                ?.Choice
                ?? (
                    fields.FirstOrDefault(field => Key(field.Name) == Key(name)) is { } field
                        ? new ColumnChoice(ColumnMeaning.Field, field.Id)
                    : Names.TryGetValue(Key(name), out var meaning) ? new ColumnChoice(meaning)
                    : samples[i].Count > 0 && samples[i].All(cell => Core.EmailAddress.IsPlausible(cell))
                        ? new ColumnChoice(ColumnMeaning.Email)
                    : ColumnChoice.Nothing
                );
            var isGone = choice.Meaning == ColumnMeaning.Field && fields.All(field => field.Id != choice.Field);
            choices.Add(isGone || choices.Contains(choice) ? ColumnChoice.Nothing : choice);
        }

        // A file without a head mostly begins with what people are called.
        if (head.All(name => name.Length == 0) && choices.Count > 0 && choices[0] == ColumnChoice.Nothing)
            choices[0] = new ColumnChoice(ColumnMeaning.Name);
        return choices;
    }

    private static string Key(string name) => string.Concat(name.Where(char.IsLetterOrDigit)).ToLowerInvariant();
}
