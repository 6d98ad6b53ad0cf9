using LooseLantern.Core;
using LooseLantern.Core.Calendars;
using LooseLantern.Core.Days;
using LooseLantern.Core.LineUps;
using LooseLantern.Core.Openings;
using LooseLantern.Server.Data;
using LooseLantern.Server.Data.Model;
using LooseLantern.Server.Features.Calendars;
using NodaTime;
using Npgsql;

namespace LooseLantern.Server.Features.Openings;

/// <summary>What openings of a page are asked for.</summary>
/// <param name="From">The first local date of the page's zone.</param>
/// <param name="To">The last, included.</param>
/// <param name="Duration">Whole minutes.</param>
/// <param name="Titled">The hosts whose events' titles may be read; null where nobody asks what busy time comes
/// from.</param>
public sealed record FactsWanted(
    AskedPage Page,
    LocalDate From,
    LocalDate To,
    int Duration,
    IReadOnlySet<Guid>? Titled = null
)
{
    /// <summary>The days asked for, with a day and the largest buffers beyond both ends.</summary>
    public Span Range
    {
        get
        {
            var margin =
                NodaTime.Duration.FromDays(1)
                + NodaTime.Duration.FromMinutes(Duration)
                + NodaTime.Duration.FromMinutes(PageLimits.MostBufferMinutes);
            return new Span(
                LocalDays.Start(Page.Zone, From) - margin,
                LocalDays.Start(Page.Zone, To.PlusDays(1)) + margin
            );
        }
    }

    /// <summary>
    /// The whole ISO weeks of the days asked for, in any zone, for what caps count; and no less than
    /// <see cref="Range"/>.
    /// </summary>
    public Span Weeks
    {
        get
        {
            var (zones, range) = (NodaTime.Duration.FromDays(1), Range);
            var monday = From.With(DateAdjusters.PreviousOrSame(IsoDayOfWeek.Monday));
            var sunday = To.With(DateAdjusters.NextOrSame(IsoDayOfWeek.Sunday));
            return new Span(
                Instant.Min(range.Start, LocalDays.Start(Page.Zone, monday) - zones),
                Instant.Max(range.End, LocalDays.Start(Page.Zone, sunday.PlusDays(1)) + zones)
            );
        }
    }
}

/// <summary>
/// The facts that openings are computed from, asked in a round trip that others may share: the same number of
/// statements for one host and for fifty.
/// </summary>
public sealed class FactsAsked
{
    private static readonly BusySource HasLeft = new("the team", "has left");

    private readonly FactsWanted _wanted;
    private readonly KeptHours _keptHours;
    private readonly Instant _now;
    private readonly HashSet<Guid> _hostIds;
    private readonly Asked<HostRow> _hosts;
    private readonly Asked<CalendarRow> _calendars;
    private readonly Asked<EntryRow> _entries;
    private readonly Asked<(Guid HostId, Commitment Commitment, Instant? HeldUntil)> _commitments;
    private readonly Asked<SessionFacts>? _sessions;
    private readonly Asked<int> _closesAfterHours;
    private readonly Asked<Guid?>? _keepers;

    private sealed record HostRow(
        Guid Id,
        string Zone,
        int? DailyCap,
        int? WeeklyCap,
        bool IsRetired,
        Guid? HoursId,
        int HoursVersion
    );

    private sealed record CalendarRow(Guid HostId, Guid Id, string Name, bool IsAsked, Freshness? Freshness, Span Read);

    private sealed record EntryRow(Guid HostId, Guid CalendarId, Span Span, string? Title);

