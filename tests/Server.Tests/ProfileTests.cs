using Microsoft.EntityFrameworkCore;
using SkiaSharp;

namespace Server.Tests;

/// <summary>What a person keeps about themselves, and how they sign in.</summary>
public class ProfileTests(World world)
{
    // A file may go on behind its picture, and tell there what nobody should know.
    private static readonly byte[] Png = [.. DeskTests.Png(300, 200), .. "where it was taken"u8];

    [Fact]
    public async Task A_profile_is_the_hosts_too()
    {
        var ada = await world.SignUpAsync();
        await (
            await ada.JoinCalendarAsync(
                "BEGIN:VCALENDAR\nBEGIN:VEVENT\nUID:f\nSUMMARY:Fair\nDTSTART;VALUE=DATE:20261211\nEND:VEVENT\nEND:VCALENDAR\n"
            )
        ).ReadAsync(HttpStatusCode.Created);
        await (
            await ada.PutAsync(
                "/api/me/profile",
                new
                {
                    name = "Ada Wharf-Lune",
                    line = "Sails and rigging",
                    zone = "Pacific/Auckland",
                    language = "da",
                    clock = "h12",
                }
            )
        ).ReadAsync(HttpStatusCode.OK);

        var me = await ada.GetAsync("/api/me");
        (
            me.GetProperty("clock").GetString(),
            me.GetProperty("zone").GetString(),
            me.GetProperty("workspaceZone").GetString()
        ).ShouldBe(("h12", "Pacific/Auckland", "Europe/Copenhagen"));
        (await ada.OwnHostAsync()).GetProperty("name").GetString().ShouldBe("Ada Wharf-Lune");
        // Her whole days are Auckland's now: 11 December there begins on the 10th, 11:00 UTC.
        var fair = (await ada.GetAsync("/api/board?from=2026-12-10&days=1"))
            .GetProperty("days")[0]
            .GetProperty("lanes")[0]
            .GetProperty("bars")
            .EnumerateArray()
            .Single(bar => bar.GetProperty("kind").GetString() == "busy");
        fair.GetProperty("start").GetString().ShouldBe("2026-12-10T11:00:00Z");
        (
            await (
                await ada.PutAsync(
                    "/api/me/profile",
                    new
                    {
                        name = " ",
                        line = "a\nb",
                        zone = "x",
                        language = "xx",
                        clock = "h24",
                    }
                )
            ).FaultsAsync()
        ).Keys.ShouldBe(["name", "line", "zone", "language"]);
    }

    [Fact]
    public async Task Two_who_save_at_one_moment_are_told_and_nothing_is_lost()
    {
        var ada = await world.SignUpAsync();
        var ct = TestContext.Current.CancellationToken;
        await using var other = new Npgsql.NpgsqlConnection(world.ConnectionString);
        await other.OpenAsync(ct);
        await using var change = await other.BeginTransactionAsync(ct);
        await RunAsync(
            $"UPDATE \"AspNetUsers\" SET line = 'Saved first', concurrency_stamp = 'another' WHERE id = '{ada.PersonId}'"
        );
        var saving = ada.PutAsync(
            "/api/me/profile",
            new
            {
                name = "Ada Wharf",
                line = "Saved second",
                zone = "Europe/Lisbon",
                language = "da",
                clock = "h12",
            }
        );
        await Outside.AwaitAsync(
            async () =>
                await RunAsync(
                    "SELECT EXISTS (SELECT 1 FROM pg_stat_activity WHERE pg_backend_pid() = ANY (pg_blocking_pids(pid)))"
                )
                    is true,
            "somebody who saves at the same moment"
        );
        await change.CommitAsync(ct);

        (await (await saving).ReadAsync(HttpStatusCode.Conflict))
            .GetProperty("type")
            .GetString()
            .ShouldBe("urn:loose-lantern:changed-meanwhile");
        (await ada.GetAsync("/api/me/profile")).GetProperty("line").GetString().ShouldBe("Saved first");

        async Task<object?> RunAsync(string sql)
        {
            await using var command = new Npgsql.NpgsqlCommand(sql, other);
            return await command.ExecuteScalarAsync(ct);
        }
    }

