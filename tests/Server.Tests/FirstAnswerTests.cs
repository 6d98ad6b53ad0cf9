using System.IO.Compression;
using System.Net.Http.Headers;
using System.Text.RegularExpressions;
using CsCheck;
using LooseLantern.Core.Openings;
using LooseLantern.Server.Features.Guests;
using LooseLantern.Server.Features.Guests.First;
using LooseLantern.Server.Hosting;

namespace Server.Tests;

/// <summary>What a guest's first request is answered with.</summary>
public partial class FirstAnswerTests(World world)
{
    [Fact]
    public async Task A_page_comes_with_what_previews_searches_and_its_own_screen_want_of_it()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync(draft => draft.Title = "Tea & \"talk\"</script><script>alert(1)</script>");
        var (answer, html) = await OpenAsync($"/{ada.Desk}/{page}");

        answer.StatusCode.ShouldBe(HttpStatusCode.OK);
        answer.Headers.CacheControl!.NoStore.ShouldBeTrue();
        html.ShouldContain("<title>Tea &amp; &quot;talk&quot;&lt;/script&gt;");
        html.ShouldContain("<meta property=\"og:title\" content=\"Tea &amp; &quot;talk&quot;");
        html.ShouldContain("<meta name=\"description\" content=\"30 min, Slip 2");
        html.ShouldMatch($"<link rel=\"canonical\" href=\"https?://[^\"]+/{ada.Desk}/{page}\">");
        html.ShouldNotContain("noindex");
        html.ShouldNotContain("alert(1)</script>");
        // No script in it but the one that starts the app, which the policy names by its hash.
        Scripts().Count(html).ShouldBe(1);
        html.ShouldMatch("<link rel=\"modulepreload\" href=\"/_app/immutable/nodes/");
        html.IndexOf("modulepreload", StringComparison.Ordinal)
            .ShouldBeGreaterThan(html.IndexOf("id=\"first-view\"", StringComparison.Ordinal));

