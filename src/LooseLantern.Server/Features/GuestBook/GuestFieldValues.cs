using System.Globalization;
using LooseLantern.Core.Questions;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Hosting;
using NodaTime.Text;

namespace LooseLantern.Server.Features.GuestBook;

/// <summary>Values of guests' own fields, as they are kept.</summary>
public static class GuestFieldValues
{
    public const int MostText = 500;

    /// <summary>The value in the one way it is kept: numbers with a point, dates in ISO form, "yes" or "no".</summary>
    /// <returns>Empty for nothing; null for what is no value of the field.</returns>
    public static string? Tidy(GuestField field, string typed)
    {
        var text = typed.Trim();
        if (text.Length == 0)
            return "";
        return field.Kind switch
        {
            GuestFieldKind.Text => text.Length <= MostText && !text.Any(c => char.IsControl(c) && c != '\n')
                ? text
                : null,
            GuestFieldKind.Number => Number(text),
            GuestFieldKind.Date => LocalDatePattern.Iso.Parse(text) is { Success: true } date
                ? LocalDatePattern.Iso.Format(date.Value)
                : null,
            GuestFieldKind.Choice => field.Options.FirstOrDefault(option =>
                option.Equals(text, StringComparison.OrdinalIgnoreCase)
            ),
            _ => text.ToLowerInvariant() switch
            {
                "yes" or "true" or "1" => "yes",
                "no" or "false" or "0" => "no",
                _ => null,
            },
        };
    }

    /// <summary>
    /// What answers say of a guest: values by field, of those that have a field and can be its value.
    /// </summary>
    public static Dictionary<Guid, string> Of(
        IReadOnlyList<Question> questions,
        IReadOnlyList<GivenAnswer> answers,
        IReadOnlyList<GuestField> fields
    )
    {
        var values = new Dictionary<Guid, string>();
        foreach (var answer in answers)
        {
            if (
                questions.FirstOrDefault(question => question.Key == answer.Key)?.Fills is { } id
                && fields.FirstOrDefault(field => field.Id == id) is { } field
                && Tidy(field, answer.Text) is { Length: > 0 } value
            )
                values.TryAdd(id, value);
        }

        return values;
    }

    /// <summary>What a value that is none of the field's needs.</summary>
    public static Phrase MendOf(GuestField field) =>
        field.Kind switch
        {
            GuestFieldKind.Number => Phrase.Of("guest-field-number", ("field", field.Name)),
            GuestFieldKind.Date => Phrase.Of("guest-field-date", ("field", field.Name)),
            GuestFieldKind.Choice => Phrase.Of("guest-field-choice", ("field", field.Name), ("options", field.Options)),
            GuestFieldKind.YesNo => Phrase.Of("guest-field-yes-no", ("field", field.Name)),
            _ => Phrase.Of("guest-field-text", ("field", field.Name), ("most", MostText)),
        };

    private static string? Number(string text) =>
        decimal.TryParse(
            text.Replace(',', '.'),
            NumberStyles.AllowLeadingSign | NumberStyles.AllowDecimalPoint,
            CultureInfo.InvariantCulture,
            out var number
        )
            ? number.ToString(CultureInfo.InvariantCulture)
            : null;
}
