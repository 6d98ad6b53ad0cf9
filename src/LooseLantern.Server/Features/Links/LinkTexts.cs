using System.Globalization;
using System.Net;
using System.Text;
using LooseLantern.Core.Links;
using LooseLantern.Core.Openings;
using LooseLantern.Core.TimeText;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Bookings;
using LooseLantern.Server.Features.Openings;
using LooseLantern.Server.Hosting;
using NodaTime;
using NodaTime.Text;

namespace LooseLantern.Server.Features.Links;

/// <summary>A link's times as they are sent.</summary>
/// <param name="Text">Plain lines, by day in order of time.</param>
/// <param name="Html">The same, in which each time leads to the confirmation with that time chosen.</param>
/// <param name="Address">Whole; null before there is one.</param>
public sealed record LinkTextAnswer(string Text, string Html, string? Address);

/// <summary>Writes out what a link offers.</summary>
public sealed class LinkTexts(OpeningsInputs inputs, PublicAddress site, IClock clock)
{
    // What stands before the address, by language.
    private static readonly Dictionary<string, string> Here = new()
    {
        ["en"] = "Reserve one of them here:",
        ["de"] = "Hier können Sie eine davon reservieren:",
        ["fr"] = "Réservez l’une d’elles ici :",
        ["es"] = "Reserve una de ellas aquí:",
        ["da"] = "Reserver en af dem her:",
    };

    // To who is asked first, by language.
    private static readonly Dictionary<string, string> Which = new()
    {
        ["en"] = "Which times suit you?",
        ["de"] = "Welche Zeiten passen Ihnen?",
        ["fr"] = "Quels horaires vous conviennent ?",
        ["es"] = "¿Qué horas le convienen?",
        ["da"] = "Hvilke tider passer dig?",
    };

    private static readonly Dictionary<string, string> SayHere = new()
    {
        ["en"] = "Tell us here:",
        ["de"] = "Sagen Sie es uns hier:",
        ["fr"] = "Dites-le-nous ici :",
        ["es"] = "Díganoslo aquí:",
        ["da"] = "Fortæl os det her:",
    };

    private static readonly Dictionary<string, string> Nothing = new()
    {
        ["en"] = "Nothing is open just now.",
        ["de"] = "Zurzeit ist nichts frei.",
        ["fr"] = "Rien n’est libre pour l’instant.",
        ["es"] = "Ahora no hay nada libre.",
        ["da"] = "Der er ikke noget ledigt lige nu.",
    };

    /// <summary>What its guest is shown, by start.</summary>
    /// <param name="page">The link's, whole; it need not be saved.</param>
    /// <param name="duration">Minutes.</param>
    /// <param name="most">How many at the most, fewer than the link shows; null for those it shows.</param>
    public async Task<IReadOnlyList<Opening>> ShownAsync(
        Page page,
        string guestZone,
        LocalDate? from,
        LocalDate? to,
        int duration,
        CancellationToken ct,
        int? most = null
    )
    {
        // Who is asked first is shown none of ours.
        if (page.Offer!.Times.By == OfferBy.Asked)
            return [];
        var rules = inputs.Rules(page);
        var today = inputs.Today(rules);
        var last = LocalDate.Min(page.Offer!.Times.Until, today.PlusDays(PageLimits.MostDaysAsked - 1));
        // The best ones are chosen among all, whichever days are asked for.
        if (last < today || await inputs.InputAsync(rules, today, last, duration, ct) is not { } input)
            return [];
        var zones = guestZone.Length == 0 ? [] : new[] { DateTimeZoneProviders.Tzdb[guestZone] };
        return
        [
            .. ShownOpenings
                .Of(input, Fewer(page.Offer.Times.MostShown, most), zones)
                .Where(opening =>
                    opening.Start.InZone(rules.Zone).Date is var date
                    && (from is null || date >= from)
                    && (to is null || date <= to)
                ),
        ];
    }

    private static int? Fewer(int? one, int? other) => one is { } a && other is { } b ? Math.Min(a, b) : one ?? other;

    /// <param name="address">From the root of the site; null before there is one.</param>
    public LinkTextAnswer Write(
        Page page,
        LinkText how,
        string guestZone,
        string language,
        IReadOnlyList<Opening> openings,
        string? address
    )
    {
        var own = DateTimeZoneProviders.Tzdb[page.Zone];
        var theirs = guestZone.Length == 0 ? own : DateTimeZoneProviders.Tzdb[guestZone];
        var (first, second) = how.Zones switch
        {
            LinkZones.Own => (own, null),
            LinkZones.Guest => (theirs, null),
            _ => (theirs, theirs.Equals(own) ? null : own),
        };
        var culture = CultureInfo.GetCultureInfo(language == "en" ? "en-GB" : language);
        var form = how.Clock switch
        {
            ClockForm.H12 => Clock.Hours12,
            ClockForm.H24 => Clock.Hours24,
            _ => Clock.Usual,
        };
        var written = TimeTextWriter.Write(
            openings,
            new TimeTextRequest(
                culture,
                form,
                first,
                second,
                how.AsRanges ?? page.Offer!.Times.By != OfferBy.Picked,
                clock.GetCurrentInstant().InZone(first).Date
            )
        );

        var asks = page.Offer!.Times.By == OfferBy.Asked;
        var whole = address is null ? null : site.Value + address;
        var place = PlaceWords.ForGuest(page, null, language);
        var head = $"{page.Title} ({LengthText.Of(page.Durations[0])}){(place.Length == 0 ? "" : $", {place}")}";
        List<string> lines =
            openings.Count == 0
                ? [head, InLanguage(asks ? Which : Nothing, language)]
                :
                [
                    head,
                    written.Zones,
                    .. written.Days.Select(day =>
                        $"{day.Heading}: {string.Join(", ", day.Times.Select(time => time.Text))}"
                    ),
                ];
        var html = new StringBuilder($"<p>{WebUtility.HtmlEncode(lines[0])}<br>{WebUtility.HtmlEncode(lines[1])}</p>");
        if (openings.Count > 0)
        {
            html.Append("<ul>");
            foreach (var day in written.Days)
                html.Append("<li>")
                    .Append(WebUtility.HtmlEncode(day.Heading))
                    .Append(": ")
                    .AppendJoin(
                        ", ",
                        day.Times.Select(time =>
                            how.WithAddress && whole is not null
                                ? Pressable(time, whole)
                                : WebUtility.HtmlEncode(time.Text)
                        )
                    )
                    .Append("</li>");
            html.Append("</ul>");
        }

        if (how.WithAddress && whole is not null)
        {
            var here = InLanguage(asks ? SayHere : Here, language);
            lines.AddRange(["", here, whole]);
            html.Append(
                $"<p>{WebUtility.HtmlEncode(here)} <a href=\"{WebUtility.HtmlEncode(whole)}\">{WebUtility.HtmlEncode(whole)}</a></p>"
            );
        }

        return new LinkTextAnswer(string.Join('\n', lines), html.ToString(), whole);
    }

    private static string InLanguage(Dictionary<string, string> words, string language) =>
        words.GetValueOrDefault(language, words["en"]);

    private static string Pressable(TimeTextTime time, string address) =>
        $"<a href=\"{WebUtility.HtmlEncode($"{address}?at={InstantPattern.General.Format(time.Openings[0].Start)}")}\">{WebUtility.HtmlEncode(time.Text)}</a>";
}
