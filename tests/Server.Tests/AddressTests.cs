using System.Text;
using Microsoft.AspNetCore.Http;
using Microsoft.EntityFrameworkCore;

namespace Server.Tests;

/// <summary>Calendars at addresses, on servers that nobody can trust.</summary>
public sealed class AddressTests(World world)
{
    private const string Nine = "2026-12-08T08:00:00Z";

    private static readonly string Busy = Outside.Event("a", "20261208T080000Z", "20261208T083000Z");

    [Fact]
    public async Task A_calendar_is_fetched_again_only_where_it_changed_and_as_seldom_as_its_publisher_asks()
    {
        await using var server = await OddServer.StartAsync();
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync();
        var (text, tag, unchanged) = (
            Busy.Replace("VERSION", "NAME:Regatta\r\nREFRESH-INTERVAL;VALUE=DURATION:PT2H\r\nVERSION"),
            "\"one\"",
            0
        );
        server.Answer = context =>
        {
            if (context.Request.Headers.IfNoneMatch == tag)
            {
                unchanged++;
                context.Response.StatusCode = 304;
                return Task.CompletedTask;
            }

            context.Response.Headers.ETag = tag;
            return OddServer.CalendarAsync(context, text);
        };

        var calendar = await ada.JoinAddressAsync(server.Address + "/secret-part.ics");
        var view = await ada.CalendarAsync(calendar);
        view.GetProperty("name").GetString().ShouldBe("Regatta");
        view.GetProperty("refreshSeconds").GetInt32().ShouldBe(7200);
        view.ToString().ShouldNotContain("secret-part");
        (await StartsAsync(ada, page)).ShouldNotContain(Nine);

        var workspace = await world.WorkspaceOfAsync(ada.Desk);
        (await world.LookOnAsync(workspace, calendar)).ShouldBeTrue();
        unchanged.ShouldBe(1);
        (
            await world.LookAsync(db => db.Calendars.IgnoreQueryFilters().SingleAsync(row => row.Id == calendar))
        ).NextLookAt.ShouldBe(World.Now + Duration.FromHours(2));

        (text, tag) = (Busy.Replace("T080000Z", "T090000Z").Replace("T083000Z", "T093000Z"), "\"two\"");
        (await world.LookOnAsync(workspace, calendar)).ShouldBeTrue();
        (await StartsAsync(ada, page)).ShouldContain(Nine);
    }

    [Theory]
    [InlineData("http://127.0.0.2:9/a.ics")]
    [InlineData("http://10.1.2.3/a.ics")]
    [InlineData("http://192.168.0.1/a.ics")]
    [InlineData("http://169.254.169.254/latest/meta-data")]
    [InlineData("http://[::1]:80/a.ics")]
    [InlineData("http://[::ffff:10.0.0.1]/a.ics")]
    [InlineData("http://[::ffff:8.8.8.8]/a.ics")]
    [InlineData("http://[::8.8.8.8]/a.ics")]
    [InlineData("http://[2002:808:808::1]/a.ics")]
    [InlineData("http://[64:ff9b::808:808]/a.ics")]
    [InlineData("http://[fec0::1]/a.ics")]
    [InlineData("http://[::]/a.ics")]
    [InlineData("http://[fd00::1]/a.ics")]
    [InlineData("http://0.0.0.0/a.ics")]
    [InlineData("http://2130706434/a.ics")]
    public async Task An_address_inside_the_network_is_refused(string address)
    {
        var ada = await world.SignUpAsync();
        (
            await (
                await ada.PostAsync("/api/calendars/address", new { @for = new { hostId = ada.HostId }, address })
            ).FaultsAsync()
        )["address"]
            .ShouldContain("inside a private network");
        (
            await (
                await ada.PostAsync(
                    "/api/calendars/account/find",
                    new
                    {
                        server = address,
                        userName = "x",
                        password = "y",
                    }
                )
            ).FaultsAsync()
        ).Values.Single().ShouldMatch("inside a private network|by http");
    }

