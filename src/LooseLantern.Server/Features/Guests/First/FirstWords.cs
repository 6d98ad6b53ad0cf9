using System.Globalization;
using System.Net;
using System.Text;
using System.Text.Encodings.Web;
using System.Text.RegularExpressions;
using System.Text.Unicode;
using LooseLantern.Core.Openings;
using LooseLantern.Core.TimeText;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Hosting;
using NodaTime;

namespace LooseLantern.Server.Features.Guests.First;

/// <summary>What a guest's screen says without scripts, as HTML, and in previews, as plain words.</summary>
public static partial class FirstWords
{
    private const int DaysNamed = 5;

    private static readonly HtmlEncoder Encoder = HtmlEncoder.Create(UnicodeRanges.All);

    /// <summary>A page with its next openings, and whom to write to.</summary>
    /// <param name="openings">By start.</param>
    /// <param name="language">Tag of the language it is written in.</param>
    public static string Of(GuestPage page, IReadOnlyList<Opening> openings, string language)
    {
        var html = new StringBuilder();
        html.Append("<main class=\"mx-auto max-w-3xl px-[18px] py-8\">");
        html.Append($"<p>{Safe(page.Workspace)} / {Safe(page.Desk)}</p><h1 class=\"text-2xl\">{Safe(page.Title)}</h1>");
        html.Append($"<p>{Safe(About(page, language))}</p>");
        html.Append($"<div class=\"prose-guest pt-4\">{page.Description}</div>");
        html.Append($"<h2 class=\"pt-4 text-xl\">{Safe(ScreenPhrases.Say(language, "first.next"))}</h2>");
        html.Append(openings.Count == 0 ? $"<p>{Safe(ScreenPhrases.Say(language, "openings.none.title"))}</p>" : "");
        if (openings.Count > 0)
            Next(html, page, openings, language);
        var whom = Names(page) is { Length: > 0 } names ? names : $"{page.Desk}, {page.Workspace}";
        html.Append($"<p class=\"pt-4\">{Safe(ScreenPhrases.Say(language, "first.no-scripts", ("names", whom)))}</p>");
        return html.Append("</main>").ToString();
    }

    /// <summary>A desk with its pages.</summary>
    public static string Of(GuestDesk desk)
    {
        var html = new StringBuilder();
        html.Append("<main class=\"mx-auto max-w-3xl px-[18px] py-8\">");
        html.Append($"<p>{Safe(desk.Workspace)}</p><h1 class=\"text-2xl\">{Safe(desk.Name)}</h1>");
        html.Append($"<div class=\"prose-guest pt-4\">{desk.Intro}</div><ul class=\"pt-4\">");
        foreach (var page in desk.Pages)
            html.Append(
                $"<li class=\"pt-2\"><a class=\"underline\" href=\"{Safe(page.Path)}\">{Safe(page.Title)}</a> {Safe(page.Intro)}</li>"
            );
        return html.Append("</ul></main>").ToString();
    }

    public static string Missing(string words) =>
        $"<main class=\"mx-auto max-w-3xl px-[18px] py-8\"><h1>{Safe(words)}</h1></main>";

    /// <summary>What a page says of itself, in a line; else how long, where and with whom.</summary>
    public static string About(GuestPage page, string language)
    {
        var place = page.PlaceKind switch
        {
            PlaceKind.Phone => ScreenPhrases.Say(language, "place.phone"),
            PlaceKind.Video => ScreenPhrases.Say(language, "place.video"),
            _ => page.Place,
        };
        var names = Names(page);
        string[] said =
        [
            string.Join(" / ", page.Durations.Order().Select(LengthText.Of)),
            place,
            names.Length == 0 ? "" : ScreenPhrases.Say(language, "with-names", ("names", names)),
        ];
        return string.Join(", ", said.Where(words => words.Length > 0));
    }

    /// <summary>Safe HTML as plain words, the beginning of them.</summary>
    public static string Plain(string html) =>
        Markdown.FirstWords(WebUtility.HtmlDecode(Tags().Replace(html, " ")).Trim());

    /// <summary>Who comes for certain; of a seat that one of several takes nobody does.</summary>
    private static string Names(GuestPage page) =>
        string.Join(", ", page.Seats.Where(seat => seat.Count == 1).Select(seat => seat[0]));

    private static void Next(StringBuilder html, GuestPage page, IReadOnlyList<Opening> openings, string language)
    {
        var zone = DateTimeZoneProviders.Tzdb[page.Zone];
        var clock = page.Clock switch
        {
            ClockForm.H12 => Clock.Hours12,
            ClockForm.H24 => Clock.Hours24,
            _ => Clock.Usual,
        };
        var culture = CultureInfo.GetCultureInfo(language == "en" ? "en-GB" : language);
        var text = TimeTextWriter.Write(
            [.. openings.GroupBy(opening => opening.Start.InZone(zone).Date).Take(DaysNamed).SelectMany(day => day)],
            new TimeTextRequest(culture, clock, zone, Second: null, MergeTouching: true, page.Now.InZone(zone).Date)
        );
        html.Append($"<p>{Safe(text.Zones)}</p><ul>");
        foreach (var day in text.Days)
            html.Append(
                $"<li class=\"pt-1\">{Safe(day.Heading)}: {Safe(string.Join(", ", day.Times.Select(time => time.Text)))}</li>"
            );
        html.Append("</ul>");
    }

    /// <summary>As text and in attributes of HTML; letters of any script stay as they are.</summary>
    public static string Safe(string words) => Encoder.Encode(words);

    [GeneratedRegex("<[^>]*>")]
    private static partial Regex Tags();
}
