using System.Text;
using CsCheck;
using LooseLantern.Formats.Tables;

namespace Formats.Tests;

/// <summary>Tables come in whatever encoding and with whatever separator a program saved them.</summary>
public sealed class TableTests
{
    private static readonly string[] Head = ["Name", "Email", "Ort"];

    [Theory]
    [InlineData("utf-8", ',')]
    [InlineData("utf-8", ';')]
    [InlineData("utf-8", '\t')]
    [InlineData("utf-8", '|')]
    [InlineData("utf-16", ';')]
    [InlineData("utf-16BE", ',')]
    [InlineData("windows-1252", ';')]
    public void Encoding_and_separator_are_found(string encoding, char separator)
    {
        var text =
            $"Name{separator}Email{separator}Ort\r\nJörg Ångström{separator}joerg@boat.example{separator}\"Århus{separator} Kaj\"\r\nZoë{separator}{separator}Málaga\r\n";
        _ = TableText.Encodings;
        var bytes = Encoding.GetEncoding(
            encoding,
            EncoderFallback.ExceptionFallback,
            DecoderFallback.ExceptionFallback
        );
        var table = TableReading.Read(bytes.GetBytes(text), null, null, 100);
        (table.Encoding, table.Separator).ShouldBe((encoding, separator));
        table.Head.ShouldBe(Head);
        table.Rows.Select(row => row.Line).ShouldBe([2, 3]);
        table.Rows[0].Cells.ShouldBe(["Jörg Ångström", "joerg@boat.example", $"Århus{separator} Kaj"]);
        table.Rows[1].Cells.ShouldBe(["Zoë", "", "Málaga"]);
    }

    [Fact]
    public void What_was_chosen_counts_whatever_would_be_found()
    {
        var table = TableReading.Read(Encoding.UTF8.GetBytes("a,b;c\n1,2;3"), null, ';', 100);
        table.Head.ShouldBe(["a,b", "c"]);
        TableReading
            .Read(Encoding.Latin1.GetBytes("n;m\nå;b"), "windows-1251", null, 10)
            .Rows[0]
            .Cells[0]
            .ShouldBe("е");
    }

    [Fact]
    public void A_mark_of_utf8_is_no_part_of_the_first_column() =>
        TableReading
            .Read([0xEF, 0xBB, 0xBF, .. "Name,Email\nOda,o@boat.example"u8], null, null, 9)
            .Head[0]
            .ShouldBe("Name");

    [Fact]
    public void Without_a_head_the_first_row_is_somebodys()
    {
        var table = TableReading.Read("Oda,oda@boat.example\nIdo,ido@boat.example"u8.ToArray(), null, null, 9);
        table.Head.ShouldBe(["", ""]);
        table.Rows.Count.ShouldBe(2);
    }

    [Fact]
    public void Short_rows_are_filled_blank_ones_left_out_and_lines_counted_as_the_file_has_them()
    {
        var table = TableReading.Read(
            "Name,Note,Boat\nOda,\"two\nlines\",Tern\n\n,,\nIdo\n"u8.ToArray(),
            null,
            null,
            9
        );
        table
            .Rows.Select(row => (row.Line, string.Join('|', row.Cells)))
            .ShouldBe([(2, "Oda|two\nlines|Tern"), (6, "Ido||")]);
    }

    [Fact]
    public void What_can_be_no_table_is_told_by_its_fault()
    {
        TableFault Of(byte[] bytes, int most = 10) =>
            Should.Throw<TableFileException>(() => TableReading.Read(bytes, null, null, most)).Fault;
        Of([]).ShouldBe(TableFault.Empty);
        Of("\n , \n"u8.ToArray()).ShouldBe(TableFault.Empty);
        Of([0x89, 0x50, 0x4E, 0x47, 0, 0, 1, 2, 0, 0, 0xC0, 0xFF]).ShouldBe(TableFault.NotText);
        Of("Name\na\nb\nc"u8.ToArray(), most: 2).ShouldBe(TableFault.TooManyRows);
        Of(Encoding.UTF8.GetBytes(string.Join(',', Enumerable.Repeat("x", 201)))).ShouldBe(TableFault.TooManyColumns);
        Of(Encoding.UTF8.GetBytes("Name,Email\n\"never closed," + new string('x', 30_000)))
            .ShouldBe(TableFault.CellTooLong);
    }

    [Fact]
    public void No_formula_is_written_and_what_was_made_safe_is_read_as_it_was()
    {
        var text = TableWriting.Write([
            ["Name", "Phone"],
            ["=1+1", "+45 55 01 02 03"],
            ["@here", "-3"],
        ]);
        foreach (var cell in text.Split("\r\n").SelectMany(line => line.Split(',')))
            cell.Trim('"').ShouldNotStartWith("=");
        text.ShouldNotContain(",+45");
        TableReading
            .Read(Encoding.UTF8.GetBytes(text), null, null, 9)
            .Rows.Select(row => string.Join('|', row.Cells))
            .ShouldBe(["=1+1|+45 55 01 02 03", "@here|-3"]);
    }

    [Fact]
    public void Whatever_is_written_is_read_again()
    {
        var cell = Gen.String[Gen.Char["ab ,;\"'\n|\té"], 0, 8].Select(text => text.Trim().Trim('\''));
        Gen.Select(Gen.Int[2, 4], Gen.Int[1, 6])
            .SelectMany((columns, rows) => cell.Array[columns].Array[rows])
            .Sample(
                rows =>
                {
                    var kept = rows.Where(row => row.Any(text => text.Length > 0)).ToList();
                    var written = TableWriting.Write(
                        kept.Prepend([.. rows[0].Select((_, i) => "Column " + (char)('a' + i))])
                    );
                    var read = TableReading.Read(Encoding.UTF8.GetBytes(written), null, ',', 99);
                    read.Rows.Select(row => string.Join('\u0001', row.Cells))
                        .ShouldBe(kept.Select(row => string.Join('\u0001', row)));
                },
                iter: 2000
            );
    }
}
