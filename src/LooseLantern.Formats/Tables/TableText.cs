using System.Text;
using UtfUnknown;

namespace LooseLantern.Formats.Tables;

/// <summary>Bytes of a file as text, in whatever encoding it was saved.</summary>
public static class TableText
{
    static TableText() => Encoding.RegisterProvider(CodePagesEncodingProvider.Instance);

    /// <summary>Encodings that can be chosen, by their names (IANA).</summary>
    public static readonly IReadOnlyList<string> Encodings =
    [
        "utf-8",
        "utf-16",
        "utf-16BE",
        "windows-1252",
        "windows-1250",
        "windows-1251",
        "windows-1253",
        "windows-1254",
        "windows-1257",
        "iso-8859-1",
        "iso-8859-2",
        "iso-8859-15",
        "shift_jis",
        "macintosh",
    ];

    /// <param name="encoding">One of <see cref="Encodings"/>; null to find it.</param>
    /// <exception cref="TableFileException">Where it is no text.</exception>
    public static (string Text, string Encoding) Read(byte[] bytes, string? encoding)
    {
        var name = encoding ?? Found(bytes);
        var text = Encoding.GetEncoding(name).GetString(bytes).TrimStart('\uFEFF');
        // What holds such a letter is a picture, a program or another encoding, and no database keeps it.
        return text.Contains('\0', StringComparison.Ordinal)
            ? throw new TableFileException(TableFault.NotText)
            : (text, name);
    }

    /// <summary>
    /// By the mark at the beginning; else UTF-8 where all of it is that; else what the letters make likely.
    /// </summary>
    private static string Found(byte[] bytes)
    {
        if (bytes is [0xFF, 0xFE, ..])
            return "utf-16";
        if (bytes is [0xFE, 0xFF, ..])
            return "utf-16BE";
        if (IsUtf8(bytes))
            return "utf-8";
        // Two bytes a letter: of Latin text every other one is zero.
        var zeros = bytes.Take(400).Index().Where(pair => pair.Item == 0).Select(pair => pair.Index % 2).ToList();
        if (zeros.Count > 40)
            return zeros.TrueForAll(at => at == 1) ? "utf-16"
                : zeros.TrueForAll(at => at == 0) ? "utf-16BE"
                : throw new TableFileException(TableFault.NotText);
        var name = CharsetDetector.DetectFromBytes(bytes).Detected?.EncodingName;
        // Western text, of which a few letters tell little, is taken for anything.
        // The one has all letters of the other, and is what such a file mostly is.
        if (name is "iso-8859-1")
            return "windows-1252";
        return name is not null && Encodings.Contains(name, StringComparer.OrdinalIgnoreCase) ? name : "windows-1252";
    }

    private static bool IsUtf8(byte[] bytes)
    {
        try
        {
            return !new UTF8Encoding(false, throwOnInvalidBytes: true)
                .GetString(bytes)
                .Contains('\0', StringComparison.Ordinal);
        }
        catch (ArgumentException)
        {
            return false;
        }
    }
}