    [Fact]
    public async Task A_redirection_inside_is_refused_one_elsewhere_is_followed_and_none_goes_on_for_ever()
    {
        await using var server = await OddServer.StartAsync();
        await using var other = await OddServer.StartAsync();
        var ada = await world.SignUpAsync();
        server.Answer = context =>
        {
            context.Response.StatusCode = 302;
            context.Response.Headers.Location = context.Request.Path.Value switch
            {
                "/inside.ics" => "http://127.0.0.2:81/a.ics",
                "/file.ics" => "file:///etc/passwd",
                "/round.ics" => "/round.ics",
                _ => other.Address + "/there.ics",
            };
            return Task.CompletedTask;
        };
        other.Answer = context => OddServer.CalendarAsync(context, Busy);

        (await FaultAsync(ada, server.Address + "/inside.ics")).ShouldContain("inside a private network");
        (await FaultAsync(ada, server.Address + "/file.ics")).ShouldContain("no web address");
        (await FaultAsync(ada, server.Address + "/round.ics")).ShouldContain("on and on");
        await ada.JoinAddressAsync(server.Address + "/elsewhere.ics");
        // A password is for one server alone.
        (
            await FaultAsync(ada, server.Address.Replace("http://", "http://ada:pass@") + "/elsewhere.ics")
        ).ShouldContain("sends on to " + other.Address);
        other.Asked.Count.ShouldBe(1);
    }

    [Fact]
    public async Task What_is_too_large_hangs_breaks_off_or_is_no_calendar_is_told_and_what_was_known_still_counts()
    {
        await using var server = await OddServer.StartAsync();
        var ada = await world.SignUpAsync();
        var page = await ada.PublishAsync();
        var path = "/good";
        server.Answer = context => AnswerAsync(context, path);
        var calendar = await ada.JoinAddressAsync(server.Address + "/a.ics");

        foreach (
            var (odd, words) in new[]
            {
                ("/declared-40-mb", "more than 5 MB"),
                ("/endless", "more than 5 MB"),
                ("/hangs", "did not answer within 5 seconds"),
                ("/hangs-midway", "did not answer within 5 seconds"),
                ("/dies-midway", "broke off"),
                ("/page", "is no calendar"),
                ("/trouble", "trouble of its own (503)"),
                ("/gone", "nothing at this address"),
            }
        )
        {
            path = odd;
            var view = await ada.LookAsync(calendar);
            view.GetProperty("fault").GetString()!.ShouldContain(words, customMessage: odd);
            view.GetProperty("unreachableSince").GetString().ShouldBe("2026-12-07T07:00:00Z");
            view.GetProperty("closesAt").GetString().ShouldBe("2026-12-08T07:00:00Z");
            (await StartsAsync(ada, page)).ShouldNotContain(Nine, odd);
            (await FaultAsync(ada, server.Address + "/b.ics")).ShouldContain(words);
        }

        // Each try that failed is waited for longer.
        var row = await world.LookAsync(db => db.Calendars.IgnoreQueryFilters().SingleAsync(one => one.Id == calendar));
        row.Attempts.ShouldBe(8);
        row.NextLookAt.ShouldBe(World.Now + Duration.FromMinutes(15));

        path = "/good";
        (await ada.LookAsync(calendar)).GetProperty("unreachableSince").ValueKind.ShouldBe(JsonValueKind.Null);
    }