    /// <param name="trip">Made by the caller, before the input is read.</param>
    /// <param name="workspace">That the page and its hosts are of.</param>
    /// <param name="now">To the second.</param>
    public FactsAsked(RoundTrip trip, KeptHours keptHours, Guid workspace, FactsWanted wanted, Instant now)
    {
        (_wanted, _keptHours, _now) = (wanted, keptHours, now);
        var hosts = wanted.Page.HostIds.ToArray();
        _hostIds = [.. hosts];
        var (range, weeks) = (wanted.Range.ToRange(), wanted.Weeks.ToRange());
        _closesAfterHours = trip.Ask($"SELECT closes_after_hours FROM workspaces WHERE id = {workspace}", row =>
            row.GetInt32(0)
        );
        _hosts = trip.Ask(
            $"""
            SELECT h.id, h.zone, h.daily_cap, h.weekly_cap, h.retired_at IS NOT NULL, h.hours_id, coalesce(r.version, 0)
            FROM hosts h LEFT JOIN hours r ON r.id = h.hours_id
            WHERE h.workspace_id = {workspace} AND h.id = ANY({hosts}) ORDER BY h.id
            """,
            row => new HostRow(
                row.GetGuid(0),
                row.GetString(1),
                row.IsDBNull(2) ? null : row.GetInt32(2),
                row.IsDBNull(3) ? null : row.GetInt32(3),
                row.GetBoolean(4),
                row.IsDBNull(5) ? null : row.GetGuid(5),
                row.GetInt32(6)
            )
        );
        _calendars = trip.Ask(
            $"""
            SELECT f.host_id, c.id, c.name, c.is_asked, c.kind, c.looked_at, c.unreachable_since, c.refresh_seconds, lower(c.read_range), upper(c.read_range)
            FROM calendar_hosts f JOIN calendars c ON c.id = f.calendar_id
            WHERE f.workspace_id = {workspace} AND f.host_id = ANY({hosts})
            """,
            row => new CalendarRow(
                row.GetGuid(0),
                row.GetGuid(1),
                row.GetString(2),
                row.GetBoolean(3),
                AskedCalendars.FreshnessOf(
                    Enum.Parse<CalendarKind>(row.GetString(4)),
                    row.GetFieldValue<Instant>(5),
                    row.IsDBNull(6) ? null : row.GetFieldValue<Instant>(6),
                    row.IsDBNull(7) ? null : row.GetInt32(7)
                ),
                row.IsDBNull(8) ? default : SpanAt(row, 8)
            )
        );
        _entries = trip.Ask(
            $"""
            SELECT e.host_id, e.calendar_id, lower(e.span), upper(e.span), CASE WHEN {wanted.Titled
                is not null} THEN e.title END
            FROM unnest({hosts}) AS wanted (id)
            JOIN calendar_entries e ON e.host_id = wanted.id AND e.workspace_id = {workspace} AND e.span && {range}
            JOIN calendars c ON c.id = e.calendar_id
            WHERE NOT e.free AND (c.tentative_counts OR NOT e.tentative)
            """,
            row => new EntryRow(
                row.GetGuid(0),
                row.GetGuid(1),
                SpanAt(row, 2),
                row.IsDBNull(4) ? null : row.GetString(4)
            )
        );
        _commitments = trip.Ask(
            $"""
            SELECT host_id, kind, holder_id, page_id, lower(span), upper(span), buffer_before, buffer_after, held_until
            FROM unnest({hosts}) AS wanted (id)
            JOIN commitments ON host_id = wanted.id AND workspace_id = {workspace} AND span && {weeks}
            WHERE (held_until IS NULL OR held_until > {now})
            """,
            row =>
                (
                    row.GetGuid(0),
                    new Commitment(
                        Enum.Parse<CommitmentKind>(row.GetString(1)),
                        OpeningsInputs.Id(row.GetGuid(2)),
                        row.IsDBNull(3) ? null : OpeningsInputs.Id(row.GetGuid(3)),
                        row.GetFieldValue<Instant>(4),
                        row.GetFieldValue<Instant>(5),
                        row.GetInt32(6),
                        row.GetInt32(7)
                    ),
                    row.IsDBNull(8) ? (Instant?)null : row.GetFieldValue<Instant>(8)
                )
        );
        if (wanted.Page is { ConsidersKeepers: true, For: { } known })
        {
            var (keys, address) = ((known.Keys ?? []).ToArray(), known.Address ?? []);
            var pageId = Guid.Parse(wanted.Page.Rules.Id);
            _keepers = trip.Ask(
                $"""
                SELECT DISTINCT h.id FROM guests g LEFT JOIN hosts h ON h.person_id = g.keeper_id AND h.retired_at IS NULL
                WHERE g.workspace_id = {workspace} AND (g.id = {known.Guest ?? Guid.Empty}
                    OR g.id IN (SELECT l.guest_id FROM link_guests l WHERE l.link_id = {known.Link ?? Guid.Empty})
                    OR g.id IN (SELECT e.guest_id FROM guest_emails e WHERE e.workspace_id = {workspace} AND e.key = ANY({keys}))
                    OR g.id IN (SELECT e.guest_id FROM personal_addresses a
                        JOIN guest_emails e ON e.workspace_id = a.workspace_id AND e.key = lower(btrim(a.email))
                        WHERE a.workspace_id = {workspace} AND a.page_id = {pageId} AND a.secret_hash = {address}))
                """,
                row => row.IsDBNull(0) ? (Guid?)null : row.GetGuid(0)
            );
        }

        // Sessions count for caps and places; a page without caps, for one guest a session, needs none.
        _sessions = !NeedsSessions(wanted)
            ? null
            : trip.Ask(
                $"""
                SELECT s.id, lower(s.time), upper(s.time),
                    coalesce((SELECT sum(b.party) FROM bookings b WHERE b.session_id = s.id AND b.cancelled_at IS NULL), 0)::int
                FROM sessions s
                WHERE s.workspace_id = {workspace} AND s.page_id = {Guid.Parse(wanted.Page.Rules.Id)}
                    AND s.time && {weeks} AND s.cancelled_at IS NULL
                ORDER BY s.id
                """,
                row => new SessionFacts(
                    OpeningsInputs.Id(row.GetGuid(0)),
                    row.GetFieldValue<Instant>(1),
                    row.GetFieldValue<Instant>(2),
                    row.GetInt32(3)
                )
            );
    }

