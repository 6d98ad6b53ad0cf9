using LooseLantern.Core;
using LooseLantern.Core.Days;
using LooseLantern.Core.Openings;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Calendars;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace LooseLantern.Server.Features.Openings;

/// <summary>
/// The one way in for facts: turns rows into the input of the computation, in a fixed number of queries whatever the
/// number of hosts. The guest's page, the editor's supply and the check when a booking is made all ask here.
/// </summary>
public sealed class OpeningsInputs(LanternDb db, CalendarUnrolling unrolling, IClock clock)
{
    /// <summary>The openings from one local date to another, both included, of a page that need not be saved.</summary>
    /// <param name="duration">Whole minutes.</param>
    public async Task<IReadOnlyList<Opening>> OpeningsAsync(
        AskedPage page,
        LocalDate from,
        LocalDate to,
        int duration,
        CancellationToken ct
    ) => await InputAsync(page, from, to, duration, ct) is { } input ? OpeningsComputation.Openings(input) : [];

    /// <summary>The input those openings are computed from; null where the page offers none of the dates.</summary>
    public async Task<OpeningsInput?> InputAsync(
        AskedPage page,
        LocalDate from,
        LocalDate to,
        int duration,
        CancellationToken ct
    )
    {
        // Whatever is asked for, calendars are read no further than the page offers.
        var (first, last) = page.Rules.Window.Within(from, to, Today(page));
        if (first > last)
            return null;
        await PrepareAsync(page, first, last, duration, ct);
        return await ReadAsync(page, first, last, duration, ct);
    }

    /// <summary>A page, saved or not, as it is asked for openings from now on.</summary>
    /// <param name="page">With its seats, their hosts, its hours and its blocks.</param>
    /// <param name="party">How many people come; with one place a session, companions take none.</param>
    public AskedPage Rules(Page page, int party = 1) =>
        new(PageRulesOf.Row(page, clock.GetCurrentInstant()), page.CalendarChoices)
        {
            Overridden = page.Offer?.Overridden ?? [],
            Holder = page.Offer is null ? null : page.Id,
            Party = page.Places == 1 ? 1 : party,
        };

    /// <summary>The local date it is in the page's zone.</summary>
    public LocalDate Today(AskedPage page) => clock.GetCurrentInstant().InZone(page.Zone).Date;

    /// <summary>
    /// Makes sure the hosts' calendars are read as far as the request reaches. Never inside a transaction that holds
    /// locks.
    /// </summary>
    public Task PrepareAsync(AskedPage page, LocalDate from, LocalDate to, int duration, CancellationToken ct) =>
        unrolling.CoverAsync(page.HostIds, Range(page.Rules, from, to, duration), ct);

    /// <summary>
    /// The input for <paramref name="page"/>, saved or not, from one local date to another, both included.
    /// </summary>
    /// <param name="duration">Whole minutes.</param>
    /// <param name="titled">The hosts whose events' titles may be read; null where nobody asks what busy time comes
    /// from.</param>
    public async Task<OpeningsInput> ReadAsync(
        AskedPage page,
        LocalDate from,
        LocalDate to,
        int duration,
        CancellationToken ct,
        IReadOnlySet<Guid>? titled = null
    )
    {
        var rules = page.Rules;
        var hostIds = page.HostIds;
        var range = Range(rules, from, to, duration);
        // To the second, as case files write it, so that they come to the same.
        var now = Instant.FromUnixTimeSeconds(clock.GetCurrentInstant().ToUnixTimeSeconds());

        var hosts = await db
            .Hosts.AsNoTracking()
            .Include(host => host.Hours)
            .Where(host => hostIds.Contains(host.Id))
            .ToListAsync(ct);
        var busy = await BusyAsync(page, hostIds, range, now, titled, ct);
        var counted = (
            hosts.Exists(host => host.DailyCap is not null || host.WeeklyCap is not null)
                ? Weeks(rules, from, to, range)
                : range
        ).ToRange();
        var commitments = (
            await db
                .Commitments.AsNoTracking()
                .Where(commitment =>
                    hostIds.Contains(commitment.HostId)
                    && commitment.Span.Overlaps(counted)
                    && (commitment.HeldUntil == null || commitment.HeldUntil > now)
                )
                .ToListAsync(ct)
        ).ToLookup(
            commitment => commitment.HostId,
            commitment => new Commitment(
                commitment.Kind,
                Id(commitment.HolderId),
                commitment.PageId is { } id ? Id(id) : null,
                commitment.Span.LowerBound,
                commitment.Span.UpperBound,
                commitment.BufferBefore,
                commitment.BufferAfter
            )
        );

        var sessions = await SessionsAsync(rules, Weeks(rules, from, to, range), ct);
        return new OpeningsInput(
            now,
            from,
            to,
            duration,
            AsHolder: page.Holder is { } holder ? Id(holder) : null,
            Moving: null,
            rules with
            {
                Sessions = sessions,
            },
            [
                .. hosts.Select(host => new HostFacts(
                    Id(host.Id),
                    DateTimeZoneProviders.Tzdb[host.Zone],
                    host.DailyCap,
                    host.WeeklyCap,
                    IgnoresCalendars: page.Overridden.Contains(host.Id),
                    host.Hours?.Document.ToCore(),
                    [.. BusyOf(host).Select(pair => pair.Span)],
                    commitments[host.Id].ToArray()
                )
                {
                    BusySources = titled is null ? null : [.. BusyOf(host).Select(pair => pair.Source)],
                }),
            ]
        )
        {
            Party = page.Party,
        };

        // Who has left the team takes no more, also where a page was saved with them at that very moment.
        IEnumerable<(Span Span, BusySource Source)> BusyOf(Host host) =>
            host.RetiredAt is null ? busy[host.Id] : [(range, new BusySource("the team", "has left"))];
    }

