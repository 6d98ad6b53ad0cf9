using System.Text;

namespace LooseLantern.Formats.ICalendar.Writing;

/// <summary>Long content lines are folded to 75 octets (RFC 5545 section 3.1).</summary>
public static class Folding
{
    private const int MostOctets = 75;

    /// <summary>Each content line in one piece.</summary>
    public static string Unfold(string text) =>
        text.ReplaceLineEndings("\r\n")
            .Replace("\r\n ", "", StringComparison.Ordinal)
            .Replace("\r\n\t", "", StringComparison.Ordinal);

    /// <summary>No line longer than 75 octets of UTF-8, and no letter torn apart.</summary>
    public static string Fold(string unfolded)
    {
        var folded = new StringBuilder(unfolded.Length + 64);
        foreach (var line in unfolded.ReplaceLineEndings("\n").TrimEnd('\n').Split('\n'))
        {
            var octets = 0;
            foreach (var letter in line.EnumerateRunes())
            {
                if (octets + letter.Utf8SequenceLength > MostOctets)
                {
                    folded.Append("\r\n ");
                    octets = 1;
                }

                folded.Append(letter.ToString());
                octets += letter.Utf8SequenceLength;
            }

            folded.Append("\r\n");
        }

        return folded.ToString();
    }
}