    /// <summary>The sets of hours that its hosts follow.</summary>
    public IEnumerable<Guid> HoursIds => _hosts.Rows.Select(host => host.HoursId).OfType<Guid>();

    /// <summary>
    /// From when on the clock alone changes them: a hold runs out, or a calendar is not known well enough any more.
    /// </summary>
    public Instant GoodUntil
    {
        get
        {
            var counts = Duration.FromHours(_closesAfterHours.Row);
            return _commitments
                .Rows.Select(row => row.HeldUntil)
                .Concat(_calendars.Rows.Select(row => row.Freshness?.TooOldAt(counts)))
                .OfType<Instant>()
                // What was too old already becomes known again by a look, which is noted.
                .Where(at => at > _now)
                .DefaultIfEmpty(Instant.MaxValue)
                .Min();
        }
    }

    /// <summary>
    /// Whether these facts are enough for another question, about no other hosts or days, and no other page where its
    /// sessions count.
    /// </summary>
    public bool Cover(FactsWanted wanted) =>
        wanted.Titled is null
        && (!wanted.Page.ConsidersKeepers || wanted.Page.For == _wanted.Page.For)
        && (!NeedsSessions(wanted) || (_sessions is not null && wanted.Page.Rules.Id == _wanted.Page.Rules.Id))
        && _wanted.Range.Contains(wanted.Range)
        && _wanted.Weeks.Contains(wanted.Weeks)
        && wanted.Page.HostIds.TrueForAll(_hostIds.Contains);

    /// <summary>The input of the computation, once the round trip was made.</summary>
    /// <remarks>It asks once more only for hours that nobody asked for since they were changed.</remarks>
    public Task<OpeningsInput> InputAsync(LanternDb db, CancellationToken ct) => InputAsync(db, _wanted, ct);

