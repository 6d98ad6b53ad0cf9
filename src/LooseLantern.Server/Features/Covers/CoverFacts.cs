using LooseLantern.Core;
using LooseLantern.Core.Openings;
using LooseLantern.Core.Reasons;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Openings;
using LooseLantern.Server.Features.Pages.Kept;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Covers;

/// <summary>What is in the way of a host at the time of a session; null where nothing is.</summary>
internal sealed record CoverObstacle(Rule Rule);

/// <summary>
/// Who is free for sessions that are given away together: by calendars, by all that is committed but for these sessions
/// themselves, and by hours. Of each page all is read at once.
/// </summary>
public sealed class CoverFacts(LanternDb db, PageReading pages, OpeningsInputs inputs)
{
    /// <summary>With their hosts, bookings and page.</summary>
    public static IQueryable<Session> Whole(IQueryable<Session> sessions) =>
        sessions
            .Include(session => session.Hosts)
                .ThenInclude(host => host.Host)
            .Include(session => session.Bookings)
            .Include(session => session.Page!)
                .ThenInclude(page => page.Seats)
                    .ThenInclude(seat => seat.Hosts)
            .AsSplitQuery();

    /// <summary>Reads the calendars of these hosts, as it must be done before any lock is held.</summary>
    public async Task PrepareAsync(
        IReadOnlyList<Session> sessions,
        IReadOnlyCollection<Guid> hosts,
        CancellationToken ct
    )
    {
        foreach (var ofPage in sessions.GroupBy(session => session.PageId))
        {
            var (page, first, last, minutes) = await AskedAsync([.. ofPage], hosts, ct);
            await inputs.PrepareAsync(page, first, last, minutes, ct);
        }
    }

    /// <summary>The first thing in the way of each of these hosts at each of these sessions.</summary>
    internal async Task<Dictionary<(Guid Session, Guid Host), CoverObstacle?>> ObstaclesAsync(
        IReadOnlyList<Session> sessions,
        IReadOnlyCollection<Guid> hosts,
        CancellationToken ct
    )
    {
        var found = new Dictionary<(Guid, Guid), CoverObstacle?>();
        var own = sessions.Select(session => OpeningsInputs.Id(session.Id)).ToHashSet();
        foreach (var ofPage in sessions.GroupBy(session => session.PageId))
        {
            var (page, first, last, minutes) = await AskedAsync([.. ofPage], hosts, ct);
            var input = await inputs.ReadAsync(page, first, last, minutes, ct);
            input = input with
            {
                Hosts =
                [
                    .. input.Hosts.Select(host =>
                        host with
                        {
                            Commitments = [.. host.Commitments.Where(one => !own.Contains(one.Holder))],
                        }
                    ),
                ],
            };
            foreach (var session in ofPage)
            {
                foreach (var host in hosts)
                    found[(session.Id, host)] = Obstacle(input, session, host);
            }
        }

        return found;
    }

    private static CoverObstacle? Obstacle(OpeningsInput input, Session session, Guid host)
    {
        var time = session.Time.ToSpan();
        var alone = input with
        {
            Duration = MinutesOf(session),
            Page = input.Page with { LineUp = [new Seat([OpeningsInputs.Id(host)])] },
        };
        return ReasonsComputation
            .For(alone, time.Start)
            .Reasons.SelectMany(reason => reason.Pool?.SelectMany(lacks => lacks.Reasons) ?? [reason])
            .Where(reason => reason.Rule is Rule.Hours or Rule.Calendars or Rule.Commitments)
            // What can't be put right comes before what somebody may choose to put up with.
            .OrderBy(reason => reason.Rule == Rule.Hours)
            .Select(reason => new CoverObstacle(reason.Rule))
            .FirstOrDefault();
    }

    /// <summary>The page of these sessions with one seat, for these hosts alone.</summary>
    private async Task<(AskedPage Page, LocalDate First, LocalDate Last, int Minutes)> AskedAsync(
        List<Session> sessions,
        IReadOnlyCollection<Guid> hosts,
        CancellationToken ct
    )
    {
        var page = (await pages.OfAsync(sessions[0].PageId, ct))!.Page;
        var asked = inputs
            .Rules(page)
            .With(rules =>
                rules with
                {
                    LineUp = [new Seat([.. hosts.Select(OpeningsInputs.Id)])],
                    Places = 1,
                    DailyCap = null,
                    WeeklyCap = null,
                    Only = null,
                }
            );
        var days = sessions.ConvertAll(session => session.Time.LowerBound.InZone(asked.Zone).Date);
        return (asked, days.Min(), days.Max(), sessions.Max(MinutesOf));
    }

    public static int MinutesOf(Session session) => (int)session.Time.ToSpan().Length.TotalMinutes;

    /// <summary>How many sessions each of these hosts has in the weeks of these, but for these themselves.</summary>
    public async Task<Dictionary<Guid, int>> LoadsAsync(
        IReadOnlyList<Session> sessions,
        IReadOnlyCollection<Guid> hosts,
        CancellationToken ct
    )
    {
        var zone = DateTimeZoneProviders.Tzdb[sessions[0].Page!.Zone];
        var first = sessions.Min(session => session.Time.LowerBound).InZone(zone).Date;
        var last = sessions.Max(session => session.Time.LowerBound).InZone(zone).Date;
        var weeks = new Span(
            zone.AtStartOfDay(first.With(DateAdjusters.PreviousOrSame(IsoDayOfWeek.Monday))).ToInstant(),
            zone.AtStartOfDay(last.With(DateAdjusters.Next(IsoDayOfWeek.Monday))).ToInstant()
        ).ToRange();
        Guid[] own = [.. sessions.Select(session => session.Id)];
        return await db
            .Commitments.Where(row =>
                hosts.Contains(row.HostId)
                && row.Kind == CommitmentKind.Booking
                && !own.Contains(row.HolderId)
                && row.Span.Overlaps(weeks)
            )
            .GroupBy(row => row.HostId)
            .ToDictionaryAsync(group => group.Key, group => group.Count(), ct);
    }
}
