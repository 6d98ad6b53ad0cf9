using System.Globalization;

namespace LooseLantern.Core.TimeText;

/// <summary>How long something takes, alike in every language: "45 min", "1 h", "1 h 30".</summary>
public static class LengthText
{
    public static string Of(int minutes)
    {
        var (hours, rest) = (minutes / 60, minutes % 60);
        return hours == 0 ? string.Create(CultureInfo.InvariantCulture, $"{minutes} min")
            : rest == 0 ? string.Create(CultureInfo.InvariantCulture, $"{hours} h")
            : string.Create(CultureInfo.InvariantCulture, $"{hours} h {rest:00}");
    }
}
