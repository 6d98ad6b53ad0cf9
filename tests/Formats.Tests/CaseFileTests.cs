using System.Diagnostics;
using System.Text;
using System.Text.Json.Nodes;
using Core.Tests;
using CsCheck;
using LooseLantern.Formats.Cases;
using NodaTime.TimeZones;

namespace Formats.Tests;

public class CaseFileTests
{
    private const string Good = """
        {
          "version": 1, "now": "2026-11-30T20:00:00Z", "from": "2026-12-01", "to": "2026-12-01", "duration": 30, "asHolder": null, "moving": null,
          "page": {
            "id": "p", "zone": "Europe/Copenhagen", "durations": [30, 60], "step": 30, "stepOffset": 0, "stepFrom": "clock",
            "bufferBefore": 0, "bufferAfter": 0, "notice": 0, "window": {"kind": "open"}, "hoursMode": "hosts", "hours": null,
            "dailyCap": null, "weeklyCap": null, "places": 1, "lineup": [{"anyOf": ["h1"]}, {"anyOf": ["h1", "h2"]}], "only": null,
            "sessions": [{"id": "s1", "start": "2026-12-01T08:00:00Z", "end": "2026-12-01T08:30:00Z", "guests": 1}]
          },
          "hosts": [
            {"id": "h1", "zone": "Europe/Copenhagen", "dailyCap": null, "weeklyCap": 3, "calendars": "respect",
             "hours": {"zone": "Europe/Copenhagen", "week": {"tue": [["09:00", "10:00"]]}, "changes": [{"from": "2026-12-24", "to": "2026-12-26", "open": []}]},
             "busy": [["2026-12-01T08:00:00Z", "2026-12-01T08:30:00Z"]],
             "commitments": [{"kind": "booking", "holder": "s1", "page": null, "start": "2026-12-02T08:00:00Z", "end": "2026-12-02T08:30:00Z", "bufferBefore": 10, "bufferAfter": 0},
                             {"kind": "hold", "holder": "k", "start": "2026-12-02T09:00:00Z", "end": "2026-12-02T09:30:00Z", "bufferBefore": 0, "bufferAfter": 0}]},
            {"id": "h2", "zone": "Europe/Lisbon", "dailyCap": 1, "weeklyCap": null, "calendars": "ignore", "hours": null, "busy": [], "commitments": []}
          ]
        }
        """;

    [Fact]
    public void A_good_file_is_answered()
    {
        var reading = CaseFile.Read(Encoding.UTF8.GetBytes(Good));
        reading.Faults.ShouldBeEmpty();
        CaseAnswer
            .Write(reading)
            .ShouldBe(
                $$"""{"openings":[{"start":"2026-12-01T08:30:00Z","end":"2026-12-01T09:00:00Z","placesLeft":1}],"zones":"{{TzdbDateTimeZoneSource.Default.TzdbVersion}}"}"""
            );
    }

    [Theory]
    // An unknown, a missing, a wrong value; each with the path where it stands.
    [InlineData("version", "2", "version")]
    [InlineData("now", "\"2026-11-30T20:00:00+01:00\"", "now")]
    [InlineData("now", "\"2026-11-30T20:00Z\"", "now")]
    [InlineData("now", null, "now")]
    [InlineData("from", "\"1.12.2026\"", "from")]
    [InlineData("to", "\"2026-11-30\"", "to")]
    [InlineData("to", "\"2027-12-02\"", "to")]
    [InlineData("duration", "45", "duration")]
    [InlineData("duration", "30.5", "duration")]
    [InlineData("asHolder", "7", "asHolder")]
    [InlineData("extra", "1", "extra")]
    [InlineData("page.extra", "1", "page.extra")]
    [InlineData("page.zone", "\"Mars/Base\"", "page.zone")]
    [InlineData("party", "0", "party")]
    [InlineData("party", "\"2\"", "party")]
    [InlineData("keeper", "\"h9\"", "keeper")]
    [InlineData("page.lineup[1].keeper", "\"mostly\"", "page.lineup[1].keeper")]
    [InlineData("page.durations[1]", "0", "page.durations[1]")]
    [InlineData("page.step", "\"30\"", "page.step")]
    [InlineData("page.stepOffset", "30", "page.stepOffset")]
    [InlineData("page.stepFrom", "\"Clock\"", "page.stepFrom")]
    [InlineData("page.notice", "-1", "page.notice")]
    [InlineData("page.places", "0", "page.places")]
    [InlineData("page.window", "{\"kind\":\"ahead\"}", "page.window.days")]
    [InlineData("page.window", "{\"kind\":\"open\",\"days\":3}", "page.window.days")]
    [InlineData("page.window", "{\"kind\":\"dates\",\"from\":\"2026-12-02\",\"to\":\"2026-12-01\"}", "page.window.to")]
    [InlineData("page.window", "{}", "page.window.kind")]
    [InlineData("page.hoursMode", "\"both\"", "page.hours")]
    [InlineData("page.lineup", "[]", "page.lineup")]
    [InlineData("page.lineup[0].anyOf", "[]", "page.lineup[0].anyOf")]
    [InlineData("page.lineup[1].anyOf[1]", "\"h9\"", "page.lineup[1].anyOf[1]")]
    [InlineData("page.lineup[1].anyOf[1]", "\"h1\"", "page.lineup[1].anyOf[1]")]
    [InlineData("page.only", "{\"spans\":[],\"starts\":[]}", "page.only")]
    [InlineData("page.only", "{}", "page.only")]
    [InlineData("page.sessions[0].end", "\"2026-12-01T08:00:00Z\"", "page.sessions[0].end")]
    [InlineData("hosts[1].id", "\"h1\"", "hosts[1].id")]
    [InlineData("hosts[0].calendars", "true", "hosts[0].calendars")]
    [InlineData("hosts[0].hours.week.tue[0][1]", "\"08:00\"", "hosts[0].hours.week.tue[0][1]")]
    [InlineData("hosts[0].hours.week.tue[0][0]", "\"9:00\"", "hosts[0].hours.week.tue[0][0]")]
    [InlineData("hosts[0].hours.week", "{\"tuesday\":[]}", "hosts[0].hours.week.tuesday")]
    [InlineData("hosts[0].hours.changes[0].to", "\"2026-12-23\"", "hosts[0].hours.changes[0].to")]
    [InlineData("hosts[0].busy[0]", "[\"2026-12-01T08:00:00Z\"]", "hosts[0].busy[0]")]
    [InlineData("hosts[0].commitments[0].kind", "\"maybe\"", "hosts[0].commitments[0].kind")]
    [InlineData("hosts[0].commitments[1].page", "\"p\"", "hosts[0].commitments[1].page")]
    [InlineData("hosts[0].commitments[0].page", null, "hosts[0].commitments[0]")]
    public void A_fault_is_named_with_its_path_and_nothing_is_computed(string where, string? value, string path)
    {
        var reading = CaseFile.Read(Encoding.UTF8.GetBytes(Changed(where, value)));
        reading.Input.ShouldBeNull();
        reading.Faults.Select(fault => fault.Path).ShouldContain(path);
    }

