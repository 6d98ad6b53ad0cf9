using System.Globalization;
using CsvHelper;
using CsvHelper.Configuration;

namespace LooseLantern.Formats.Tables;

/// <summary>
/// Reads tables of text (RFC 4180, and what programs write in its place), whatever separates their cells.
/// </summary>
public static class TableReading
{
    public const int MostColumns = 200;

    /// <summary>Letters of one cell.</summary>
    public const int MostCell = 20_000;

    private const int LookedAt = 30;

    /// <summary>What is looked for between cells.</summary>
    public static readonly IReadOnlyList<char> Separators = [',', ';', '\t', '|'];

    /// <param name="encoding">One of <see cref="TableText.Encodings"/>; null to find it.</param>
    /// <param name="separator">One of <see cref="Separators"/>; null to find it.</param>
    /// <param name="mostRows">How many records there may be, without the head.</param>
    /// <exception cref="TableFileException">Where it can't be read as a table.</exception>
    public static TextTable Read(byte[] bytes, string? encoding, char? separator, int mostRows)
    {
        var (text, name) = TableText.Read(bytes, encoding);
        var by = separator ?? Found(text);
        var rows = new List<TableRow>();
        foreach (var row in Records(text, by))
        {
            if (row.Cells.All(cell => cell.Length == 0))
                continue;
            rows.Add(row);
            if (rows.Count > mostRows + 1)
                throw new TableFileException(TableFault.TooManyRows, row.Line);
        }

        if (rows.Count == 0)
            throw new TableFileException(TableFault.Empty);
        var columns = rows.Max(row => row.Cells.Count);
        if (columns > MostColumns)
            throw new TableFileException(
                TableFault.TooManyColumns,
                rows.Find(row => row.Cells.Count > MostColumns)!.Line
            );
        var hasHead = IsHead(rows[0]);
        IReadOnlyList<string> Filled(IReadOnlyList<string> cells) =>
            cells.Count == columns ? cells : [.. cells, .. Enumerable.Repeat("", columns - cells.Count)];
        return new TextTable(
            name,
            by,
            hasHead ? Filled(rows[0].Cells) : [.. Enumerable.Repeat("", columns)],
            [.. rows.Skip(hasHead ? 1 : 0).Select(row => row with { Cells = Filled(row.Cells) })]
        );
    }

    /// <summary>Names of columns are words; an email or a number among them is somebody's.</summary>
    private static bool IsHead(TableRow first) =>
        !first.Cells.Any(cell =>
            cell.Contains('@', StringComparison.Ordinal)
            || (cell.Length > 0 && cell.Count(char.IsAsciiDigit) * 2 > cell.Length)
        );

    /// <summary>
    /// The one that tears the first records into the same number of cells most often, and into more than one.
    /// </summary>
    private static char Found(string text) =>
        Separators.MaxBy(by =>
        {
            var counts = Sizes(text, by);
            if (counts.Count == 0)
                return 0;
            var usual = counts.GroupBy(count => count).MaxBy(same => (same.Count(), same.Key))!;
            return usual.Key < 2 ? 0 : ((long)usual.Count() * 1000 / counts.Count * 1000) + usual.Key;
        });

    private static List<int> Sizes(string text, char by)
    {
        try
        {
            return [.. Records(text, by).Take(LookedAt).Select(row => row.Cells.Count)];
        }
        catch (TableFileException)
        {
            return [];
        }
    }

    private static IEnumerable<TableRow> Records(string text, char separator)
    {
        using var reader = new StringReader(text);
        using var parser = new CsvParser(
            reader,
            new CsvConfiguration(CultureInfo.InvariantCulture)
            {
                Delimiter = separator.ToString(),
                // A quote within a cell stands for itself there, as programs that know no better write it.
                BadDataFound = null,
                MaxFieldSize = MostCell,
                TrimOptions = TrimOptions.Trim,
            }
        );
        while (true)
        {
            string[]? cells;
            // Counted where a record begins: one with line breaks in its cells ends further down.
            var line = parser.RawRow + 1;
            try
            {
                cells = parser.Read() ? parser.Record : null;
            }
            catch (MaxFieldSizeException)
            {
                throw new TableFileException(TableFault.CellTooLong, line);
            }

            if (cells is null)
                yield break;
            yield return new TableRow(line, [.. cells.Select(Plain)]);
        }
    }

    /// <summary>What writes tables safe against formulas puts an apostrophe before them.</summary>
    private static string Plain(string cell) =>
        cell.Length > 1 && cell[0] == '\'' && "=+-@\t\r".Contains(cell[1], StringComparison.Ordinal) ? cell[1..] : cell;
}
