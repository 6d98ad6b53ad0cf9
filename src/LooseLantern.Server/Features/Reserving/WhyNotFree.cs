using LooseLantern.Core;
using LooseLantern.Core.Openings;
using LooseLantern.Core.Reasons;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Openings;
using LooseLantern.Server.Features.Pages.Kept;
using LooseLantern.Server.Hosting;
using NodaTime;

namespace LooseLantern.Server.Features.Reserving;

/// <summary>
/// Whether a host is free for a session that we ourselves give or move: by calendars and commitments, buffers counted.
/// Hours, notice and caps are for guests who choose, and don't count here.
/// </summary>
public sealed class WhyNotFree(PageReading pages, OpeningsInputs inputs)
{
    /// <summary>Reads the host's calendars, as it must be done before any lock is held.</summary>
    public Task PrepareAsync(Session session, Span time, Guid hostId, CancellationToken ct) =>
        PrepareAsync(session, time, [hostId], ct);

    /// <inheritdoc cref="PrepareAsync(Session, Span, Guid, CancellationToken)"/>
    public async Task PrepareAsync(Session session, Span time, IReadOnlyList<Guid> hostIds, CancellationToken ct)
    {
        var (page, day, minutes) = await AskedAsync(session, time, hostIds, ct);
        await inputs.PrepareAsync(page, day, day, minutes, ct);
    }

    /// <summary>
    /// What of the host's is in the way of the session at that time; null where they are free. The session
    /// itself is not in its own way.
    /// </summary>
    public async Task<Phrase?> ForAsync(Session session, Span time, Host host, CancellationToken ct) =>
        (await ForAsync(session, time, [host], ct))[0];

    /// <summary>The same of several, each by themselves, in their order.</summary>
    public async Task<IReadOnlyList<Phrase?>> ForAsync(
        Session session,
        Span time,
        IReadOnlyList<Host> hosts,
        CancellationToken ct
    )
    {
        if (hosts.Count == 0)
            return [];
        var (page, day, minutes) = await AskedAsync(session, time, [.. hosts.Select(host => host.Id)], ct);
        var input = await inputs.ReadAsync(page, day, day, minutes, ct) with { Moving = OpeningsInputs.Id(session.Id) };
        return [.. hosts.Select(host => Why(input, time.Start, host))];
    }

    private static Phrase? Why(OpeningsInput input, Instant start, Host host)
    {
        if (host.RetiredAt is not null)
            return Phrase.Of("host-left", ("name", host.Name));
        var alone = input with { Page = input.Page with { LineUp = [new Seat([OpeningsInputs.Id(host.Id)])] } };
        var inTheWay = ReasonsComputation
            .For(alone, start)
            .Reasons.SelectMany(reason => reason.Pool?.SelectMany(lacks => lacks.Reasons) ?? [reason])
            .FirstOrDefault(reason => reason.Rule is Rule.Calendars or Rule.Commitments);
        return inTheWay?.Rule switch
        {
            null => null,
            Rule.Calendars => Phrase.Of("host-busy", ("name", host.Name)),
            _ => Phrase.Of("host-booked", ("name", host.Name)),
        };
    }

    /// <summary>The session's page with one seat, for these hosts alone.</summary>
    private async Task<(AskedPage Page, LocalDate Day, int Minutes)> AskedAsync(
        Session session,
        Span time,
        IReadOnlyList<Guid> hostIds,
        CancellationToken ct
    )
    {
        var page = (await pages.OfAsync(session.PageId, ct))!.Page;
        var asked = inputs
            .Rules(page)
            .With(rules =>
                rules with
                {
                    LineUp = [new Seat([.. hostIds.Select(OpeningsInputs.Id)])],
                    Places = 1,
                    DailyCap = null,
                    WeeklyCap = null,
                }
            );
        return (asked, time.Start.InZone(asked.Zone).Date, (int)time.Length.TotalMinutes);
    }
}
