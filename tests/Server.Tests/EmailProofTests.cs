using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Bookings;
using LooseLantern.Server.Features.Guests;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;

namespace Server.Tests;

/// <summary>An address that has to be proven before anything is reserved, and what is counted of guests.</summary>
public class EmailProofTests(World world)
{
    private static readonly PageDetails Proven = PageDetails.Usual with
    {
        After = new Afterwards("", "", OffersAnother: false, ProvesEmail: true),
    };

    [Fact]
    public async Task Nothing_is_reserved_until_the_code_that_was_mailed_is_typed()
    {
        var (ada, page) = await PageAsync();
        var needed = await (await BookAsync(ada, page)).ReadAsync(HttpStatusCode.UnprocessableEntity);
        needed.GetProperty("type").GetString().ShouldBe("urn:loose-lantern:code-needed");
        (await ada.GetAsync("/api/bookings")).GetProperty("rows").GetArrayLength().ShouldBe(0);
        var code = (await CodesAsync(ada)).ShouldHaveSingleItem();

        (await (await BookAsync(ada, page, Other(code))).FaultsAsync()).Keys.ShouldBe(["code"]);
        (await BookAsync(ada, page, code)).StatusCode.ShouldBe(HttpStatusCode.Created);
        // The team reads that a code went out, and not which.
        (await ada.GetAsync("/api/post")).GetRawText().ShouldNotContain(code);
    }

    [Fact]
    public async Task A_code_counts_for_its_address_and_page_alone()
    {
        var (ada, page) = await PageAsync();
        await BookAsync(ada, page);
        var code = (await CodesAsync(ada))[0];
        (await BookAsync(ada, page, code, "somebody@else.example")).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        var other = await ada.PublishAsync(draft => draft.Details = Proven);
        (await BookAsync(ada, other, code)).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await BookAsync(ada, page, code, "OTTILIE@wren.example")).StatusCode.ShouldBe(HttpStatusCode.Created);
    }

    [Fact]
    public async Task Codes_are_guessed_in_vain_also_many_at_once()
    {
        var (ada, page) = await PageAsync();
        await BookAsync(ada, page);
        var code = (await CodesAsync(ada))[0];
        var guesses = await Task.WhenAll(Enumerable.Range(0, 12).Select(_ => BookAsync(ada, page, Other(code))));
        guesses.ShouldAllBe(answer => answer.StatusCode == HttpStatusCode.BadRequest);
        (await (await BookAsync(ada, page, code)).FaultsAsync())["code"].ShouldStartWith("Too many wrong codes");
        // Nor is another one sent meanwhile.
        await BookAsync(ada, page);
        (await CodesAsync(ada)).Count.ShouldBe(1);
    }

    [Fact]
    public async Task Nobodys_box_is_filled_by_asking_again_and_again()
    {
        var (ada, page) = await PageAsync();
        await Task.WhenAll(Enumerable.Range(0, 8).Select(_ => BookAsync(ada, page)));
        (await CodesAsync(ada)).Count.ShouldBe(EmailProof.MostCodes);
        (await (await BookAsync(ada, page)).ReadAsync(HttpStatusCode.UnprocessableEntity))
            .GetProperty("title")
            .GetString()
            .ShouldBe("No other code is sent just now.");
    }

    [Fact]
    public async Task Looks_are_counted_by_week_and_part_of_the_day_and_by_nothing_else()
    {
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync();
        Task<HttpResponseMessage> LookAsync(string week, string? part = null, bool found = true) =>
            world
                .Guest()
                .PostAsJsonAsync(
                    $"/api/public/desks/{ada.Desk}/pages/{page}/looks",
                    new
                    {
                        week,
                        part,
                        found,
                    }
                );
        await Task.WhenAll(Enumerable.Range(0, 6).Select(_ => LookAsync("2026-12-09")));
        await LookAsync("2026-12-14", found: false);
        await LookAsync("2026-12-08", "morning");
        foreach (var beyond in new[] { "2031-01-01", "-9998-01-01" })
            (await (await LookAsync(beyond)).FaultsAsync()).Keys.ShouldBe(["week"]);

        var id = (await ada.PagesAsync())[0].GetProperty("id").GetGuid();
        var looks = await ada.GetAsync($"/api/pages/{id}/looks");
        looks
            .GetProperty("weeks")
            .EnumerateArray()
            .Select(week =>
                (
                    week.GetProperty("week").GetString(),
                    week.GetProperty("looks").GetInt32(),
                    week.GetProperty("inVain").GetInt32()
                )
            )
            .ShouldBe([("2026-12-07", 6, 0), ("2026-12-14", 1, 1)]);
        looks.GetProperty("parts").GetProperty("Morning").GetInt32().ShouldBe(1);
    }

    private static string Other(string code) => code == "000000" ? "111111" : "000000";

    private async Task<(Coordinator Ada, string Page)> PageAsync()
    {
        var ada = await world.SignUpAsync();
        return (ada, await ada.PublishAsync(draft => draft.Details = Proven));
    }

    private Task<HttpResponseMessage> BookAsync(
        Coordinator ada,
        string page,
        string? code = null,
        string email = "ottilie@wren.example"
    ) =>
        world
            .Guest()
            .PostAsJsonAsync(
                $"/api/public/desks/{ada.Desk}/pages/{page}/bookings",
                new
                {
                    start = "2026-12-08T08:00:00Z",
                    duration = 30,
                    zone = "Europe/Copenhagen",
                    guest = new { name = "Ottilie Wren", email },
                    answers = new { },
                    code,
                }
            );

    private async Task<List<string>> CodesAsync(Coordinator ada)
    {
        var workspace = await world.WorkspaceOfAsync(ada.Desk);
        var messages = await world.WithinAsync(workspace, db =>
            db.Messages.Where(message => message.Kind == MessageKind.CodeForGuest)
                .OrderBy(message => message.WrittenAt)
                .ToListAsync()
        );
        var links = world.App.Services.GetRequiredService<PrivateLinks>();
        return messages.ConvertAll(message => links.Reveal(message.ProtectedSecret!));
    }
}
