using System.Text.Json;
using LooseLantern.Core.LineUps;
using LooseLantern.Core.Openings;
using NodaTime;

namespace LooseLantern.Formats.Cases;

/// <summary>What came of reading a case file: an input, or every fault and no input.</summary>
public sealed record CaseReading(OpeningsInput? Input, IReadOnlyList<CaseFault> Faults);

/// <summary>
/// Reads case files (version 1): the whole input of one computation of openings as JSON, described in
/// docs/case-files.md. Strict: whatever is unknown, missing, of the wrong type or contradicts itself is named with its
/// path, all of it in one pass.
/// </summary>
public static class CaseFile
{
    public const int Version = 1;
    public const int MostDays = 366;

    public static CaseReading Read(ReadOnlyMemory<byte> utf8)
    {
        var faults = new List<CaseFault>();
        try
        {
            using var document = JsonDocument.Parse(utf8);
            var input = Input(new CaseNode(document.RootElement, "", faults));
            return new CaseReading(faults.Count == 0 ? input : null, faults);
        }
        catch (JsonException e)
        {
            return new CaseReading(null, [new CaseFault("", $"This is no JSON: {e.Message}")]);
        }
    }

    private static OpeningsInput Input(CaseNode root)
    {
        var file = root.Members(
            "version",
            "now",
            "from",
            "to",
            "duration",
            "asHolder",
            "moving",
            "party?",
            "keeper?",
            "page",
            "hosts"
        );
        file.Read("version", 0, node =>
        {
            var version = node.Number(1);
            if (version != Version)
                node.Fault($"Version {Version} is expected.");
            return version;
        });
        var now = file.Read("now", default, node => node.Instant());
        var from = file.Read("from", new LocalDate(2000, 1, 1), node => node.Date());
        var to = file.Read("to", from, node =>
        {
            var date = node.Date();
            if (date < from)
                node.Fault("The last date comes before the first.");
            else if (Period.DaysBetween(from, date) >= MostDays)
                node.Fault($"At most {MostDays} days can be asked for.");
            return date;
        });

        var hosts = file.Read("hosts", [], Hosts);
        var ids = hosts.Select(host => host.Id).ToHashSet();
        int[] durations = [];
        var page = file.Read("page", null, node => CasePage.Read(node, ids, out durations));
        var duration = file.Read("duration", 1, node =>
        {
            var minutes = node.Number(1);
            if (durations.Length > 0 && !durations.Contains(minutes))
                node.Fault("The page does not offer this duration.");
            return minutes;
        });

        var input = new OpeningsInput(
            now,
            from,
            to,
            duration,
            file.Read("asHolder", null, node => node.TextOrNull()),
            file.Read("moving", null, node => node.TextOrNull()),
            page!,
            hosts
        )
        {
            Party = file.Read("party", 1, node => node.Number(1)),
        };
        var keeper = file.Read("keeper", null, node => Keeper(node, hosts));
        // Where the page could not be read, its faults are told instead.
        return page is null ? input : Keepers.Narrow(input, keeper);
    }

    private static string? Keeper(CaseNode node, IReadOnlyList<HostFacts> hosts)
    {
        var keeper = node.TextOrNull();
        if (keeper is not null && hosts.All(host => host.Id != keeper))
            node.Fault("This host is not listed among the hosts.");
        return keeper;
    }

    private static IReadOnlyList<HostFacts> Hosts(CaseNode list)
    {
        var hosts = new List<HostFacts>();
        var seen = new HashSet<string>();
        foreach (var node in list.List())
        {
            var host = node.Members("id", "zone", "dailyCap", "weeklyCap", "calendars", "hours", "busy", "commitments");
            var id = host.Read("id", "", member =>
            {
                var text = member.Id();
                if (text.Length > 0 && !seen.Add(text))
                    member.Fault("Another host has this id.");
                return text;
            });
            hosts.Add(
                new HostFacts(
                    id,
                    host.Read("zone", DateTimeZone.Utc, member => member.Zone()),
                    host.Read("dailyCap", null, member => member.NumberOrNull(0)),
                    host.Read("weeklyCap", null, member => member.NumberOrNull(0)),
                    host.Read("calendars", "respect", member => member.OneOf("respect", "ignore")) == "ignore",
                    host.Read("hours", null, CaseHours.ReadOrNull),
                    host.Read("busy", [], CaseSpans.Read),
                    host.Read("commitments", [], Commitments)
                )
            );
        }

        return hosts;
    }

    private static IReadOnlyList<Commitment> Commitments(CaseNode list) =>
        [
            .. list.List()
                .Select(node =>
                {
                    var commitment = node.Members(
                        "kind",
                        "holder",
                        "page?",
                        "start",
                        "end",
                        "bufferBefore",
                        "bufferAfter"
                    );
                    var kind = commitment.Read("kind", "booking", member => member.OneOf("booking", "hold"));
                    var page = commitment.Read("page", null, member =>
                    {
                        if (kind == "hold")
                            member.Fault("A hold has no page.");
                        return member.TextOrNull();
                    });
                    if (kind == "booking" && !commitment.Has("page") && commitment.Has("kind"))
                        node.Fault("A booking names its page, or null for a link's session.");
                    return new Commitment(
                        kind == "hold" ? CommitmentKind.Hold : CommitmentKind.Booking,
                        commitment.Read("holder", "", member => member.Id()),
                        page,
                        commitment.Read("start", default, member => member.Instant()),
                        commitment.Read("end", default, member => member.Instant()),
                        commitment.Read("bufferBefore", 0, member => member.Number(0)),
                        commitment.Read("bufferAfter", 0, member => member.Number(0))
                    );
                }),
        ];
}
