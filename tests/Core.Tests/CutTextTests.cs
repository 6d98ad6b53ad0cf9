using System.Text;
using CsCheck;

namespace Core.Tests;

public class CutTextTests
{
    private const string Family = "\U0001F468\u200D\U0001F469\u200D\U0001F467";

    [Theory]
    [InlineData("Tea", 3, "Tea")]
    [InlineData("Teapot", 3, "Tea")]
    [InlineData("Te\U0001F9ED", 3, "Te")]
    [InlineData("Te\U0001F9EDa", 4, "Te\U0001F9ED")]
    [InlineData("e\u0301e\u0301", 3, "e\u0301")]
    [InlineData(Family + " tea", 8, Family)]
    // What fits by no means is cut between its parts, but never in the middle of one of them.
    [InlineData("e\u0301\u0301\u0301\u0301", 3, "e\u0301\u0301")]
    [InlineData(Family, 4, "\U0001F468\u200D")]
    [InlineData("\U0001F9ED", 1, "")]
    [InlineData("Tea", 0, "")]
    public void A_text_is_cut_between_characters(string text, int most, string cut) =>
        CutText.At(text, most).ShouldBe(cut);

    [Fact]
    public void What_is_cut_is_told_by_dots() => CutText.WithDots("A pot of tea", 7).ShouldBe("A pot…");

    // Not as data of a theory, which is kept as UTF-8 itself.
    [Fact]
    public void What_can_be_kept_by_no_means_is_replaced()
    {
        CutText.Kept("a\0b").ShouldBe("ab");
        CutText.Kept("a\uD83Eb").ShouldBe("a\uFFFDb");
        CutText.Kept("a\uDDED").ShouldBe("a\uFFFD");
        CutText.Kept("a\U0001F9ED").ShouldBe("a\U0001F9ED");
    }

    [Fact]
    public void Whatever_the_text_what_is_left_fits_and_can_be_sent() =>
        Gen.Select(Gen.Int[0x20, 0x10FFFF].Where(Rune.IsValid).Array[0, 40], Gen.Int[0, 40])
            .Sample(
                (runes, most) =>
                {
                    var text = string.Concat(runes.Select(rune => new Rune(rune).ToString()));
                    var cut = CutText.At(text, most);
                    cut.Length.ShouldBeLessThanOrEqualTo(most);
                    text.ShouldStartWith(cut, Case.Sensitive);
                    new UTF8Encoding(false, throwOnInvalidBytes: true).GetBytes(cut);
                }
            );
}
