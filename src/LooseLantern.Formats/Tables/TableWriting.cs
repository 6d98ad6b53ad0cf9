using System.Globalization;
using CsvHelper;
using CsvHelper.Configuration;

namespace LooseLantern.Formats.Tables;

/// <summary>Writes tables for other programs: CSV (RFC 4180).</summary>
public static class TableWriting
{
    public const string MediaType = "text/csv";

    /// <summary>The records, the head first. No program takes what somebody typed for a formula.</summary>
    public static string Write(IEnumerable<IEnumerable<string>> records)
    {
        using var text = new StringWriter(CultureInfo.InvariantCulture);
        using var csv = new CsvWriter(
            text,
            new CsvConfiguration(CultureInfo.InvariantCulture)
            {
                NewLine = "\r\n",
                InjectionOptions = InjectionOptions.Escape,
                // Also where only one half of a line break stands in a cell.
                ShouldQuote = cell =>
                    ConfigurationFunctions.ShouldQuote(cell) || cell.Field?.AsSpan().ContainsAny('\r', '\n') == true,
            }
        );
        foreach (var record in records)
        {
            foreach (var cell in record)
                csv.WriteField(cell);
            csv.NextRecord();
        }

        csv.Flush();
        return text.ToString();
    }
}
