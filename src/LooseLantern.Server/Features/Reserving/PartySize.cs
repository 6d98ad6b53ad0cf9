using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Hosting;

namespace LooseLantern.Server.Features.Reserving;

/// <summary>How many people come with a booking: as many as are said, and all who are named.</summary>
public static class PartySize
{
    /// <param name="said">Null where nothing is said.</param>
    /// <param name="named">How many are named, beside the guest.</param>
    /// <exception cref="Refusal">400 for nobody, or for more than the page lets a guest bring.</exception>
    public static int Of(int? said, int named, Page page)
    {
        var most = page.Changes.MostBrought + 1;
        if (said is < 1 || said > most)
            throw Refusal.Invalid("party", Phrase.Of("party", ("most", most)));
        return Math.Max(said ?? 1, named + 1);
    }
}