    [Fact]
    public void Every_fault_is_named_at_once()
    {
        var file = Changed("page.step", "0");
        file = Changed("hosts[1].zone", "\"Nowhere\"", file);
        file = Changed("duration", null, file);
        CaseFile
            .Read(Encoding.UTF8.GetBytes(file))
            .Faults.Select(fault => fault.Path)
            .Order()
            .ShouldBe(["duration", "hosts[1].zone", "page.step"]);
    }

    [Theory]
    [InlineData("")]
    [InlineData("{")]
    [InlineData("[]")]
    [InlineData("null")]
    public void What_is_no_case_file_at_all_is_told_too(string text) =>
        CaseFile.Read(Encoding.UTF8.GetBytes(text)).Faults.ShouldNotBeEmpty();

    [Fact]
    public void Spans_and_commitments_that_hold_nothing_are_no_fault()
    {
        var file = Changed("hosts[0].busy[0]", "[\"2026-12-01T09:00:00Z\",\"2026-12-01T08:00:00Z\"]");
        CaseAnswer
            .Write(CaseFile.Read(Encoding.UTF8.GetBytes(file)))
            .ShouldStartWith("""{"openings":[{"start":"2026-12-01T08:00:00Z",""");
    }

    [Fact]
    public void Far_instants_are_kept_within_what_can_be_reckoned()
    {
        var file = Changed("hosts[0].busy[0]", "[\"0001-01-01T00:00:00Z\",\"9999-12-31T23:59:59Z\"]");
        CaseAnswer
            .Write(CaseFile.Read(Encoding.UTF8.GetBytes(file)))
            .ShouldMatch("""^\{"openings":\[\],"zones":"20\d\d[a-z]"\}$""");
    }

    [Fact]
    public async Task The_command_answers_a_folder_one_line_a_file_and_ends_with_2_for_a_fault()
    {
        var folder = Directory.CreateTempSubdirectory("lantern-cases").FullName;
        await File.WriteAllTextAsync(Path.Combine(folder, "b.json"), Good);
        await File.WriteAllTextAsync(Path.Combine(folder, "a.json"), Changed("page.step", "0"));
        await File.WriteAllTextAsync(Path.Combine(folder, "b.expected.json"), "not looked at");

        var (code, lines) = await RunAsync(folder);
        code.ShouldBe(2);
        lines.Length.ShouldBe(2);
        lines[0].ShouldStartWith("""{"case":"a.json","faults":[{"path":"page.step",""");
        lines[1].ShouldStartWith("""{"case":"b.json","openings":[{""");

        (await RunAsync(Path.Combine(folder, "b.json"))).Code.ShouldBe(0);
        (await RunAsync(Path.Combine(folder, "c.json"))).Code.ShouldBe(2);
    }

