using System.Globalization;
using LooseLantern.Core.Openings;
using NodaTime;
using NodaTime.Text;

namespace LooseLantern.Core.TimeText;

/// <summary>
/// Openings as lines a person would send: by day, in one or two zones, in a language's own date forms. Where a clock
/// changes among the times the distance from UTC is written with each day or, on the day itself, with each time, so
/// that no two times read alike.
/// </summary>
public sealed class TimeTextWriter
{
    private static readonly Dictionary<string, string> TimesIn = new()
    {
        ["en"] = "Times in {0}",
        ["de"] = "Zeiten in {0}",
        ["fr"] = "Heures de {0}",
        ["es"] = "Horas de {0}",
        ["da"] = "Tider i {0}",
    };

    private static readonly OffsetPattern OffsetText = OffsetPattern.CreateWithInvariantCulture("m");

    private readonly TimeTextRequest _request;
    private readonly DateForms _forms;

    private TimeTextWriter(TimeTextRequest request)
    {
        _request = request;
        _forms = new DateForms(request.Culture, request.Clock);
    }

    /// <param name="openings">In any order.</param>
    public static TimeTextResult Write(IEnumerable<Opening> openings, TimeTextRequest request) =>
        new TimeTextWriter(request).Write([
            .. openings.OrderBy(opening => opening.Start).ThenBy(opening => opening.End),
        ]);

    private TimeTextResult Write(List<Opening> openings)
    {
        var runs = Runs(openings);
        var offsets = runs.SelectMany(run => Offsets(run, _request.Zone)).Distinct().ToList();
        var days = runs.GroupBy(run => run.Time.Start.InZone(_request.Zone).Date)
            .OrderBy(day => day.Key)
            .Select(day => Day(day.Key, [.. day], tellOffsets: offsets.Count > 1))
            .ToList();
        return new TimeTextResult(Zones(runs, offsets), days);
    }

    /// <summary>
    /// Each opening by itself, or those that touch or overlap together. A range ends where the day does, so that it
    /// stands under one date.
    /// </summary>
    private List<Run> Runs(List<Opening> openings)
    {
        var runs = new List<Run>();
        foreach (var opening in openings)
        {
            var time = new Span(opening.Start, opening.End);
            if (
                _request.MergeTouching
                && runs.Count > 0
                && time.Start <= runs[^1].Time.End
                && IsSameDay(runs[^1].Time.Start, time.Start)
            )
                runs[^1] = new Run(
                    runs[^1].Time with
                    {
                        End = Instant.Max(runs[^1].Time.End, time.End),
                    },
                    [.. runs[^1].Openings, opening]
                );
            else
                runs.Add(new Run(time, [opening]));
        }

        return runs;
    }

    private TimeTextDay Day(LocalDate date, List<Run> runs, bool tellOffsets)
    {
        var offsets = runs.SelectMany(run => Offsets(run, _request.Zone)).Distinct().ToList();
        var heading = _forms.Day(date, _request.Today.Year);
        if (tellOffsets && offsets.Count == 1)
            heading += $" ({Text(offsets[0])})";
        return new TimeTextDay(
            date,
            heading,
            [
                .. runs.Select(run => new TimeTextTime(
                    Time(run.Time, date, tellOffsets && offsets.Count > 1),
                    run.Openings
                )),
            ]
        );
    }

    private string Time(Span time, LocalDate date, bool tellOffsets)
    {
        var text = Range(time, _request.Zone, date, tellOffsets);
        if (_request.Second is not { } second)
            return text;
        return $"{text} ({Range(time, second, date, tellOffsets: false)} {City(second)})";
    }

    private string Range(Span time, DateTimeZone zone, LocalDate date, bool tellOffsets)
    {
        var (start, end) = (time.Start.InZone(zone), time.End.InZone(zone));
        var from = _forms.Time(start.LocalDateTime);
        var to = _forms.Time(end.LocalDateTime);
        if (start.Date != date)
            from = $"{_forms.ShortWeekday(start.Date)} {from}";
        if (end.Date != start.Date && end.LocalDateTime != end.Date.AtMidnight())
            to = $"{_forms.ShortWeekday(end.Date)} {to}";
        if (!tellOffsets && !IsRepeated(start) && !IsRepeated(end))
            return $"{from}–{to}";
        return start.Offset == end.Offset
            ? $"{from}–{to} {Text(start.Offset)}"
            : $"{from} {Text(start.Offset)}–{to} {Text(end.Offset)}";
    }

    private string Zones(List<Run> runs, List<Offset> offsets)
    {
        var first = City(_request.Zone) + (offsets.Count == 1 ? $" ({Text(offsets[0])})" : "");
        if (_request.Second is { } second)
        {
            var others = runs.SelectMany(run => Offsets(run, second)).Distinct().ToList();
            first += " / " + City(second) + (others.Count == 1 ? $" ({Text(others[0])})" : "");
        }

        var words = TimesIn.GetValueOrDefault(_request.Culture.TwoLetterISOLanguageName, TimesIn["en"]);
        return string.Format(CultureInfo.InvariantCulture, words, first);
    }

    private bool IsSameDay(Instant one, Instant other) =>
        one.InZone(_request.Zone).Date == other.InZone(_request.Zone).Date;

    private static IEnumerable<Offset> Offsets(Run run, DateTimeZone zone) =>
        [zone.GetUtcOffset(run.Time.Start), zone.GetUtcOffset(run.Time.End)];

    /// <summary>Whether a clock that goes back shows this time twice.</summary>
    private static bool IsRepeated(ZonedDateTime time) => time.Zone.MapLocal(time.LocalDateTime).Count > 1;

    /// <summary>UTC+1, UTC-3:30, UTC.</summary>
    private static string Text(Offset offset)
    {
        if (offset == Offset.Zero)
            return "UTC";
        var text = OffsetText.Format(offset);
        var (hours, minutes) = (text[..3], text.Length > 3 ? text[4..6] : "00");
        return $"UTC{hours[0]}{hours[1..].TrimStart('0').PadLeft(1, '0')}{(minutes == "00" ? "" : ":" + minutes)}";
    }

    /// <summary>The last part of an IANA id, which names a place people know.</summary>
    private static string City(DateTimeZone zone) => zone.Id[(zone.Id.LastIndexOf('/') + 1)..].Replace('_', ' ');

    private sealed record Run(Span Time, IReadOnlyList<Opening> Openings);
}
