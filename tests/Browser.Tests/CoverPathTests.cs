using System.Net;
using System.Net.Http.Json;

namespace Browser.Tests;

/// <summary>A host falls ill, and what a press did is taken back.</summary>
public sealed class CoverPathTests(Site site) : IClassFixture<Site>
{
    // One page whose bookings go to Sunniva as long as she is free.
    private const string MakePage = """
        const ask = (path, method, body, token) =>
          fetch(path, { method, body: body && JSON.stringify(body), headers: { 'content-type': 'application/json', 'X-Lantern-Token': token } });
        return (async () => {
          const { token } = await (await fetch('/api/token')).json();
          const hosts = await (await fetch('/api/hosts')).json();
          const idOf = (name) => hosts.find((host) => host.name === name).id;
          const { rows } = await (await fetch('/api/pages')).json();
          const { form } = await (await fetch('/api/pages/' + rows.find((page) => page.title === 'Hull survey on the slip').id)).json();
          Object.assign(form, { title: 'Rope check', address: 'rope-check', questions: [] });
          const hostIds = [idOf('Sunniva Dale'), idOf('Tomasz Reed'), idOf('Keziah Moon')];
          Object.assign(form.times, { durations: [60], step: 60, bufferBefore: 0, bufferAfter: 0, dailyCap: null, weeklyCap: null, blocks: null,
            lineUp: [{ hostIds, fill: 'inOrder', keeper: 'counts' }] });
          const made = await (await ask('/api/pages', 'POST', form, token)).json();
          return (await ask(`/api/pages/${made.id}/publish`, 'POST', { version: made.version }, token)).status + ' ' + made.path;
        })();
        """;

    [Fact]
    public async Task A_host_falls_ill_six_go_to_others_one_is_offered_anew_and_all_of_it_is_taken_back()
    {
        using var marit = new Chromium(site.Address);
        marit.SignInToDemo();
        marit.Open("/work/team");
        marit.AwaitText("Marit Oakes");
        var made = (string)marit.Ask(MakePage)!;
        made.ShouldStartWith("200 ");
        // At one on Tuesday the calendars of both who could take over are busy.
        string[] starts = ["14T09", "15T08", "15T09", "15T12", "15T13", "16T08", "16T09"];
        foreach (var (start, at) in starts.Select((start, at) => (start, at)))
            await BookAsync(made[4..], start, at);

        marit.Open("/work/team");
        marit.Type("Minutes that mail of what the team does waits", "1");
        marit.Press("Save workspace");
        marit.AwaitText("Saved.");

        marit.Press("Bookings");
        marit.Press("Find cover");
        marit.AwaitText("Nothing is done before you press the button.");
        marit.Choose("Who can’t come", "Sunniva Dale");
        marit.SetDate("From", "2026-12-14");
        marit.SetDate("To, included", "2026-12-17");
        marit.AwaitText("7 bookings: 6 stay at their time, 1 is offered new times.");
        marit.AwaitText("Tomasz Reed’s calendar is busy");
        marit.AwaitText("Letter 1 of 7, to Rope Guest 0");
        marit.AwaitText("Sunniva Dale can’t be there. Someone else takes over, and the time stays the same:");
        marit.AccessibilityFaults().ShouldBeEmpty();

        // One that is left as it is, and one line by hand.
        marit.Click(marit.Field("Find cover for Rope Guest 6"));
        marit.AwaitText("6 bookings: 5 stay at their time, 1 is offered new times.");
        marit.Click(marit.Field("Find cover for Rope Guest 6"));
        marit.AwaitText("7 bookings: 6 stay at their time, 1 is offered new times.");
        marit.Press("Offer new times: Rope Guest 0");
        marit.AwaitText("7 bookings: 5 stay at their time, 2 are offered new times.");
        marit.Press("Work it out again: Rope Guest 0");
        marit.AwaitText("7 bookings: 6 stay at their time, 1 is offered new times.");
        marit.Press("As it is");
        AwaitInLane(marit, "Sunniva Dale, Tuesday 15 December", "Rope Guest 1", isThere: true);
        AwaitInLane(marit, "Keziah Moon, Tuesday 15 December", "Rope Guest 1", isThere: false);
        marit.Press("As planned");
        AwaitInLane(marit, "Sunniva Dale, Tuesday 15 December", "Rope Guest 1", isThere: false);
        AwaitInLane(marit, "Keziah Moon, Tuesday 15 December", "Rope Guest 1", isThere: true);
        marit.Type("A word to all of them", "Sunniva is ill today.");
        marit.AwaitText("Sunniva is ill today.");
        marit.Press("Give 6 to others, offer 1 anew");
        marit.AwaitText("Done: 6 bookings went to others, 1 is offered new times.");
        marit.AwaitText("Found cover for Sunniva Dale: 6 went to others, 1 is offered new times.");
        // Taken back here, it is there again to be worked out, and to be done again.
        marit.Press("Take back");
        marit.AwaitText("Taken back. Nobody was told of it.");
        marit.AwaitText("7 bookings: 6 stay at their time, 1 is offered new times.");
        marit.Press("Give 6 to others, offer 1 anew");
        marit.AwaitText("Done: 6 bookings went to others, 1 is offered new times.");

        marit.Open("/work/bookings?search=Rope Guest");
        marit.AwaitText("6 of 6");
        marit.AccessibilityFaults().ShouldBeEmpty();
        marit.Press("Take back");
        marit.AwaitText("Taken back. Nobody was told of it.");
        marit.AwaitText("7 of 7");
        marit.Choose("Host", "Sunniva Dale");
        marit.AwaitText("7 of 7");
        marit.Open("/work/post");
        marit.AwaitText("Rope Guest 0");
        marit.AwaitNoText("new times");
    }

