namespace LooseLantern.Server.Hosting;

/// <summary>Checks of short texts that people type.</summary>
public static class Words
{
    public const int MostOfALine = 120;

    /// <summary>
    /// One line with something on it, up to 120 characters, and no control characters (a line break could smuggle in a
    /// header).
    /// </summary>
    public static bool FitOneLine(string? text) =>
        !string.IsNullOrWhiteSpace(text) && text.Length <= MostOfALine && !text.Any(char.IsControl);

    /// <summary>
    /// A pattern for ILIKE, with a backslash as its escape, that finds a text with these words in it as they were
    /// typed.
    /// </summary>
    public static string Containing(string typed) =>
        $"%{typed.Trim().Replace("\\", "\\\\").Replace("%", "\\%").Replace("_", "\\_")}%";
}
