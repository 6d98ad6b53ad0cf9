using LooseLantern.Core;
using LooseLantern.Core.Suggestions;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Guests;
using LooseLantern.Server.Hosting;
using NodaTime;

namespace LooseLantern.Server.Features.AskingFirst;

/// <summary>Whether times that suit a guest can be kept.</summary>
public static class SuitedTimesRules
{
    /// <summary>How many guests of a link may say what suits them.</summary>
    public const int MostGuests = 30;

    private const int MostWords = 1000;

    /// <exception cref="Refusal">400 naming each field with its mend.</exception>
    public static void Check(AvailabilityLink link, SuitedTimesRequest request, GuestRequest guest, Instant now)
    {
        var faults = new Dictionary<string, Phrase[]>();
        if (request.Stretches.Count == 0)
            faults["stretches"] = ["suits-missing"];
        else if (FaultOf(link, request.Stretches, now) is { } fault)
            faults["stretches"] = [fault];
        if (!Hours.Zones.IsKnown(request.Zone))
            faults["zone"] = ["iana-zone"];
        if (request.Words.Length > MostWords)
            faults["words"] = [Phrase.Of("too-long", ("most", MostWords))];
        if (!Words.FitOneLine(guest.Name))
            faults["name"] = ["your-name"];
        if (!EmailAddress.IsPlausible(guest.Email.Trim()))
            faults["email"] = ["email"];
        if (faults.Count > 0)
            throw Refusal.Invalid(faults);
    }

    /// <exception cref="Refusal">400 naming what is wrong with the stretches.</exception>
    public static void CheckStretches(AvailabilityLink link, IReadOnlyList<SuitedStretch> stretches, Instant now)
    {
        if (FaultOf(link, stretches, now) is { } fault)
            throw Refusal.Invalid("stretches", fault);
    }

    /// <exception cref="Refusal">400 for a duration that the link does not offer.</exception>
    public static int DurationOf(AvailabilityLink link, int? asked)
    {
        var offered = link.Page!.Durations;
        var duration = asked ?? offered[0];
        return offered.Contains(duration)
            ? duration
            : throw Refusal.Invalid("duration", Phrase.Of("durations", ("durations", offered)));
    }

    private static Phrase? FaultOf(AvailabilityLink link, IReadOnlyList<SuitedStretch> stretches, Instant now) =>
        stretches.Any(stretch => stretch is null)
            ? "suits-swapped"
            : SuitedTimes.FaultOf(SuitedTimesCrossing.SpansOf(stretches), AskedOfGuest.Offered(link, now)) switch
            {
                SuitedFault.TooMany => Phrase.Of("suits-too-many", ("most", SuitedTimes.Most)),
                SuitedFault.EndsBeforeItStarts => "suits-swapped",
                SuitedFault.TooLong => "suits-too-long",
                SuitedFault.OutsideOffered => "suits-outside",
                _ => null,
            };
}