    [Fact]
    public void A_cancelled_booking_is_taken_back_where_it_was_done()
    {
        using var marit = new Chromium(site.Address);
        marit.SignInToDemo();
        marit.Open("/work/team");
        marit.Type("Minutes that mail of what the team does waits", "1");
        marit.Press("Save workspace");
        marit.AwaitText("Saved.");
        marit.Open("/work/bookings?search=Fergal");
        marit.Press("Fergal Mulhearn");
        marit.Press("Cancel");
        marit.Press("Cancel the booking");
        marit.AwaitText("Cancelled the booking of Fergal Mulhearn.");
        marit.AwaitText("mails wait.");
        // It is there on the next screen, and after a reload, too.
        marit.Open("/work/hours");
        marit.AwaitText("Cancelled the booking of Fergal Mulhearn.");
        marit.Press("Take back");
        marit.AwaitText("Taken back. Nobody was told of it.");
        marit.Open("/work/bookings?search=Fergal");
        marit.AwaitText("2 of 2");
    }

    private static void AwaitInLane(Chromium browser, string lane, string name, bool isThere) =>
        browser.Await(
            b =>
                b.Find($"[data-lane][aria-label='{lane}']").Text.Contains(name, StringComparison.Ordinal) == isThere
                    ? "so"
                    : null,
            $"{name} {(isThere ? "in" : "not in")} the lane of {lane}"
        );

    private async Task BookAsync(string page, string start, int at)
    {
        using var guest = new HttpClient { BaseAddress = new Uri(site.Address) };
        var path = page.Trim('/').Split('/');
        var answer = await guest.PostAsJsonAsync(
            $"/api/public/desks/{path[0]}/pages/{path[1]}/bookings",
            new
            {
                start = $"2026-12-{start}:00:00Z",
                duration = 60,
                zone = "Europe/Dublin",
                guest = new { name = $"Rope Guest {at}", email = $"rope{at}@guests.example" },
            }
        );
        answer.StatusCode.ShouldBe(HttpStatusCode.Created, $"{start} {await answer.Content.ReadAsStringAsync()}");
    }
}
