namespace LooseLantern.Formats.Tables;

/// <summary>A record of a table.</summary>
/// <param name="Line">The line of the file it begins on, from 1.</param>
/// <param name="Cells">As many as the table has columns; trimmed.</param>
public sealed record TableRow(int Line, IReadOnlyList<string> Cells);

/// <summary>A table as a file of text has it.</summary>
/// <param name="Encoding">The name of the encoding it was read in (IANA), "utf-8".</param>
/// <param name="Separator">What stands between cells.</param>
/// <param name="Head">The names of the columns; where the file has none, each is empty.</param>
public sealed record TextTable(
    string Encoding,
    char Separator,
    IReadOnlyList<string> Head,
    IReadOnlyList<TableRow> Rows
);

/// <summary>Why a file can't be read as a table or as cards.</summary>
public enum TableFault
{
    Empty,

    /// <summary>It is no text, or in no encoding that is known.</summary>
    NotText,
    TooManyRows,
    TooManyColumns,

    /// <summary>A cell is longer than any may be, as where a quote is never closed.</summary>
    CellTooLong,

    /// <summary>No card of a version that is read: 3.0 or 4.0.</summary>
    NoCards,
}

/// <summary>A file that can't be read as a whole.</summary>
/// <param name="line">Where reading stopped, from 1; null where that is nowhere.</param>
public sealed class TableFileException(TableFault fault, int? line = null) : Exception($"{fault} at line {line}")
{
    public TableFault Fault { get; } = fault;

    public int? Line { get; } = line;
}