    /// <summary>
    /// What the calendars that the page asks have of its hosts' time; all of it where one of them is not known well
    /// enough.
    /// </summary>
    private async Task<ILookup<Guid, (Span Span, BusySource Source)>> BusyAsync(
        AskedPage page,
        List<Guid> hostIds,
        Span range,
        Instant now,
        IReadOnlySet<Guid>? titled,
        CancellationToken ct
    )
    {
        var counts = await AskedCalendars.CountsForAsync(db, ct);
        var asked = (
            await db
                .CalendarHosts.AsNoTracking()
                .Where(row => hostIds.Contains(row.HostId))
                .Join(
                    db.Calendars,
                    row => row.CalendarId,
                    calendar => calendar.Id,
                    (row, calendar) => new { row.HostId, Calendar = calendar }
                )
                .ToListAsync(ct)
        )
            .Where(row => AskedCalendars.IsAsked(page.Calendars, row.HostId, row.Calendar.Id, row.Calendar.IsAsked))
            .ToDictionary(row => (row.HostId, row.Calendar.Id), row => row.Calendar);
        var (calendarIds, asRange) = (asked.Keys.Select(key => key.Id).Distinct().ToList(), range.ToRange());
        var entries = await db
            .CalendarEntries.AsNoTracking()
            .Where(entry =>
                hostIds.Contains(entry.HostId) && calendarIds.Contains(entry.CalendarId) && entry.Span.Overlaps(asRange)
            )
            .Where(AskedCalendars.Counts)
            .Select(entry => new
            {
                entry.HostId,
                entry.CalendarId,
                entry.Span,
                Title = titled == null ? null : entry.Title,
            })
            .ToListAsync(ct);

        var taken = entries
            .Where(entry => asked.ContainsKey((entry.HostId, entry.CalendarId)))
            .Select(entry =>
                (
                    entry.HostId,
                    Taken: (
                        entry.Span.ToSpan(),
                        new BusySource(
                            asked[(entry.HostId, entry.CalendarId)].Name,
                            titled?.Contains(entry.HostId) == true ? entry.Title : null
                        )
                    )
                )
            );
        var unknown = asked.SelectMany(
            pair =>
                AskedCalendars.FreshnessOf(pair.Value)?.IsTooOld(counts, now) == true
                    ? [range]
                    : Unknown(range, pair.Value.ReadRange.ToSpan()),
            (pair, span) =>
                (pair.Key.HostId, Taken: (span, new BusySource(pair.Value.Name, "out of reach for too long")))
        );
        return taken.Concat(unknown).ToLookup(pair => pair.HostId, pair => pair.Taken);
    }

    /// <summary>Sessions count for caps and places; a page without caps, for one guest a session, needs none.</summary>
    private async Task<IReadOnlyList<SessionFacts>> SessionsAsync(PageRules page, Span weeks, CancellationToken ct)
    {
        if (page is { DailyCap: null, WeeklyCap: null, Places: 1 })
            return [];
        var (pageId, range) = (Guid.Parse(page.Id), weeks.ToRange());
        var rows = await db
            .Sessions.AsNoTracking()
            .Where(session => session.PageId == pageId && session.Time.Overlaps(range))
            .OrderBy(session => session.Id)
            .Select(session => new
            {
                session.Id,
                session.Time,
                Guests = session.Bookings.Sum(booking => booking.Party),
            })
            .ToListAsync(ct);
        return rows.ConvertAll(row => new SessionFacts(
            Id(row.Id),
            row.Time.LowerBound,
            row.Time.UpperBound,
            row.Guests
        ));
    }

    /// <summary>The names of hosts by their ids as Core has them.</summary>
    public Task<Dictionary<string, string>> NamesAsync(IReadOnlyCollection<Guid> hostIds, CancellationToken ct) =>
        db
            .Hosts.Where(host => hostIds.Contains(host.Id))
            .ToDictionaryAsync(host => host.Id.ToString(), host => host.Name, ct);

    /// <summary>How rows' ids are written in Core's input.</summary>
    public static string Id(Guid id) => id.ToString("D");

    /// <summary>
    /// Time for which a calendar has not been read counts as busy: what is not known is never offered.
    /// </summary>
    private static IEnumerable<Span> Unknown(Span range, Span known)
    {
        yield return new Span(range.Start, Instant.Min(known.Start, range.End));
        yield return new Span(Instant.Max(known.End, range.Start), range.End);
    }

    /// <summary>
    /// The whole ISO weeks of the days asked for, in any zone, for what caps count; and no less than
    /// <paramref name="range"/>.
    /// </summary>
    private static Span Weeks(PageRules page, LocalDate from, LocalDate to, Span range)
    {
        var zones = Duration.FromDays(1);
        var monday = from.With(DateAdjusters.PreviousOrSame(IsoDayOfWeek.Monday));
        var sunday = to.With(DateAdjusters.NextOrSame(IsoDayOfWeek.Sunday));
        return new Span(
            Instant.Min(range.Start, LocalDays.Start(page.Zone, monday) - zones),
            Instant.Max(range.End, LocalDays.Start(page.Zone, sunday.PlusDays(1)) + zones)
        );
    }

    /// <summary>The days asked for, with a day and the largest buffers beyond both ends.</summary>
    private static Span Range(PageRules page, LocalDate from, LocalDate to, int duration)
    {
        var margin =
            Duration.FromDays(1) + Duration.FromMinutes(duration) + Duration.FromMinutes(PageLimits.MostBufferMinutes);
        return new Span(LocalDays.Start(page.Zone, from) - margin, LocalDays.Start(page.Zone, to.PlusDays(1)) + margin);
    }
}
