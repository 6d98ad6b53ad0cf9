using System.Globalization;

namespace LooseLantern.Server.Features.Pages;

/// <summary>Colours that guests' pages may wear. White words stand on them.</summary>
public static class Accents
{
    public const string Mend = "accent";

    // WCAG 2.2, success criterion 1.4.3.
    private const double LeastContrast = 4.5;

    /// <summary>
    /// Whether white words on the colour can be read (WCAG 2.2, 1.4.3); false too for what is no #rrggbb.
    /// </summary>
    public static bool IsLegible(string? accent) =>
        Luminance(accent) is { } luminance && 1.05 / (luminance + 0.05) >= LeastContrast;

    /// <summary>Relative luminance, 0 to 1 (WCAG 2.2, "relative luminance").</summary>
    private static double? Luminance(string? accent)
    {
        if (
            accent is not { Length: 7 }
            || accent[0] != '#'
            || !int.TryParse(
                accent.AsSpan(1),
                NumberStyles.AllowHexSpecifier,
                CultureInfo.InvariantCulture,
                out var rgb
            )
        )
            return null;
        return (0.2126 * Linear(rgb >> 16)) + (0.7152 * Linear(rgb >> 8)) + (0.0722 * Linear(rgb));

        static double Linear(int value)
        {
            var part = (value & 0xff) / 255.0;
            return part <= 0.04045 ? part / 12.92 : Math.Pow((part + 0.055) / 1.055, 2.4);
        }
    }
}
