using System.Globalization;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Hosting;
using NodaTime;
using NodaTime.Text;

namespace LooseLantern.Server.Features.Openings;

/// <summary>Which openings a guest asks for: local dates of the page's zone, both included, and minutes.</summary>
/// <param name="Party">How many people come.</param>
public sealed record OpeningsQuery(LocalDate From, LocalDate To, int Duration, int Party)
{
    /// <exception cref="Refusal">Names every parameter that is wrong.</exception>
    public static OpeningsQuery Read(string? from, string? to, string? duration, Page page, string? party = null)
    {
        var faults = new Dictionary<string, Phrase[]>();
        var first = Date("from", from);
        var last = Date("to", to);

        if (faults.Count == 0 && last < first)
            faults["to"] = ["dates-swapped"];
        else if (faults.Count == 0 && Period.DaysBetween(first, last) >= PageLimits.MostDaysAsked)
            faults["to"] = [Phrase.Of("days-asked", ("most", PageLimits.MostDaysAsked))];

        var minutes = page.Durations[0];
        if (
            duration is not null
            && !(
                int.TryParse(duration, NumberStyles.None, CultureInfo.InvariantCulture, out minutes)
                && page.Durations.Contains(minutes)
            )
        )
            faults["duration"] = [Phrase.Of("durations", ("durations", page.Durations))];

        var people = 1;
        if (
            party is not null
            && !(
                int.TryParse(party, NumberStyles.None, CultureInfo.InvariantCulture, out people)
                && people is >= 1 and <= PageLimits.MostPlaces
            )
        )
            faults["party"] = [Phrase.Of("party", ("most", PageLimits.MostPlaces))];

        return faults.Count == 0 ? new OpeningsQuery(first, last, minutes, people) : throw Refusal.Invalid(faults);

        LocalDate Date(string name, string? text)
        {
            // The ends leave room for a day and more of arithmetic on either side.
            var parsed = LocalDatePattern.Iso.Parse(text ?? "");
            if (parsed is { Success: true, Value.Year: >= 1900 and <= 2200 })
                return parsed.Value;
            faults[name] = ["iso-date"];
            return default;
        }
    }
}
