using LooseLantern.Core.Openings;
using LooseLantern.Server.Hosting;
using NodaTime;

namespace LooseLantern.Server.Features.Reserving;

/// <summary>Tells who brings more people than a session has places left how many are left.</summary>
public static class PlacesLeft
{
    /// <exception cref="Refusal">409 where the time is open for fewer people, with how many.</exception>
    public static void RequireRoom(OpeningsInput input, Instant start)
    {
        if (input.Party == 1)
            return;
        var forOne = OpeningsComputation.Openings(input with { Party = 1 });
        if (forOne.FirstOrDefault(opening => opening.Start == start) is { } opening)
            throw TooFew(opening.PlacesLeft, input.Party);
    }

    public static Refusal TooFew(int left, int party) =>
        new(StatusCodes.Status409Conflict, "places-left", Phrase.Of("places-left", ("left", left), ("party", party)));
}
