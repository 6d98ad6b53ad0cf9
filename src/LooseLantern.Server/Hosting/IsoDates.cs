using NodaTime;
using NodaTime.Text;

namespace LooseLantern.Server.Hosting;

/// <summary>Local dates as they stand in addresses.</summary>
public static class IsoDates
{
    /// <summary>The date of a parameter; null where nothing is asked.</summary>
    /// <exception cref="Refusal">400 for what is no date.</exception>
    public static LocalDate? Read(string name, string? text)
    {
        if (string.IsNullOrEmpty(text))
            return null;
        // The ends leave room for arithmetic on either side.
        return LocalDatePattern.Iso.Parse(text) is { Success: true, Value: { Year: >= 1900 and <= 2200 } date }
            ? date
            : throw Refusal.Invalid(name, "iso-date");
    }
}