    [Fact]
    public async Task A_portrait_is_a_picture_by_its_bytes()
    {
        var ada = await world.SignUpAsync();
        await (await ada.UploadAsync(HttpMethod.Put, "/api/me/portrait", Png)).ReadAsync(HttpStatusCode.NoContent);
        var picture = await ada.Http.GetAsync($"/api/people/{ada.PersonId}/portrait");
        picture.Content.Headers.ContentType!.MediaType.ShouldBe("image/png");
        var bytes = await picture.Content.ReadAsByteArrayAsync();
        bytes.AsSpan().IndexOf("where it was taken"u8).ShouldBe(-1);
        using var shown = SKBitmap.Decode(bytes);
        (shown.Width, shown.Height).ShouldBe((256, 256));
        (await (await ada.UploadAsync(HttpMethod.Put, "/api/me/portrait", Png[..60])).FaultsAsync()).ShouldContainKey(
            "file"
        );
        (
            await (
                await ada.UploadAsync(HttpMethod.Put, "/api/me/portrait", "<svg onload=alert(1)>"u8.ToArray())
            ).FaultsAsync()
        )["file"]
            .ShouldContain("PNG");
        (await (await ada.UploadAsync(HttpMethod.Put, "/api/me/portrait", new byte[600 * 1024])).FaultsAsync())["file"]
            .ShouldContain("512 KB");

        var eve = await world.SignUpAsync();
        (await eve.Http.GetAsync($"/api/people/{ada.PersonId}/portrait")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        await (await ada.DeleteAsync("/api/me/portrait")).ReadAsync(HttpStatusCode.NoContent);
        (await ada.Http.GetAsync($"/api/people/{ada.PersonId}/portrait")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task Signing_out_there_ends_the_cookie_there_at_once()
    {
        var ada = await world.SignUpAsync();
        var phone = await SignInAsync(ada.Desk);
        var there = (await ada.GetAsync("/api/me/security"))
            .GetProperty("signIns")
            .EnumerateArray()
            .Single(row => !row.GetProperty("here").GetBoolean());
        (await phone.Http.GetAsync("/api/me")).StatusCode.ShouldBe(HttpStatusCode.OK);
        await (await ada.DeleteAsync($"/api/me/sign-ins/{there.GetProperty("id").GetGuid()}")).ReadAsync(
            HttpStatusCode.NoContent
        );
        (await phone.Http.GetAsync("/api/me")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (await ada.Http.GetAsync("/api/me")).StatusCode.ShouldBe(HttpStatusCode.OK);

        var eve = await world.SignUpAsync();
        var mine = (await ada.GetAsync("/api/me/security")).GetProperty("signIns")[0].GetProperty("id").GetGuid();
        (await eve.DeleteAsync($"/api/me/sign-ins/{mine}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        await (await ada.PostAsync("/api/sign-out", new { })).ReadAsync(HttpStatusCode.NoContent);
        (await ada.Http.GetAsync("/api/me")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
    }

    [Fact]
    public async Task A_place_whose_cookie_has_run_out_is_not_listed()
    {
        var ada = await world.SignUpAsync();
        await SignInAsync(ada.Desk);
        (await ada.GetAsync("/api/me/security")).GetProperty("signIns").GetArrayLength().ShouldBe(2);
        var there = (await ada.GetAsync("/api/me/security"))
            .GetProperty("signIns")
            .EnumerateArray()
            .Single(row => !row.GetProperty("here").GetBoolean())
            .GetProperty("id")
            .GetGuid();
        await world.WithinAsync(await world.WorkspaceOfAsync(ada.Desk), db =>
            db.SignedIn.Where(row => row.Id == there)
                .ExecuteUpdateAsync(row => row.SetProperty(seen => seen.SeenAt, World.Now - Duration.FromDays(15)))
        );
        (await ada.GetAsync("/api/me/security")).GetProperty("signIns").GetArrayLength().ShouldBe(1);
    }

    [Fact]
    public async Task A_new_password_signs_out_everywhere_else()
    {
        var ada = await world.SignUpAsync();
        var phone = await SignInAsync(ada.Desk);
        (
            await (
                await ada.PutAsync(
                    "/api/me/password",
                    new { password = "wrong", newPassword = "seven ropes and a gull" }
                )
            ).FaultsAsync()
        ).Keys.ShouldBe(["password"]);
        (
            await (
                await ada.PutAsync(
                    "/api/me/password",
                    new { password = "harbour at first light", newPassword = "short" }
                )
            ).FaultsAsync()
        ).Keys.ShouldBe(["newPassword"]);
        await (
            await ada.PutAsync(
                "/api/me/password",
                new { password = "harbour at first light", newPassword = "seven ropes and a gull" }
            )
        ).ReadAsync(HttpStatusCode.NoContent);
        (await phone.Http.GetAsync("/api/me")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (await ada.Http.GetAsync("/api/me")).StatusCode.ShouldBe(HttpStatusCode.OK);
        await SignInAsync(ada.Desk, "seven ropes and a gull");
    }

    [Fact]
    public async Task A_second_factor_is_asked_for_and_each_code_lets_in_once()
    {
        var ada = await world.SignUpAsync();
        (
            await (await ada.PostAsync("/api/me/second-factor/start", new { password = "wrong" })).FaultsAsync()
        ).Keys.ShouldBe(["password"]);
        var started = await (
            await ada.PostAsync("/api/me/second-factor/start", new { password = "harbour at first light" })
        ).ReadAsync(HttpStatusCode.OK);
        started.GetProperty("uri").GetString()!.ShouldStartWith("otpauth://totp/");
        (await ada.GetAsync("/api/me/security")).GetProperty("secondFactor").GetBoolean().ShouldBeFalse();
        (
            await (await ada.PostAsync("/api/me/second-factor/confirm", new { code = "000000" })).FaultsAsync()
        ).Keys.ShouldBe(["code"]);
        var key = started.GetProperty("key").GetString()!;
        var (first, second) = (Totp.Code(key, 0), Totp.Code(key, 1));
        var codes = (
            await (await ada.PostAsync("/api/me/second-factor/confirm", new { code = first })).ReadAsync(
                HttpStatusCode.OK
            )
        ).GetProperty("codes");
        codes.GetArrayLength().ShouldBe(10);

        (await TryAsync(ada.Desk, null)).ShouldBe("urn:loose-lantern:code-needed");
        // The one that confirmed has been used.
        (await TryAsync(ada.Desk, first)).ShouldBe("urn:loose-lantern:code-wrong");
        (await TryAsync(ada.Desk, second)).ShouldBeNull();
        (await TryAsync(ada.Desk, first)).ShouldBe("urn:loose-lantern:code-wrong");
        (await TryAsync(ada.Desk, codes[0].GetString())).ShouldBeNull();
        (await TryAsync(ada.Desk, codes[0].GetString())).ShouldBe("urn:loose-lantern:code-wrong");
        (await ada.GetAsync("/api/me/security")).GetProperty("recoveryCodes").GetInt32().ShouldBe(9);
        (
            await world.LookAsync(db =>
                Task.FromResult(
                    db.UserTokens.Where(token => token.UserId == ada.PersonId).Select(token => token.Value).ToList()
                )
            )
        ).ShouldAllBe(value => !value!.Contains(key));

        await (await ada.PostAsync("/api/me/second-factor/end", new { password = "harbour at first light" })).ReadAsync(
            HttpStatusCode.NoContent
        );
        (await TryAsync(ada.Desk, null)).ShouldBeNull();
    }

    [Fact]
    public async Task Wrong_codes_close_the_sign_in_like_wrong_passwords()
    {
        var ada = await world.SignUpAsync();
        var key = (
            await (
                await ada.PostAsync("/api/me/second-factor/start", new { password = "harbour at first light" })
            ).ReadAsync(HttpStatusCode.OK)
        )
            .GetProperty("key")
            .GetString()!;
        await (await ada.PostAsync("/api/me/second-factor/confirm", new { code = Totp.Code(key, 0) })).ReadAsync(
            HttpStatusCode.OK
        );
        for (var i = 0; i < 8; i++)
            await TryAsync(ada.Desk, "123");
        (await TryAsync(ada.Desk, Totp.Code(key, 1))).ShouldBe("urn:loose-lantern:locked");
    }

    [Fact]
    public async Task Usual_settings_come_from_the_nearest_who_chose()
    {
        var scene = await Scene.MakeAsync(world);
        var usual = await scene.Owner.GetAsync("/api/usual");
        (
            usual.GetProperty("now").GetProperty("duration").GetInt32(),
            usual.GetProperty("sources").GetProperty("duration").GetString()
        ).ShouldBe((30, "product"));

        await (await scene.Owner.PutAsync("/api/workspace/usual", Scene.Usual(duration: 45))).ReadAsync(
            HttpStatusCode.OK
        );
        var bo = await scene.JoinAsync(isCoordinator: true);
        (await DurationAsync(bo)).ShouldBe((45, "workspace"));
        await (await bo.PutAsync("/api/me/usual", Scene.Usual(duration: 20))).ReadAsync(HttpStatusCode.OK);
        (await DurationAsync(bo)).ShouldBe((20, "person"));
        (await DurationAsync(scene.Owner)).ShouldBe((45, "workspace"));

        var bad = new
        {
            duration = 1,
            bufferBefore = -1,
            bufferAfter = 0,
            notice = 0,
            placeKind = "inPerson",
            place = "a\nb",
            reminders = new[] { 60, 60 },
            language = "xx",
            clock = "h24",
        };
        (await (await bo.PutAsync("/api/me/usual", bad)).FaultsAsync()).Keys.ShouldBe([
            "duration",
            "bufferBefore",
            "place",
            "reminders",
            "language",
        ]);
        (await DurationAsync(bo)).ShouldBe((20, "person"));
    }

    [Fact]
    public async Task The_first_run_can_be_left_and_taken_up_again()
    {
        var ada = await world.SignUpAsync();
        (await StepsAsync(ada)).ShouldBe("zone: no, hours: no, calendar: no, page: no");
        await (await ada.PostAsync("/api/first-run/steps/zone", new { })).ReadAsync(HttpStatusCode.OK);
        await (await ada.JoinCalendarAsync(Scene.EmptyCalendar)).ReadAsync(HttpStatusCode.Created);
        (await StepsAsync(ada)).ShouldBe("zone: yes, hours: no, calendar: yes, page: no");
        (await ada.GetAsync("/api/me")).GetProperty("firstRun").GetBoolean().ShouldBeTrue();
        await ada.PublishAsync();
        (await StepsAsync(ada)).ShouldBe("zone: yes, hours: no, calendar: yes, page: yes");
        await (await ada.PostAsync("/api/first-run/end", new { })).ReadAsync(HttpStatusCode.NoContent);
        (await ada.GetAsync("/api/me")).GetProperty("firstRun").GetBoolean().ShouldBeFalse();
        (await ada.PostAsync("/api/first-run/steps/nowhere", new { })).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task A_desks_address_is_checked_with_free_ones_beside_it()
    {
        var ada = await world.SignUpAsync();
        var taken = await world.Guest().GetFromJsonAsync<JsonElement>($"/api/sign-up/desk-address?address={ada.Desk}");
        taken.GetProperty("free").GetBoolean().ShouldBeFalse();
        var offers = taken.GetProperty("offers").EnumerateArray().Select(offer => offer.GetString()!).ToList();
        offers.Count.ShouldBe(3);
        foreach (var offer in offers)
            (await world.Guest().GetFromJsonAsync<JsonElement>($"/api/sign-up/desk-address?address={offer}"))
                .GetProperty("free")
                .GetBoolean()
                .ShouldBeTrue(offer);
        (await world.Guest().GetFromJsonAsync<JsonElement>("/api/sign-up/desk-address?address=work"))
            .GetProperty("free")
            .GetBoolean()
            .ShouldBeFalse();
        (await world.Guest().GetFromJsonAsync<JsonElement>("/api/sign-up/desk-address?address=No%20Spaces"))
            .GetProperty("mend")
            .GetString()!
            .ShouldContain("small letters");
    }

    private static async Task<string> StepsAsync(Coordinator who) =>
        string.Join(
            ", ",
            (await who.GetAsync("/api/first-run"))
                .GetProperty("steps")
                .EnumerateArray()
                .Select(step =>
                    $"{step.GetProperty("step").GetString()}: {(step.GetProperty("done").GetBoolean() ? "yes" : "no")}"
                )
        );

    private static async Task<(int, string?)> DurationAsync(Coordinator who)
    {
        var usual = await who.GetAsync("/api/usual");
        return (
            usual.GetProperty("now").GetProperty("duration").GetInt32(),
            usual.GetProperty("sources").GetProperty("duration").GetString()
        );
    }

    private async Task<Coordinator> SignInAsync(string desk, string password = "harbour at first light")
    {
        var browser = new Coordinator(world.Browser(), desk);
        (await browser.PostAsync("/api/sign-in", new { email = $"ada@{desk}.example", password })).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );
        browser.ForgetToken();
        return browser;
    }

    /// <summary>The type of the problem that signing in meets, or null where it lets in.</summary>
    private async Task<string?> TryAsync(string desk, string? code)
    {
        var answer = await new Coordinator(world.Browser(), desk).PostAsync(
            "/api/sign-in",
            new
            {
                email = $"ada@{desk}.example",
                password = "harbour at first light",
                code,
            }
        );
        return answer.IsSuccessStatusCode
            ? null
            : (await answer.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("type").GetString();
    }
}