    [Fact]
    public async Task The_command_tells_why_a_time_is_not_offered()
    {
        var file = Path.Combine(Directory.CreateTempSubdirectory("lantern-cases").FullName, "good.json");
        await File.WriteAllTextAsync(file, Good);

        var (code, lines) = await RunAsync(file, "--reasons", "2026-12-01T09:00:00+01:00");
        code.ShouldBe(0);
        lines
            .ShouldHaveSingleItem()
            .ShouldBe(
                $$"""{"start":"2026-12-01T08:00:00Z","end":"2026-12-01T08:30:00Z","opening":false,"reasons":[{"rule":7,"name":"calendars","host":"h1","span":["2026-12-01T08:00:00Z","2026-12-01T08:30:00Z"]}],"next":"2026-12-01T08:30:00Z","zones":"{{TzdbDateTimeZoneSource.Default.TzdbVersion}}"}"""
            );
        (await RunAsync(file, "--reasons", "2026-12-01T08:30:00Z"))
            .Lines.ShouldHaveSingleItem()
            .ShouldContain("\"opening\":true,\"reasons\":[]");
        (await RunAsync(Path.GetDirectoryName(file)!, "--reasons", "2026-12-01T08:00:00Z"))
            .Lines.ShouldHaveSingleItem()
            .ShouldStartWith("{\"case\":\"good.json\",\"start\":");

        foreach (var wrong in new[] { "", "9 o'clock", "2026-12-01", "2026-12-01T08:00:00", "9999-12-31T23:59:59Z" })
            (await RunAsync(file, "--reasons", wrong)).Code.ShouldBe(2, wrong);
        (await RunAsync(file, "--why")).Code.ShouldBe(2);
        (await RunAsync(file, file)).Code.ShouldBe(2);
    }

    [Fact]
    public void Reasons_of_every_kind_are_written()
    {
        var pooled = Changed("page.lineup[1].anyOf[0]", "\"h2\"", Changed("page.lineup[1].anyOf", "[\"h2\"]"));
        pooled = Changed(
            "page.lineup[0].anyOf",
            "[\"h1\",\"h2\"]",
            Changed("page.dailyCap", "1", Changed("page.places", "2", pooled))
        );
        pooled = Changed(
            "page.sessions[0].guests",
            "2",
            Changed("hosts[0].commitments[0].start", "\"2026-12-01T08:00:00Z\"", pooled)
        );
        var line = CaseAnswer.WriteReasons(
            CaseFile.Read(Encoding.UTF8.GetBytes(Changed("hosts[1].dailyCap", "0", pooled))),
            Instant.FromUtc(2026, 12, 1, 8, 0)
        );
        foreach (
            var part in new[]
            {
                """{"rule":5,"name":"pageCaps","span":["2026-11-30T23:00:00Z","2026-12-01T23:00:00Z"],"cap":"day","most":1,"counted":1}""",
                """{"rule":9,"name":"hostCaps","host":"h2",""",
                """{"rule":10,"name":"lineUp","seats":[0],"pool":[{"host":"h1","reasons":[{"rule":7,"name":"calendars","host":"h1",""",
                """{"rule":8,"name":"commitments","host":"h1","span":["2026-12-01T08:00:00Z","2026-12-02T08:30:00Z"],"kind":"booking","holder":"s1"}""",
                """{"rule":11,"name":"places","span":["2026-12-01T08:00:00Z","2026-12-01T08:30:00Z"],"session":"s1"}""",
            }
        )
            line.ShouldContain(part);
    }

    [Fact]
    public void What_is_written_reads_back_to_the_same_openings() =>
        RandomInput.Any.Sample(
            input =>
            {
                var reading = CaseFile.Read(CaseWriter.Write(input, [20]));
                reading.Faults.ShouldBeEmpty();
                OpeningsComputation.Openings(reading.Input!).ShouldBe(OpeningsComputation.Openings(input));
                (reading.Input!.AsHolder, reading.Input.Moving, reading.Input.Party).ShouldBe(
                    (input.AsHolder, input.Moving, input.Party)
                );
            },
            iter: 300
        );

    private static async Task<(int Code, string[] Lines)> RunAsync(params string[] words)
    {
        var program = Path.Combine(AppContext.BaseDirectory, "LooseLantern.Case.dll");
        using var process = Process.Start(
            new ProcessStartInfo("dotnet", [program, .. words])
            {
                RedirectStandardOutput = true,
                RedirectStandardError = true,
            }
        )!;
        var output = await process.StandardOutput.ReadToEndAsync();
        await process.WaitForExitAsync();
        return (process.ExitCode, output.Split('\n', StringSplitOptions.RemoveEmptyEntries));
    }

    /// <summary>The good file with the value at a path put in, or with null taken out.</summary>
    private static string Changed(string path, string? value, string file = Good)
    {
        var root = JsonNode.Parse(file)!;
        var steps = path.Replace("[", ".[").Split('.', StringSplitOptions.RemoveEmptyEntries);
        var node = steps[..^1]
            .Aggregate(root, (at, step) => step[0] == '[' ? at[int.Parse(step[1..^1], null)]! : at[step]!);
        if (steps[^1][0] == '[')
            node[int.Parse(steps[^1][1..^1], null)] = JsonNode.Parse(value!);
        else if (value is null)
            node.AsObject().Remove(steps[^1]);
        else
            node[steps[^1]] = JsonNode.Parse(value);
        return root.ToJsonString();
    }
}