    [Fact]
    public async Task An_event_that_comes_without_end_is_listed_and_so_are_too_many_and_a_file_of_40_MB_is_refused()
    {
        await using var server = await OddServer.StartAsync();
        var ada = await world.SignUpAsync();
        server.Answer = context =>
            OddServer.CalendarAsync(
                context,
                context.Request.Path.Value!.Contains("many", StringComparison.Ordinal)
                    ? $"BEGIN:VCALENDAR\r\n{string.Concat(Enumerable.Range(0, 12).Select(n => $"BEGIN:VEVENT\r\nUID:{n}\r\nDTSTART:20261201T000000Z\r\nDTEND:20261201T000100Z\r\nRRULE:FREQ=HOURLY\r\nEND:VEVENT\r\n"))}END:VCALENDAR\r\n"
                    : Outside.Event("e", "20261201T000000Z", "20261201T000030Z", more: "RRULE:FREQ=MINUTELY\r\n")
            );

        var endless = await ada.CalendarAsync(await ada.JoinAddressAsync(server.Address + "/endless.ics"));
        endless.GetProperty("unread")[0].GetProperty("isPartly").GetBoolean().ShouldBeTrue();
        // Of many that together are more than is kept, each that is cut is listed, and what was found counts.
        var many = await ada.CalendarAsync(await ada.JoinAddressAsync(server.Address + "/many.ics"));
        many.GetProperty("unread").GetArrayLength().ShouldBeInRange(1, 12);
        many.GetProperty("entries").GetInt32().ShouldBeLessThanOrEqualTo(100_000);

        var large = Encoding.ASCII.GetBytes(Busy + new string('\n', 40 * 1024 * 1024));
        (
            await (
                await ada.UploadAsync(HttpMethod.Post, "/api/calendars", large, ("hostId", ada.HostId.ToString()))
            ).FaultsAsync()
        )["file"]
            .ShouldContain("5 MB");
        (await ada.GetAsync("/api/calendars")).EnumerateArray().Count().ShouldBe(3);
    }

    [Fact]
    public async Task Neither_address_nor_password_can_be_read_from_the_answers_or_the_database()
    {
        await using var server = await OddServer.StartAsync();
        server.Answer = context => OddServer.CalendarAsync(context, Busy);
        server.Password = "under the third plank";
        var ada = await world.SignUpAsync();
        await ada.JoinAddressAsync(server.Address + "/whoever-knows-this.ics");
        await ada.JoinAccountAsync(server.Account(), "Odd");

        var answer = (await ada.GetAsync("/api/calendars")).ToString();
        answer.ShouldNotContain("whoever-knows-this");
        answer.ShouldNotContain("plank");
        var kept = await world.LookAsync(async db =>
            string.Join(
                ' ',
                await db
                    .Database.SqlQuery<string>(
                        $"SELECT row_to_json(c)::text || coalesce(row_to_json(a)::text, '') AS \"Value\" FROM calendars c LEFT JOIN calendar_accounts a ON a.id = c.account_id"
                    )
                    .ToListAsync()
            )
        );
        kept.ShouldContain("protected_address");
        kept.ShouldNotContain("whoever-knows-this");
        kept.ShouldNotContain("plank");
    }

    private static async Task AnswerAsync(HttpContext context, string path)
    {
        switch (path)
        {
            case "/good":
                await OddServer.CalendarAsync(context, Busy);
                break;
            case "/declared-40-mb":
                context.Response.ContentLength = 40 * 1024 * 1024;
                await context.Response.StartAsync();
                break;
            case "/endless":
                while (!context.RequestAborted.IsCancellationRequested)
                    await context.Response.WriteAsync(new string(' ', 64 * 1024), context.RequestAborted);
                break;
            case "/hangs":
                await Task.Delay(Timeout.Infinite, context.RequestAborted)
                    .ContinueWith(_ => { }, TaskScheduler.Default);
                break;
            case "/hangs-midway":
                await context.Response.WriteAsync("BEGIN:VCALENDAR\r\n");
                await Task.Delay(Timeout.Infinite, context.RequestAborted)
                    .ContinueWith(_ => { }, TaskScheduler.Default);
                break;
            case "/dies-midway":
                context.Response.ContentLength = Busy.Length;
                await context.Response.WriteAsync(Busy[..40]);
                await context.Response.Body.FlushAsync();
                context.Abort();
                break;
            case "/page":
                await context.Response.WriteAsync("<!doctype html><p>Sign in");
                break;
            default:
                context.Response.StatusCode = path == "/trouble" ? 503 : 404;
                break;
        }
    }

    private static async Task<string> FaultAsync(Coordinator who, string address) =>
        (
            await (
                await who.PostAsync("/api/calendars/address", new { @for = new { hostId = who.HostId }, address })
            ).FaultsAsync()
        )["address"];

    private static Task<string[]> StartsAsync(Coordinator who, string page) =>
        who.Http.StartsAsync(who.Desk, page, "2026-12-08", "2026-12-08");
}
