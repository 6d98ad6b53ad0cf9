using LooseLantern.Core.Questions;
using LooseLantern.Server.Data.Model;
using Microsoft.EntityFrameworkCore;

namespace Server.Tests;

/// <summary>What a page asks, and what its guests answer.</summary>
public sealed class QuestionTests(World world)
{
    private static readonly Question Length = new(
        "length",
        QuestionKind.Number,
        "How long is she?",
        "",
        IsNeeded: true,
        [],
        ""
    );
    private static readonly Question Wood = new(
        "wood",
        QuestionKind.SomeOf,
        "Of what wood?",
        "",
        IsNeeded: false,
        ["oak", "larch", "teak"],
        ""
    );
    private static readonly Question Terms = new(
        "terms",
        QuestionKind.Consent,
        "The yard’s terms",
        "",
        IsNeeded: true,
        [],
        "https://yard.example/terms"
    );

    [Fact]
    public async Task Answers_stand_in_the_booking_the_hosts_mail_and_the_private_link_where_they_can_be_changed()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync(draft => draft.Questions = [Length, Wood, Terms]);
        var asked = await world.Guest().GetFromJsonAsync<JsonElement>($"/api/public/desks/{ada.Desk}/pages/{page}");
        asked
            .GetProperty("questions")
            .EnumerateArray()
            .Select(question => question.GetProperty("key").GetString())
            .ShouldBe(["length", "wood", "terms"]);

        (await (await BookAsync(ada, page, new { wood = "pine", colour = "red" })).FaultsAsync())
            .Keys.Order()
            .ShouldBe(["answers.colour", "answers.length", "answers.terms", "answers.wood"]);
        (await ada.GetAsync("/api/bookings")).GetProperty("total").GetInt32().ShouldBe(0);
        var made = await (
            await BookAsync(
                ada,
                page,
                new
                {
                    length = " 9.5 ",
                    wood = "teak\noak",
                    terms = "yes",
                }
            )
        ).ReadAsync(HttpStatusCode.Created);

        var id = (await ada.GetAsync("/api/bookings")).GetProperty("rows")[0].GetProperty("id").GetGuid();
        (await TextsAsync(ada, id)).ShouldBe([
            "How long is she?=9.5",
            "Of what wood?=oak\nteak",
            "The yard’s terms=yes",
        ]);
        var workspace = await world.WorkspaceOfAsync(ada.Desk);
        (
            await world.WithinAsync(workspace, db =>
                db.Messages.SingleAsync(row => row.Kind == MessageKind.BookedForHost)
            )
        ).Text.ShouldContain("How long is she? 9.5\nOf what wood? oak, teak");

        var path = "/api/public" + made.GetProperty("path").GetString()!.Replace("/booking/", "/bookings/");
        (
            await (
                await world
                    .Guest()
                    .PutAsJsonAsync(path + "/answers", new { answers = new { length = "long", terms = "yes" } })
            ).FaultsAsync()
        ).Keys.ShouldBe(["answers.length"]);
        await (
            await world
                .Guest()
                .PutAsJsonAsync(path + "/answers", new { answers = new { length = "11", terms = "yes" } })
        ).ReadAsync(HttpStatusCode.NoContent);
        (await TextsAsync(ada, id)).ShouldBe(["How long is she?=11", "The yard’s terms=yes"]);
        await (await world.Guest().PostAsJsonAsync(path + "/cancel", new { word = "" })).ReadAsync(
            HttpStatusCode.NoContent
        );
        (
            await world
                .Guest()
                .PutAsJsonAsync(path + "/answers", new { answers = new { length = "12", terms = "yes" } })
        ).StatusCode.ShouldBe(HttpStatusCode.Conflict);
    }

    [Fact]
    public async Task A_question_that_can_not_be_answered_is_refused_by_its_place()
    {
        var ada = await world.SignUpAsync();
        async Task<IEnumerable<string>> TryAsync(params Question[] questions) =>
            (
                await (
                    await ada.PostAsync("/api/pages", ada.Draft(draft => draft.Questions = questions).Form())
                ).FaultsAsync()
            ).Keys;
        (await TryAsync(Length, Wood with { Options = ["oak", " "] })).ShouldBe(["questions[1].options"]);
        (await TryAsync(Length with { Words = " " })).ShouldBe(["questions[0].words"]);
        (await TryAsync(Terms with { Address = "javascript:alert(1)" })).ShouldBe(["questions[0].address"]);
        (await TryAsync(Length, null!)).ShouldBe(["questions"]);
        (await TryAsync(Length, Length)).ShouldBe(["questions"]);
        (await TryAsync([.. Enumerable.Range(0, 26).Select(i => Length with { Key = $"q{i}" })])).ShouldBe([
            "questions",
        ]);
        (await TryAsync(Length with { Key = "a key" })).ShouldBe(["questions[0].key"]);
        (await TryAsync(Length with { Key = LooseLantern.Server.Features.Guests.GuestQuestions.Number })).ShouldBe([
            "questions[0].key",
        ]);
    }

    private async Task<List<string>> TextsAsync(Coordinator ada, Guid id) =>
        [
            .. (await ada.GetAsync($"/api/bookings/{id}"))
                .GetProperty("answers")
                .EnumerateArray()
                .Select(answer =>
                    $"{answer.GetProperty("words").GetString()}={answer.GetProperty("text").GetString()}"
                ),
        ];

    private Task<HttpResponseMessage> BookAsync(Coordinator ada, string page, object answers) =>
        world
            .Guest()
            .PostAsJsonAsync(
                $"/api/public/desks/{ada.Desk}/pages/{page}/bookings",
                new
                {
                    start = "2026-12-08T08:00:00Z",
                    duration = 30,
                    zone = "Europe/Dublin",
                    guest = new { name = "Ottilie Wren", email = "ottilie@wren-charters.example" },
                    answers,
                }
            );
}
