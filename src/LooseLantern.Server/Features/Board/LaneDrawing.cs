using LooseLantern.Core;
using LooseLantern.Core.Days;
using LooseLantern.Core.FreeTimes;
using LooseLantern.Core.Hours;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Calendars.Writing;
using NodaTime;

namespace LooseLantern.Server.Features.Board;

/// <summary>One host's bars, with hours and leave drawn from the start.</summary>
internal sealed class LaneDrawing
{
    private readonly Span _range;
    private readonly DateTimeZone _zone;
    private readonly List<(LocalDate Date, BoardBar Bar)> _bars = [];
    private readonly List<Span> _open = [];
    private readonly List<Span> _taken = [];

    public LaneDrawing(Host host, Span range, DateTimeZone zone)
    {
        (Host, _range, _zone) = (host, range, zone);
        if (host.Hours is not { } hours)
        {
            AddOpen(range, "always open");
            return;
        }

        var set = hours.Document.ToCore();
        foreach (var stretch in OpenStretches.Of(set, range))
            AddOpen(stretch.Time, hours.Name);
        AddLeave(set, hours);
    }

    public Host Host { get; }

    public void Add(
        BarKind kind,
        Span span,
        string title,
        string source,
        bool wholeDay = false,
        bool tentative = false,
        string mark = "",
        BoardBlock? block = null,
        OutsideView? outside = null,
        Guid? link = null,
        string? path = null
    )
    {
        if (kind is BarKind.Busy or BarKind.Held or BarKind.Booked)
            _taken.Add(span);
        var shown = new Span(Instant.Max(span.Start, _range.Start), Instant.Min(span.End, _range.End));
        foreach (var slice in DaySlices.Of(shown, _zone))
            _bars.Add(
                (
                    slice.Date,
                    new BoardBar(
                        kind,
                        slice.FromMinute,
                        slice.ToMinute,
                        span.Start,
                        span.End,
                        title,
                        source,
                        wholeDay,
                        tentative,
                        mark,
                        block,
                        outside,
                        link,
                        path ?? (link is { } id ? $"/work/links/{id:D}" : null)
                    )
                )
            );
    }

    public IReadOnlyList<Span> Free() =>
        FreeTime.Of(
            _open.Select(span => new Span(Instant.Max(span.Start, _range.Start), Instant.Min(span.End, _range.End))),
            _taken
        );

    public IReadOnlyList<BoardBar> On(LocalDate date) =>
        [
            .. _bars
                .Where(bar => bar.Date == date)
                .Select(bar => bar.Bar)
                .OrderBy(bar => bar.Kind)
                .ThenBy(bar => bar.FromMinute),
        ];

    private void AddOpen(Span span, string source)
    {
        _open.Add(span);
        Add(BarKind.Hours, span, "", source);
    }

    /// <summary>Dates of the week's open ones that a dated change has closed.</summary>
    private void AddLeave(HoursSet set, HoursRow hours)
    {
        var last = _range.End.InZone(set.Zone).Date;
        for (var date = _range.Start.InZone(set.Zone).Date; date <= last; date = date.PlusDays(1))
        {
            var usual = set.ClosedByChange(date);
            if (usual.Count == 0)
                continue;
            var name = hours.Document.Changes.Last(change => change.Covers(date)).Name ?? "closed";
            var day = LocalDays.Start(set.Zone, date);
            var span = new Span(
                date.AtMidnight().PlusMinutes(usual.Min(open => open.From)).InZoneLeniently(set.Zone).ToInstant(),
                date.AtMidnight().PlusMinutes(usual.Max(open => open.To)).InZoneLeniently(set.Zone).ToInstant()
            );
            if (span.Meets(_range) && span.End > day)
                Add(BarKind.Leave, span, name, hours.Name);
        }
    }
}
