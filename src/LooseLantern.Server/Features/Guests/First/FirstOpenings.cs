using System.Text.Json;
using LooseLantern.Core.Openings;
using LooseLantern.Server.Features.TimeZones;
using NodaTime;

namespace LooseLantern.Server.Features.Guests.First;

/// <summary>
/// Openings written small, for the first answer: thousands take as little as a few hundred bytes where they follow one
/// another evenly.
/// </summary>
/// <param name="Json">
/// In UTF-8: the zone, offsets of zones, and runs of those that guests are shown, each as five whole numbers: minutes
/// since 1970 in UTC of the first start, minutes from one start to the next, how many, minutes each, and places left.
/// </param>
/// <param name="Next">The first of them.</param>
public sealed record FirstOpenings(byte[] Json, IReadOnlyList<Opening> Next)
{
    private const int MostNext = 100;

    private sealed record Written(string Zone, IReadOnlyList<ZoneOffsets> Offsets, IReadOnlyList<long[]> Runs);

    public static FirstOpenings Of(OpeningsAnswer answer)
    {
        var shown = answer.Shown is { } some ? some.ToHashSet() : null;
        var openings = answer.Openings.Where(opening => shown?.Contains(opening.Start) != false).ToList();
        return new FirstOpenings(
            JsonSerializer.SerializeToUtf8Bytes(
                new Written(answer.Zone, answer.Offsets, RunsOf(openings)),
                Hosting.Json.Options
            ),
            [.. openings.Take(MostNext)]
        );
    }

    private static List<long[]> RunsOf(IReadOnlyList<Opening> openings)
    {
        var runs = new List<long[]>();
        foreach (var opening in openings)
        {
            var (start, minutes) = (MinuteOf(opening.Start), MinuteOf(opening.End) - MinuteOf(opening.Start));
            if (runs.LastOrDefault() is { } run && run[3] == minutes && run[4] == opening.PlacesLeft)
            {
                var gap = start - (run[0] + ((run[2] - 1) * run[1]));
                if (run[2] == 1)
                    run[1] = gap;
                if (run[1] == gap)
                {
                    run[2]++;
                    continue;
                }
            }

            runs.Add([start, 0, 1, minutes, opening.PlacesLeft]);
        }

        return runs;
    }

    private static long MinuteOf(Instant at) => at.ToUnixTimeSeconds() / 60;
}
