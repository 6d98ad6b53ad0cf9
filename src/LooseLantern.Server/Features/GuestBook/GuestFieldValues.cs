using System.Globalization;
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
            GuestFieldKind.Choice => Array.Find(field.Options, option =>
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