    /// <summary>The same, for another question that these facts <see cref="Cover"/>.</summary>
    public async Task<OpeningsInput> InputAsync(LanternDb db, FactsWanted wanted, CancellationToken ct)
    {
        var ids = wanted.Page.HostIds.ToHashSet();
        var hosts = _hosts.Rows.Where(host => ids.Contains(host.Id)).ToList();
        var hours = await _keptHours.OfAsync(
            db,
            [.. hosts.Where(host => host.HoursId is not null).Select(host => (host.HoursId!.Value, host.HoursVersion))],
            ct
        );
        var (page, range, busy) = (wanted.Page, wanted.Range, Busy(wanted));
        // Beyond the days that are asked for they only count where somebody's sessions are capped.
        var isCapped = hosts.Exists(host => host.DailyCap is not null || host.WeeklyCap is not null);
        var commitments = _commitments
            .Rows.Where(row => isCapped || new Span(row.Commitment.Start, row.Commitment.End).Meets(range))
            .ToLookup(row => row.HostId, row => row.Commitment);
        var input = new OpeningsInput(
            _now,
            wanted.From,
            wanted.To,
            wanted.Duration,
            AsHolder: page.Holder is { } holder ? OpeningsInputs.Id(holder) : null,
            Moving: null,
            page.Rules with
            {
                Sessions = NeedsSessions(wanted) ? _sessions!.Rows : [],
            },
            [
                .. hosts.Select(host => new HostFacts(
                    OpeningsInputs.Id(host.Id),
                    DateTimeZoneProviders.Tzdb[host.Zone],
                    host.DailyCap,
                    host.WeeklyCap,
                    IgnoresCalendars: page.Overridden.Contains(host.Id),
                    host.HoursId is { } id ? hours[(id, host.HoursVersion)] : null,
                    [.. BusyOf(host).Select(pair => pair.Span)],
                    commitments[host.Id].ToArray()
                )
                {
                    BusySources = wanted.Titled is null ? null : [.. BusyOf(host).Select(pair => pair.Source)],
                }),
            ]
        )
        {
            Party = page.Party,
        };
        // Several guests of one host's are theirs; else nobody's.
        return wanted.Page.ConsidersKeepers && _keepers?.Rows is [{ } keeper]
            ? Keepers.Narrow(input, OpeningsInputs.Id(keeper))
            : input;

        // Who has left the team takes no more, also where a page was saved with them at that very moment.
        IEnumerable<(Span Span, BusySource Source)> BusyOf(HostRow host) =>
            host.IsRetired ? [(range, HasLeft)] : busy[host.Id];
    }

    /// <summary>
    /// What the calendars that the page asks have of its hosts' time; all of it where one of them is not known well
    /// enough.
    /// </summary>
    private ILookup<Guid, (Span Span, BusySource Source)> Busy(FactsWanted wanted)
    {
        var (counts, range) = (Duration.FromHours(_closesAfterHours.Row), wanted.Range);
        var asked = _calendars
            .Rows.Where(row => AskedCalendars.IsAsked(wanted.Page.Calendars, row.HostId, row.Id, row.IsAsked))
            .ToDictionary(row => (row.HostId, row.Id));
        var taken = _entries
            .Rows.Where(entry => asked.ContainsKey((entry.HostId, entry.CalendarId)))
            .Select(entry =>
                (
                    entry.HostId,
                    Taken: (
                        entry.Span,
                        new BusySource(
                            asked[(entry.HostId, entry.CalendarId)].Name,
                            wanted.Titled?.Contains(entry.HostId) == true ? entry.Title : null
                        )
                    )
                )
            );
        var unknown = asked.Values.SelectMany(
            calendar => calendar.Freshness?.IsTooOld(counts, _now) == true ? [range] : Unknown(range, calendar.Read),
            (calendar, span) =>
                (calendar.HostId, Taken: (span, new BusySource(calendar.Name, "out of reach for too long")))
        );
        return taken.Concat(unknown).ToLookup(pair => pair.HostId, pair => pair.Taken);
    }

    /// <summary>
    /// Time for which a calendar has not been read counts as busy: what is not known is never offered.
    /// </summary>
    private static IEnumerable<Span> Unknown(Span range, Span known)
    {
        yield return new Span(range.Start, Instant.Min(known.Start, range.End));
        yield return new Span(Instant.Max(known.End, range.Start), range.End);
    }

    private static bool NeedsSessions(FactsWanted wanted) =>
        wanted.Page.Rules is not { DailyCap: null, WeeklyCap: null, Places: 1 };

    private static Span SpanAt(NpgsqlDataReader row, int column) =>
        new(row.GetFieldValue<Instant>(column), row.GetFieldValue<Instant>(column + 1));
}
