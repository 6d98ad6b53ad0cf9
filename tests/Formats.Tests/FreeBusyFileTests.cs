namespace Formats.Tests;

/// <summary>Busy times as VFREEBUSY.</summary>
public class FreeBusyFileTests
{
    [Fact]
    public void Busy_runs_are_joined_cut_at_the_ends_and_tentative_only_where_nothing_is_sure()
    {
        var text = FreeBusyFile.Write(
            "host-1",
            At(8, 0),
            new Span(At(8, 0), At(18, 0)),
            [new Span(At(7, 0), At(9, 0)), new Span(At(8, 30), At(10, 0)), new Span(At(17, 0), At(20, 0))],
            [new Span(At(9, 30), At(11, 0))]
        );

        text.ShouldContain("BEGIN:VFREEBUSY");
        text.ShouldContain("UID:host-1");
        text.ShouldContain("DTSTART:20261208T080000Z");
        text.ShouldContain("DTEND:20261208T180000Z");
        Lines(text)
            .ShouldBe(
                [
                    "BUSY 20261208T080000Z/20261208T100000Z",
                    "BUSY 20261208T170000Z/20261208T180000Z",
                    "BUSY-TENTATIVE 20261208T100000Z/20261208T110000Z",
                ],
                ignoreOrder: true
            );
    }

    [Fact]
    public void Nothing_busy_is_told_as_such() =>
        Lines(FreeBusyFile.Write("host-1", At(8, 0), new Span(At(8, 0), At(18, 0)), [], [])).ShouldBeEmpty();

    private static string[] Lines(string text) =>
        [
            .. text.Replace("\r\n ", "")
                .Split("\r\n")
                .Where(line => line.StartsWith("FREEBUSY", StringComparison.Ordinal))
                .SelectMany(line =>
                {
                    var (head, values) = (line[..line.IndexOf(':')], line[(line.IndexOf(':') + 1)..]);
                    var type = head.Contains("FBTYPE=", StringComparison.Ordinal)
                        ? head[(head.IndexOf("FBTYPE=", StringComparison.Ordinal) + 7)..]
                        : "BUSY";
                    return values.Split(',').Select(value => $"{type} {value}");
                }),
        ];

    private static Instant At(int hour, int minute) => Instant.FromUtc(2026, 12, 8, hour, minute);
}
