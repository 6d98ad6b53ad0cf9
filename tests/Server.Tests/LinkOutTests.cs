namespace Server.Tests;

/// <summary>How a link comes to be open to its guest.</summary>
public class LinkOutTests(World world)
{
    private static object TextOf(Coordinator ada, Guid? of) => new { form = ada.Link().Form(), of };

    [Fact]
    public async Task A_draft_gives_out_no_address_and_no_text_with_one()
    {
        var ada = await world.SignUpAsync();
        var id = (await ada.MakeLinkAsync()).GetProperty("row").GetProperty("id").GetGuid();
        async Task<JsonElement> TextAsync() =>
            await (await ada.PostAsync("/api/links/text", TextOf(ada, id))).ReadAsync(HttpStatusCode.OK);
        var draft = await TextAsync();
        draft.GetProperty("address").ValueKind.ShouldBe(JsonValueKind.Null);
        draft.GetProperty("text").GetString()!.ShouldNotContain("/times/");
        await (await ada.PostAsync($"/api/links/{id}/out", new { })).ReadAsync(HttpStatusCode.OK);
        (await TextAsync()).GetProperty("address").GetString()!.ShouldContain("/times/");
    }

    [Fact]
    public async Task A_link_is_made_and_goes_out_at_once_or_nothing_is_kept()
    {
        var ada = await world.SignUpAsync();
        async Task<IEnumerable<string>> RefusedAsync(Action<LinkDraft> change) =>
            (await (await ada.PostAsync("/api/links?out=true", ada.Link(change).Form())).FaultsAsync()).Keys;
        (await RefusedAsync(draft => draft.Picked = [])).ShouldBe(["times.offer.picked"]);
        (await RefusedAsync(draft => draft.EndsOn = "2026-12-01")).ShouldBe(["details.endsOn"]);
        (await RefusedAsync(draft => draft.Until = "2026-12-01")).ShouldBe(["times.offer.until"]);
        (await RefusedAsync(draft => draft.Durations = [1])).ShouldBe(["times.durations[0]"]);
        (await RefusedAsync(draft => draft.Notice = -5)).ShouldBe(["times.notice"]);
        (await ada.GetAsync("/api/links")).GetProperty("total").GetInt32().ShouldBe(0);

        var made = await (await ada.PostAsync("/api/links?out=true", ada.Link().Form())).ReadAsync(
            HttpStatusCode.Created
        );
        made.GetProperty("row").GetProperty("state").GetString().ShouldBe("out");
        made.GetProperty("row").GetProperty("outAt").ValueKind.ShouldBe(JsonValueKind.String);
    }

    [Fact]
    public async Task A_change_of_a_draft_that_cant_go_out_is_not_kept_either()
    {
        var ada = await world.SignUpAsync();
        var made = await ada.MakeLinkAsync();
        var id = made.GetProperty("row").GetProperty("id").GetGuid();
        var form = ada.Link(draft => (draft.Title, draft.Picked) = ("Another survey", [])).Form();
        var body = new { version = made.GetProperty("version").GetInt32(), form };
        (await (await ada.PutAsync($"/api/links/{id}?out=true", body)).FaultsAsync()).Keys.ShouldBe([
            "times.offer.picked",
        ]);
        var kept = await ada.GetAsync($"/api/links/{id}");
        kept.GetProperty("row").GetProperty("title").GetString().ShouldBe("Hull survey, Larkspur");
        kept.GetProperty("row").GetProperty("state").GetString().ShouldBe("draft");
    }
}