        var data = DataOf(html);
        var path = $"/api/public/desks/{ada.Desk}/pages/{page}";
        data.GetProperty("path").GetString().ShouldBe($"/{ada.Desk}/{page}");
        JsonElement
            .DeepEquals(data.GetProperty("page"), await world.Guest().GetFromJsonAsync<JsonElement>(path))
            .ShouldBeTrue();
        var (first, last) = (
            data.GetProperty("page").GetProperty("firstDate").GetString(),
            data.GetProperty("page").GetProperty("lastDate").GetString()
        );
        var openings = await world
            .Guest()
            .GetFromJsonAsync<JsonElement>($"{path}/openings?from={first}&to={last}&duration=30");
        StartsOf(data.GetProperty("openings"))
            .ShouldBe([
                .. openings
                    .GetProperty("openings")
                    .EnumerateArray()
                    .Select(one => one.GetProperty("start").GetString()!),
            ]);
    }

    [Fact]
    public async Task Without_scripts_it_says_what_is_open_next_in_the_language_of_the_page()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync(draft =>
        {
            draft.Details = draft.Details with { Face = draft.Details.Face with { Language = "de" } };
        });
        var (_, html) = await OpenAsync($"/{ada.Desk}/{page}");
        html.ShouldContain("<html lang=\"de\">");
        var words = NoScript().Match(html).Groups[1].Value;
        words.ShouldContain("Nächste freie Zeiten");
        words.ShouldContain("Montag, 7. Dezember: 09:00");
        words.ShouldContain("Schreiben Sie sonst an");
        DataOf(html).GetProperty("screens").GetProperty("form.name").GetString().ShouldNotBe("Your name");
        // English the front end has.
        var other = await ada.PublishAsync();
        DataOf((await OpenAsync($"/{ada.Desk}/{other}")).Html)
            .GetProperty("screens")
            .ValueKind.ShouldBe(JsonValueKind.Null);
    }

    [Fact]
    public async Task What_is_one_persons_alone_is_found_by_no_search_and_kept_by_nobody()
    {
        var ada = await world.SignUpAsync();
        var (id, address) = await ada.SendLinkAsync();
        var (answer, html) = await OpenAsync($"/times/{address}");
        Private(answer, html);
        var data = DataOf(html);
        data.GetProperty("link").GetProperty("state").GetString().ShouldBe("out");
        StartsOf(data.GetProperty("openings")).ShouldBe(await world.Guest().LinkStartsAsync(address));
        // What only fetches the address opens nothing.
        (await ada.LinkAsync(id)).GetProperty("row").GetProperty("state").GetString().ShouldBe("out");

        var page = await ada.PublishAsync();
        var booked = await (await world.Guest().BookAsync(ada.Desk, page, "2026-12-08T08:00:00Z")).ReadAsync(
            HttpStatusCode.Created
        );
        (answer, html) = await OpenAsync(booked.GetProperty("path").GetString()!);
        Private(answer, html);
        html.ShouldNotContain("og:title");

        var pageId = (await ada.PagesAsync())[0].GetProperty("id").GetGuid();
        var personal = await (
            await ada.PostAsync(
                $"/api/pages/{pageId}/personal-addresses",
                new { name = "Ottilie Wren", email = "ottilie@wren.example" }
            )
        ).ReadAsync(HttpStatusCode.OK);
        (answer, html) = await OpenAsync(personal.GetProperty("path").GetString()!);
        Private(answer, html);
        DataOf(html).GetProperty("page").GetProperty("guest").GetProperty("name").GetString().ShouldBe("Ottilie Wren");
    }

    [Fact]
    public async Task A_page_that_its_desk_does_not_list_is_found_by_no_search()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync(draft =>
            draft.Details = draft.Details with { Face = draft.Details.Face with { IsListed = false } }
        );
        (await OpenAsync($"/{ada.Desk}/{page}")).Html.ShouldContain("<meta name=\"robots\" content=\"noindex\">");
        var (_, desk) = await OpenAsync($"/{ada.Desk}");
        desk.ShouldMatch($"<link rel=\"canonical\" href=\"https?://[^\"]+/{ada.Desk}\">");
        DataOf(desk).GetProperty("desk").GetProperty("address").GetString().ShouldBe(ada.Desk);
    }

    [Fact]
    public async Task A_former_address_leads_on_and_one_of_nothing_says_so()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync();
        var path = $"/api/pages/{(await ada.PagesAsync())[0].GetProperty("id").GetGuid()}";
        var moved = World.Unique("moved");
        await ada.PutAsync(path, new { version = 2, form = ada.Draft(draft => draft.Address = moved).Form() });
        await (await ada.PostAsync(path + "/publish", new { version = 3 })).ReadAsync(HttpStatusCode.OK);
        var guest = world.App.CreateClient(new() { AllowAutoRedirect = false });
        (await guest.GetAsync($"/{ada.Desk}/{page}?for=x")).Headers.Location!.OriginalString.ShouldBe(
            $"/{ada.Desk}/{moved}?for=x"
        );

        foreach (var missing in new[] { $"/{ada.Desk}/nothing", "/nobody-here", "/times/nothing" })
        {
            var (answer, html) = await OpenAsync(missing);
            answer.StatusCode.ShouldBe(HttpStatusCode.NotFound);
            html.ShouldContain("noindex");
        }

        (await OpenAsync("/work/pages")).Answer.StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task Whoever_is_signed_in_elsewhere_sees_it_as_its_guests_do()
    {
        var (ada, eve) = (await world.SignUpAsync(), await world.SignUpAsync());
        var page = await ada.PublishAsync();
        var html = await eve.Http.GetStringAsync($"/{ada.Desk}/{page}");
        DataOf(html).GetProperty("page").GetProperty("title").GetString().ShouldBe("Talk");
    }

    [Fact]
    public async Task Who_asks_too_much_gets_the_screen_alone()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync();
        await using var app = new LanternApp(world.ConnectionString, world.Clock)
        {
            OnlyAnswers = true,
            Limits = (1, 1),
        };
        var guest = app.CreateClient();
        (await guest.GetStringAsync($"/{ada.Desk}/{page}")).ShouldContain("id=\"first-answer\"");
        (await guest.GetStringAsync($"/{ada.Desk}/{page}")).ShouldNotContain("id=\"first-answer\"");
    }

    [Fact]
    public async Task Files_are_sent_as_they_were_compressed_when_built_to_whom_takes_them_so()
    {
        var script = Preloaded().Match((await OpenAsync("/work/pages")).Html).Groups[1].Value;
        var plain = await world.Guest().GetByteArrayAsync(script);
        using var request = new HttpRequestMessage(HttpMethod.Get, script);
        request.Headers.AcceptEncoding.Add(new StringWithQualityHeaderValue("br"));
        var answer = await world.Guest().SendAsync(request);
        answer.Content.Headers.ContentEncoding.ShouldBe(["br"]);
        answer.Content.Headers.ContentType!.MediaType.ShouldBe("text/javascript");
        answer.Headers.CacheControl!.ToString().ShouldContain("immutable");
        answer.Headers.Vary.ShouldContain("Accept-Encoding");
        await using var compressed = new BrotliStream(
            await answer.Content.ReadAsStreamAsync(),
            CompressionMode.Decompress
        );
        using var read = new MemoryStream();
        await compressed.CopyToAsync(read);
        read.ToArray().ShouldBe(plain);
    }

    [Fact]
    public void Openings_written_small_are_all_there()
    {
        var opening = Gen.Select(
            Gen.Int[0, 200],
            Gen.OneOf(Gen.Const(15), Gen.Const(30), Gen.Const(45)),
            Gen.Int[1, 2]
        );
        opening
            .List[0, 60]
            .Sample(list =>
            {
                var at = Instant.FromUtc(2026, 12, 7, 8, 0);
                var openings = new List<Opening>();
                foreach (var (gap, minutes, left) in list)
                {
                    at += Duration.FromMinutes(5 * (gap % 4 == 0 ? gap + 1 : 6));
                    openings.Add(new Opening(at, at + Duration.FromMinutes(minutes), left));
                }

                var written = FirstOpenings.Of(new OpeningsAnswer("Europe/Copenhagen", openings));
                Read(JsonDocument.Parse(written.Json).RootElement).ShouldBe(openings);
                written.Next.ShouldBe(openings.Take(100));
            });
        // An even day takes one run.
        var even = Enumerable
            .Range(0, 20)
            .Select(i => Instant.FromUtc(2026, 12, 7, 8, 0) + Duration.FromMinutes(30 * i))
            .Select(start => new Opening(start, start + Duration.FromMinutes(30), 1))
            .ToList();
        JsonDocument
            .Parse(FirstOpenings.Of(new OpeningsAnswer("UTC", even)).Json)
            .RootElement.GetProperty("runs")
            .GetArrayLength()
            .ShouldBe(1);
    }

    private static List<Opening> Read(JsonElement written) =>
        [
            .. written
                .GetProperty("runs")
                .EnumerateArray()
                .Select(run => run.EnumerateArray().Select(number => number.GetInt64()).ToArray())
                .SelectMany(run =>
                    Enumerable
                        .Range(0, (int)run[2])
                        .Select(at => Instant.FromUnixTimeSeconds(60 * (run[0] + (at * run[1]))))
                        .Select(start => new Opening(start, start + Duration.FromMinutes(run[3]), (int)run[4]))
                ),
        ];

    private static string[] StartsOf(JsonElement written) =>
        [
            .. Read(written)
                .Select(opening => JsonSerializer.SerializeToElement(opening.Start, Json.Options).GetString()!),
        ];

    private static void Private(HttpResponseMessage answer, string html)
    {
        answer.StatusCode.ShouldBe(HttpStatusCode.OK);
        answer.Headers.CacheControl!.NoStore.ShouldBeTrue();
        html.ShouldContain("<meta name=\"robots\" content=\"noindex\">");
        html.ShouldNotContain("canonical");
    }

    private async Task<(HttpResponseMessage Answer, string Html)> OpenAsync(string path)
    {
        var answer = await world.Guest().GetAsync(path);
        return (answer, await answer.Content.ReadAsStringAsync());
    }

    private static JsonElement DataOf(string html) =>
        JsonDocument.Parse(Data().Match(html).Groups[1].Value).RootElement;

    [GeneratedRegex("<script type=\"application/json\" id=\"first-answer\">(.*?)</script>", RegexOptions.Singleline)]
    private static partial Regex Data();

    [GeneratedRegex("<script>")]
    private static partial Regex Scripts();

    [GeneratedRegex("<noscript>(.*?)</noscript>", RegexOptions.Singleline)]
    private static partial Regex NoScript();

    [GeneratedRegex("<link rel=\"modulepreload\" href=\"([^\"]+/chunks/[^\"]+)\">")]
    private static partial Regex Preloaded();
}
