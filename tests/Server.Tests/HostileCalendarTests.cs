using Microsoft.EntityFrameworkCore;

namespace Server.Tests;

/// <summary>
/// Calendars that were written to do harm, or that we stumble over: nothing is freed, closed or silent.
/// </summary>
public sealed class HostileCalendarTests : IAsyncLifetime
{
    private const string Nine = "2026-12-08T08:00:00Z";
    private const string Ten = "2026-12-08T09:00:00Z";

    private OwnWorld? _own;

    private World World => _own!.World;

    public async ValueTask InitializeAsync() => _own = await OwnWorlds.TakeAsync();

    public async ValueTask DisposeAsync()
    {
        if (_own is not null)
            await _own.DisposeAsync();
    }

    [Fact]
    public async Task An_invitation_that_asks_for_too_much_neither_frees_nor_closes_a_host_and_is_told_with_its_title()
    {
        await using var scene = await WritingScene.MakeAsync(World);
        scene.Server.Objects["/cal/odd/a.ics"] = Outside.Event(
            "a",
            "19700101T000000Z",
            "19700101T000001Z",
            "Free lunch",
            "RRULE:FREQ=SECONDLY\r\n"
        );
        scene.Server.Objects["/cal/odd/b.ics"] = Outside.Event("b", "20261208T080000Z", "20261208T083000Z");
        await scene.LookOnAsync();

        var starts = await scene.StartsAsync();
        starts.ShouldNotContain(Nine);
        starts.ShouldContain(Ten);
        var listed = (await scene.Ada.CalendarAsync(scene.Calendar)).GetProperty("unread").EnumerateArray().Single();
        listed.ShouldSatisfyAllConditions(
            () => listed.GetProperty("title").GetString().ShouldBe("Free lunch"),
            () => listed.GetProperty("isPartly").GetBoolean().ShouldBeTrue(),
            () => listed.GetProperty("fault").GetString().ShouldNotBeNullOrEmpty()
        );
    }

    [Fact]
    public async Task So_many_events_that_nobody_could_read_are_counted_and_not_listed_one_by_one()
    {
        await using var scene = await WritingScene.MakeAsync(World);
        for (var n = 0; n < 2; n++)
            scene.Server.Objects[$"/cal/odd/{n}.ics"] =
                "BEGIN:VCALENDAR\r\nVERSION:2.0\r\n"
                + string.Concat(Enumerable.Repeat("BEGIN:VEVENT\r\nSUMMARY:None\r\nEND:VEVENT\r\n", 300))
                + "END:VCALENDAR\r\n";
        await scene.LookOnAsync();

        var listed = (await scene.Ada.CalendarAsync(scene.Calendar)).GetProperty("unread").EnumerateArray().ToList();
        listed.Count.ShouldBe(201);
        listed.ShouldContain(each => each.GetProperty("title").GetString() == "400 more");
    }

    [Theory]
    [InlineData("x", 198, "\U0001F9ED tea")]
    [InlineData("x", 197, "\U0001F468\u200D\U0001F469\u200D\U0001F467 tea")]
    public async Task A_title_that_can_be_cut_only_in_the_middle_of_a_character_is_read(
        string letter,
        int times,
        string then
    )
    {
        await using var scene = await WritingScene.MakeAsync(World);
        scene.Server.Objects["/cal/odd/x.ics"] = Outside.Event(
            "x",
            "20261208T080000Z",
            "20261208T083000Z",
            string.Concat(Enumerable.Repeat(letter, times)) + then
        );
        await scene.LookOnAsync();
        (await scene.StartsAsync()).ShouldNotContain(Nine);
    }

    [Fact]
    public async Task Whatever_goes_wrong_in_a_look_is_told_with_since_when_and_what_was_read_last_counts()
    {
        await using var scene = await WritingScene.MakeAsync(World);
        scene.Server.Objects["/cal/odd/x.ics"] = Outside.Event("x", "20261208T080000Z", "20261208T083000Z");
        await scene.LookOnAsync();
        await World.WithinAsync(scene.Workspace, db =>
            db.Database.ExecuteSqlAsync(
                $"ALTER TABLE calendar_entries ADD CONSTRAINT cannot_be_kept CHECK (title <> 'Cannot be kept')"
            )
        );
        try
        {
            scene.Server.Objects["/cal/odd/x.ics"] = Outside.Event(
                "x",
                "20261208T090000Z",
                "20261208T093000Z",
                "Cannot be kept"
            );
            World.Clock.AdvanceMinutes(1);
            await Outside.AwaitAsync(
                async () =>
                    (await scene.Ada.CalendarAsync(scene.Calendar)).GetProperty("unreachableSince").ValueKind
                    == JsonValueKind.String,
                "the look that fails"
            );
            (await scene.Ada.CalendarAsync(scene.Calendar))
                .GetProperty("fault")
                .GetString()!
                .ShouldContain("can’t be kept");
            var starts = await scene.StartsAsync();
            starts.ShouldNotContain(Nine);
            starts.ShouldContain(Ten);

            // Past the hours that the workspace waits it closes its host, as any calendar out of reach does.
            World.Clock.Advance(Duration.FromHours(24));
            (await scene.Ada.Http.StartsAsync(scene.Ada.Desk, scene.Page, "2026-12-09", "2026-12-09")).ShouldBeEmpty();
        }
        finally
        {
            await World.WithinAsync(scene.Workspace, db =>
                db.Database.ExecuteSqlAsync($"ALTER TABLE calendar_entries DROP CONSTRAINT cannot_be_kept")
            );
        }
    }
}
