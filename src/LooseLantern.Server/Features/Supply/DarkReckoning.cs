using LooseLantern.Core;
using LooseLantern.Core.LineUps;
using LooseLantern.Core.Openings;
using LooseLantern.Core.Reasons;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.ActingFor;
using LooseLantern.Server.Features.Openings;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Supply;

/// <summary>One rule that keeps time from being offered. What is null is not part of this reason.</summary>
/// <param name="From">Start of the time that fails it, such as of the event, the notice, or the closed time.</param>
/// <param name="Calendar">What the busy time comes from.</param>
/// <param name="Title">Of the event; null where whoever asks may not read it.</param>
/// <param name="Page">Of the booking that is in the way.</param>
/// <param name="IsHold">Whether what is in the way is only held.</param>
public sealed record ReasonView(
    Rule Rule,
    Instant? From,
    Instant? To,
    string? Calendar,
    string? Title,
    string? Page,
    bool IsHold,
    CapPeriod? Period,
    int? Cap
);

/// <param name="Reasons">All that this host lacks in the stretch.</param>
/// <param name="IsKeeper">Whether the seat waits for this host alone, since the guest is theirs.</param>
public sealed record DarkHostView(Guid Id, string Name, IReadOnlyList<ReasonView> Reasons, bool IsKeeper);

/// <param name="Seat">By position from 0.</param>
/// <param name="Hosts">Everybody who could fill it.</param>
public sealed record DarkSeatView(int Seat, IReadOnlyList<DarkHostView> Hosts);

/// <param name="OfPage">What fails for the page itself.</param>
/// <param name="Seats">The seats that can't be filled at some time of the stretch.</param>
/// <param name="Shared">Hosts that several seats share, where each alone could be filled.</param>
/// <param name="Zone">The page's.</param>
public sealed record DarkAnswer(
    Instant From,
    Instant To,
    string Zone,
    IReadOnlyList<ReasonView> OfPage,
    IReadOnlyList<DarkSeatView> Seats,
    IReadOnlyList<string> Shared
);

/// <summary>Why a stretch of a page's day has no openings.</summary>
public sealed class DarkReckoning(LanternDb db, OpeningsInputs inputs, Allowances allowances)
{
    /// <param name="page">With its seats and hours; it need not be saved.</param>
    public async Task<DarkAnswer> OfAsync(Page page, DarkRequest request, CancellationToken ct)
    {
        var rules = inputs.Rules(page);
        var duration = SupplyReckoning.DurationOf(page, request.Duration);
        await inputs.PrepareAsync(rules, request.Date, request.Date, duration, ct);
        var input = await inputs.ReadAsync(
            rules,
            request.Date,
            request.Date,
            duration,
            ct,
            await allowances.HostsAsync(Allowance.SeeTitles, ct)
        );
        var midnight = request.Date.AtMidnight();
        var stretch = new Span(
            midnight.PlusMinutes(request.FromMinute).InZoneLeniently(rules.Zone).ToInstant(),
            midnight.PlusMinutes(request.ToMinute).InZoneLeniently(rules.Zone).ToInstant()
        );
        return (await SaidAsync(page, rules, [(stretch, DarkTime.Within(input, stretch))], Keepers.OnlyOf(input), ct))[
            0
        ];
    }

    /// <summary>Why each of these starts is no opening, in their order; everything is read once.</summary>
    /// <param name="page">With its seats and hours; it need not be saved.</param>
    /// <param name="starts">One at least.</param>
    public async Task<IReadOnlyList<DarkAnswer>> OfStartsAsync(
        Page page,
        IReadOnlyList<Instant> starts,
        CancellationToken ct
    )
    {
        var rules = inputs.Rules(page);
        var dates = starts.Select(start => start.InZone(rules.Zone).Date).ToList();
        var minutes = page.Durations[0];
        // What lies beyond what can be asked at once is named by its window, and needs no calendar.
        var last = LocalDate.Min(dates.Max(), dates.Min().PlusDays(PageLimits.MostDaysAsked - 1));
        await inputs.PrepareAsync(rules, dates.Min(), last, minutes, ct);
        var input = await inputs.ReadAsync(
            rules,
            dates.Min(),
            last,
            minutes,
            ct,
            await allowances.HostsAsync(Allowance.SeeTitles, ct)
        );
        return await SaidAsync(
            page,
            rules,
            [
                .. starts
                    .Select(start => new Span(start, start + Duration.FromMinutes(minutes)))
                    .Select(time => (time, DarkTime.Within(input, time))),
            ],
            Keepers.OnlyOf(input),
            ct
        );
    }

    private async Task<IReadOnlyList<DarkAnswer>> SaidAsync(
        Page page,
        AskedPage rules,
        IReadOnlyList<(Span Stretch, DarkTime Dark)> found,
        string? keeper,
        CancellationToken ct
    )
    {
        var names = await inputs.NamesAsync(rules.HostIds, ct);
        var pages = await PagesAsync(found.Select(one => one.Dark), ct);
        return
        [
            .. found.Select(one => new DarkAnswer(
                one.Stretch.Start,
                one.Stretch.End,
                page.Zone,
                [.. one.Dark.OfPage.Select(View)],
                [
                    .. one.Dark.Seats.Select(seat => new DarkSeatView(
                        seat.Position,
                        [
                            .. seat.Hosts.Select(host => new DarkHostView(
                                Guid.Parse(host.Host),
                                names[host.Host],
                                [.. host.Reasons.Select(View)],
                                host.Host == keeper
                            )),
                        ]
                    )),
                ],
                [.. one.Dark.Shared.Select(host => names[host])]
            )),
        ];

        ReasonView View(Reason reason) =>
            new(
                reason.Rule,
                reason.Span?.Start,
                reason.Span?.End,
                reason.Source?.Calendar,
                reason.Source?.Title,
                reason.Commitment?.Page is { } id ? pages.GetValueOrDefault(Guid.Parse(id)) : null,
                reason.Commitment?.Kind == CommitmentKind.Hold,
                reason.Cap?.Period,
                reason.Cap?.Cap
            );
    }

    private async Task<Dictionary<Guid, string>> PagesAsync(IEnumerable<DarkTime> dark, CancellationToken ct)
    {
        var ids = dark.SelectMany(one => one.Seats)
            .SelectMany(seat => seat.Hosts)
            .SelectMany(host => host.Reasons)
            .Select(reason => reason.Commitment?.Page)
            .OfType<string>()
            .Distinct()
            .Select(Guid.Parse)
            .ToList();
        return await db.Pages.Where(row => ids.Contains(row.Id)).ToDictionaryAsync(row => row.Id, row => row.Title, ct);
    }
}
