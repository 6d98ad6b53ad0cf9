using System.Buffers;
using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Unicode;
using LooseLantern.Core.Links;
using LooseLantern.Server.Features.Desks;
using LooseLantern.Server.Features.Openings;
using LooseLantern.Server.Hosting;
using NodaTime;

namespace LooseLantern.Server.Features.Guests.First;

/// <summary>Answers guests' first requests: a page, a desk or a link with all that its screen shows at once.</summary>
public sealed class FirstAnswers(
    GuestPageFinding pages,
    GuestPageViews pageViews,
    PersonalAddresses addresses,
    KeptOpenings kept,
    GuestOpenings openings,
    GuestLinkFinding links,
    GuestLinkViews linkViews,
    GuestLinkOpenings linkOpenings,
    GuestDeskViews desks
)
{
    /// <summary>As many days as the screen asks for in one go.</summary>
    private const int DaysShown = 183;

    /// <summary>Letters of any script stay as they are, and what HTML would take for its own does not.</summary>
    private static readonly JsonWriterOptions Written = new() { Encoder = JavaScriptEncoder.Create(UnicodeRanges.All) };

    /// <summary>Null where the path is no guest's screen.</summary>
    public async Task<FirstAnswer?> OfAsync(HttpRequest request, CancellationToken ct)
    {
        var language = GuestLanguage.Of(request);
        var segments = request.Path.Value?.Split('/', StringSplitOptions.RemoveEmptyEntries) ?? [];
        try
        {
            return segments switch
            {
                ["times", var address] => await LinkAsync(request, address, language, ct),
                ["booking", _] => new FirstAnswer("booking", language) { IsPrivate = true },
                ["answer", _] => new FirstAnswer("answer", language) { IsPrivate = true },
                [var desk] when IsDesk(desk) => await DeskAsync(request, desk, language, ct),
                [var desk, var page] when IsDesk(desk) => await PageAsync(request, desk, page, language, ct),
                _ => null,
            };
        }
        catch (Refusal refusal) when (refusal.Status == StatusCodes.Status404NotFound)
        {
            var (screen, said) = segments switch
            {
                ["times", _] => ("link", "missing.link"),
                [_] => ("desk", "missing.desk"),
                _ => ("page", "missing.page"),
            };
            return new FirstAnswer(screen, language)
            {
                IsMissing = true,
                Words = FirstWords.Missing(ScreenPhrases.Say(language, said)),
            };
        }
        catch (Refusal)
        {
            // The screen asks by itself, and says what stands in the way.
            return null;
        }
    }

    private static bool IsDesk(string segment) => Address.IsWellFormed(segment) && Address.IsFreeForDesks(segment);

    private async Task<FirstAnswer> PageAsync(
        HttpRequest request,
        string desk,
        string address,
        string readers,
        CancellationToken ct
    )
    {
        var found = await pages.FindAsync(desk, address, ct);
        var path = Features.Pages.PageView.PathOf(found.Page);
        if (path != $"/{desk}/{address}")
            return new FirstAnswer("page", readers) { MovedTo = path + request.QueryString };
        string? secret = request.Query["for"];
        var page = (await pageViews.OfAsync(found.Page, found.Workspace, ct)) with
        {
            Guest = await addresses.GuestOfAsync(found.Page.Id, secret, ct),
        };
        var asked = Asked(page);
        var wanted = new OpeningsAsked(
            desk,
            address,
            Iso(asked.From),
            Iso(asked.To),
            Whole(asked.Duration),
            null,
            null,
            secret
        );
        var answer = await kept.FindAsync(wanted, ct) ?? await openings.AnswerAsync(wanted, ct);
        var language = page.Language is { Length: > 0 } own ? own : readers;
        var isFound = secret is null && found.Page.Details.Face.IsListed;
        return Told(new FirstAnswer("page", language), page) with
        {
            Canonical = isFound ? path : null,
            IsPrivate = secret is not null,
            IsDrawn = true,
            Words = FirstWords.Of(page, answer.First.Next, language),
            Data = Json(request, language, "page", page, answer.First),
        };
    }

    private async Task<FirstAnswer> LinkAsync(HttpRequest request, string address, string readers, CancellationToken ct)
    {
        var found = await links.FindAsync(address, ct);
        var link = await linkViews.OfAsync(address, found, ct);
        var language = link.Page.Language is { Length: > 0 } own ? own : readers;
        var isOpen = link is { State: LinkState.Out or LinkState.Opened, Asks: null };
        var open = isOpen ? FirstOpenings.Of(await linkOpenings.OfAsync(found, Asked(link.Page), null, ct)) : null;
        return Told(new FirstAnswer("link", language), link.Page) with
        {
            IsPrivate = true,
            IsDrawn = isOpen,
            Words = FirstWords.Of(link.Page, open?.Next ?? [], language),
            Data = Json(request, language, "link", link, open),
        };
    }

    private async Task<FirstAnswer> DeskAsync(
        HttpRequest request,
        string address,
        string language,
        CancellationToken ct
    )
    {
        var desk = await desks.OfAsync(address, null, ct);
        return new FirstAnswer("desk", language)
        {
            Title = $"{desk.Name} – {desk.Workspace}",
            Workspace = desk.Workspace,
            Description = FirstWords.Plain(desk.Intro),
            Picture = desk.Banner ?? desk.Logo,
            Canonical = $"/{address}",
            Words = FirstWords.Of(desk),
            Data = Json(request, language, "desk", desk, openings: null),
        };
    }

    private static FirstAnswer Told(FirstAnswer answer, GuestPage page) =>
        answer with
        {
            Title = $"{page.Title} – {page.Workspace}",
            Workspace = page.Workspace,
            Description = FirstWords.Plain(page.Description) is { Length: > 0 } said
                ? said
                : FirstWords.About(page, answer.Language),
            Picture = page.Banner ?? page.Logo,
        };

    /// <summary>What the page's screen asks for first.</summary>
    private static OpeningsQuery Asked(GuestPage page) =>
        new(
            page.FirstDate,
            LocalDate.Min(page.FirstDate.PlusDays(DaysShown), page.LastDate),
            page.Durations[0],
            Party: 1
        );

    private static string Iso(LocalDate date) => NodaTime.Text.LocalDatePattern.Iso.Format(date);

    private static string Whole(int number) => number.ToString(System.Globalization.CultureInfo.InvariantCulture);

    /// <summary>As web/src/lib/guest/first/answer.ts reads it.</summary>
    private static byte[] Json<T>(HttpRequest request, string language, string name, T what, FirstOpenings? openings)
    {
        var buffer = new ArrayBufferWriter<byte>();
        using (var json = new Utf8JsonWriter(buffer, Written))
        {
            json.WriteStartObject();
            json.WriteString("path", request.Path + request.QueryString.Value);
            json.WriteString("language", language);
            json.WritePropertyName("screens");
            // English the front end has by itself.
            if (language != "en" && ScreenPhrases.Table(language) is { } table)
                json.WriteRawValue(table);
            else
                json.WriteNullValue();
            json.WritePropertyName(name);
            JsonSerializer.Serialize(json, what, Hosting.Json.Options);
            json.WritePropertyName("openings");
            if (openings is not null)
                json.WriteRawValue(openings.Json, skipInputValidation: true);
            else
                json.WriteNullValue();
            json.WriteEndObject();
        }

        return buffer.WrittenSpan.ToArray();
    }
}
