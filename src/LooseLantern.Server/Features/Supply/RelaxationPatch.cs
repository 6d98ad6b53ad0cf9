using System.Text.Json;
using System.Text.Json.Nodes;
using LooseLantern.Core.Hours;
using LooseLantern.Core.Openings;
using LooseLantern.Core.Relaxations;
using LooseLantern.Server.Features.Hours;
using LooseLantern.Server.Features.Links;
using LooseLantern.Server.Features.Pages;
using LooseLantern.Server.Hosting;

namespace LooseLantern.Server.Features.Supply;

/// <summary>
/// What a relaxation changes of the times in a form, as a JSON merge patch (RFC 7396): told from the rules that Core
/// tried, so that what is taken over is what was counted. Null where it is no change of this form, as with a host's own
/// hours and caps.
/// </summary>
public static class RelaxationPatch
{
    /// <summary>Of a page's times.</summary>
    public static JsonObject? Of(PageTimes times, Relaxation relaxation, OpeningsInput now)
    {
        var then = relaxation.Then.Page;
        var patch = Both(times.LineUp, times.Durations, relaxation, now);
        if (then.DailyCap != now.Page.DailyCap)
            patch["dailyCap"] = then.DailyCap;
        if (then.WeeklyCap != now.Page.WeeklyCap)
            patch["weeklyCap"] = then.WeeklyCap;
        if (then.Window != now.Page.Window)
        {
            if (then.Window is BookingWindow.Ahead ahead)
                patch["aheadDays"] = ahead.Days;
            if (then.Window is BookingWindow.Dates dates)
                patch["window"] = new JsonObject { ["to"] = Node(dates.To) };
        }

        if (times is { HoursMode: HoursMode.Page, Blocks: null, Hours: { } hours } && relaxation.IsOfHours)
            patch["hours"] = Node(Wider(hours, relaxation.Rule));
        return patch.Count > 0 ? patch : null;
    }

    /// <summary>Of a link's times.</summary>
    public static JsonObject? Of(LinkTimes times, Relaxation relaxation, OpeningsInput now)
    {
        var patch = Both(times.LineUp, times.Durations, relaxation, now);
        if (relaxation.Then.Page.Window is BookingWindow.Dates dates && dates != now.Page.Window)
            patch["offer"] = new JsonObject { ["until"] = Node(dates.To) };
        return patch.Count > 0 ? patch : null;
    }

    private static JsonObject Both(
        IReadOnlyList<SeatForm> lineUp,
        IReadOnlyList<int> durations,
        Relaxation relaxation,
        OpeningsInput now
    )
    {
        var (patch, then) = (new JsonObject(), relaxation.Then);
        if (then.Page.Notice != now.Page.Notice)
            patch["notice"] = then.Page.Notice;
        if (then.Page.BufferBefore != now.Page.BufferBefore)
            patch["bufferBefore"] = then.Page.BufferBefore;
        if (then.Page.BufferAfter != now.Page.BufferAfter)
            patch["bufferAfter"] = then.Page.BufferAfter;
        if (then.Duration != now.Duration)
            patch["durations"] = Node(
                durations.Select(minutes => minutes == now.Duration ? then.Duration : minutes).Distinct()
            );
        // A list is replaced whole (RFC 7396 section 1).
        if (relaxation is { Rule: RelaxedRule.SeatOpened, Seat: { } opened, Host: { } host })
            patch["lineUp"] = Node(
                lineUp.Select(
                    (seat, at) => at == opened ? seat with { HostIds = [.. seat.HostIds, Guid.Parse(host)] } : seat
                )
            );
        if (relaxation is { Rule: RelaxedRule.HostOptional, Seat: { } left })
            patch["lineUp"] = Node(lineUp.Where((_, at) => at != left));
        return patch;
    }

    private static HoursDocument Wider(HoursDocument hours, RelaxedRule rule)
    {
        IReadOnlyList<OpenTimeDocument> Day(IReadOnlyList<OpenTimeDocument> open) =>
            [.. Joined(RelaxationsComputation.Wider(HoursDocument.OpenTimes(open), rule))];
        var week = hours.Week;
        return hours with
        {
            Week = new WeekDocument(
                Day(week.Mon),
                Day(week.Tue),
                Day(week.Wed),
                Day(week.Thu),
                Day(week.Fri),
                Day(week.Sat),
                Day(week.Sun)
            ),
            Changes = [.. hours.Changes.Select(change => change with { Open = Day(change.Open) })],
        };
    }

    /// <summary>As people write them: by time, and what touches as one.</summary>
    private static IEnumerable<OpenTimeDocument> Joined(IEnumerable<OpenTime> open)
    {
        OpenTime? last = null;
        foreach (var time in open.OrderBy(time => time.From))
        {
            if (last is { } before && time.From <= before.To)
            {
                last = new OpenTime(before.From, Math.Max(before.To, time.To));
                continue;
            }

            if (last is { } done)
                yield return Text(done);
            last = time;
        }

        if (last is { } end)
            yield return Text(end);
    }

    private static OpenTimeDocument Text(OpenTime time) => new(Text(time.From), Text(time.To));

    private static string Text(int minute) => $"{minute / 60:00}:{minute % 60:00}";

    private static JsonNode? Node<T>(T value) => JsonSerializer.SerializeToNode(value, Json.Options);
}
