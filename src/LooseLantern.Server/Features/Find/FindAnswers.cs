using LooseLantern.Server.Data;
using LooseLantern.Server.Features.GuestBook;
using LooseLantern.Server.Features.Links;
using LooseLantern.Server.Tenancy;
using NodaTime;

namespace LooseLantern.Server.Features.Find;

/// <param name="Email">The one that is written to; empty where there is none.</param>
/// <param name="Zone">IANA id; null where nobody knows it.</param>
public sealed record FoundGuest(Guid Id, string Name, string Email, string? Zone, string? Language);

/// <param name="Title">Of its page.</param>
public sealed record FoundBooking(Guid Id, string GuestName, string Title, Instant Start);

/// <param name="Path">From the root of the site.</param>
public sealed record FoundPage(Guid Id, string Title, string Path, bool IsPublished);

/// <param name="Guests">Whom it is for, by name.</param>
public sealed record FoundLink(Guid Id, string Title, string Guests, Instant MadeAt);

public sealed record FoundHost(Guid Id, string Name, bool IsPerson);

/// <summary>What was found by words, a few of each kind.</summary>
/// <param name="Bookings">Those nearest to now.</param>
/// <param name="Links">The latest made; only for who coordinates.</param>
public sealed record FindAnswer(
    Instant Now,
    IReadOnlyList<FoundGuest> Guests,
    IReadOnlyList<FoundBooking> Bookings,
    IReadOnlyList<FoundPage> Pages,
    IReadOnlyList<FoundLink> Links,
    IReadOnlyList<FoundHost> Hosts
);

/// <summary>Finds guests, bookings, pages, links and hosts by words, in one round trip.</summary>
public sealed class FindAnswers(LanternDb db, Tenant tenant, GuestFinding guests, IClock clock)
{
    /// <summary>Of each kind.</summary>
    private const int Most = 5;

    private const int MostWords = 6;
    private const int MostLetters = 200;

    /// <summary>The indexes by words know three letters and more: of what is shorter, what grows is left out.</summary>
    private const int Shortest = 3;

    /// <param name="typed">Every word of it stands in what is found; an address of a page may be pasted whole.</param>
    public async Task<FindAnswer> OfAsync(string typed, bool coordinates, CancellationToken ct)
    {
        var words = WordsOf(typed);
        var now = clock.GetCurrentInstant();
        if (words.Length == 0)
            return new FindAnswer(now, [], [], [], [], []);
        var values = new Dictionary<string, object> { ["workspace"] = tenant.WorkspaceId!.Value, ["now"] = now };
        foreach (var (i, word) in words.Index())
            values[$"word{i}"] = Hosting.Words.Containing(word);
        var isLong = words.Any(word => word.Length >= Shortest);
        var trip = new RoundTrip(db);
        var pages = trip.Ask(
            $"""
            SELECT p.id, p.title, '/' || d.address || '/' || p.address, p.state = 'Published'
            FROM pages p JOIN desks d ON d.id = p.desk_id
            WHERE p.workspace_id = @workspace AND p.offer IS NULL AND p.state <> 'Archived'{Each(
                words,
                "p.title ILIKE {0} OR '/' || d.address || '/' || p.address ILIKE {0} OR p.details #>> '{{naming,name}}' ILIKE {0}"
            )}
            ORDER BY p.title, p.id LIMIT {Most}
            """,
            values,
            row => new FoundPage(row.GetGuid(0), row.GetString(1), row.GetString(2), row.GetBoolean(3))
        );
        var hosts = trip.Ask(
            $"""
            SELECT h.id, h.name, h.person_id IS NOT NULL FROM hosts h
            WHERE h.workspace_id = @workspace AND h.retired_at IS NULL{Each(words, "h.name ILIKE {0}")}
            ORDER BY h.name, h.id LIMIT {Most}
            """,
            values,
            row => new FoundHost(row.GetGuid(0), row.GetString(1), row.GetBoolean(2))
        );
        var bookings = isLong ? AskBookings(trip, words, values) : null;
        var links = isLong && coordinates ? AskLinks(trip, words) : null;
        var found = await guests.OfAsync(new GuestFilter(string.Join(' ', words)), ct);
        var people = trip.Ask(
            $"""
            SELECT g.id, g.name, coalesce((SELECT e.email FROM guest_emails e WHERE e.guest_id = g.id ORDER BY e.place, e.key LIMIT 1), ''), g.zone, g.language
            FROM {found.From} ORDER BY g.name_key, g.id LIMIT {Most}
            """,
            found.Values,
            row => new FoundGuest(
                row.GetGuid(0),
                row.GetString(1),
                row.GetString(2),
                row.IsDBNull(3) ? null : row.GetString(3),
                row.IsDBNull(4) ? null : row.GetString(4)
            )
        );
        await trip.RunAsync(ct);
        return new FindAnswer(now, people.Rows, bookings?.Rows ?? [], pages.Rows, links?.Rows ?? [], hosts.Rows);
    }

    private static Asked<FoundBooking> AskBookings(
        RoundTrip trip,
        IReadOnlyList<string> words,
        Dictionary<string, object> values
    ) =>
        trip.Ask(
            $"""
            SELECT b.id, b.guest_name, p.title, lower(s.time)
            FROM bookings b JOIN sessions s ON s.id = b.session_id JOIN pages p ON p.id = s.page_id
            WHERE b.workspace_id = @workspace AND b.cancelled_at IS NULL{Each(
                [.. words.Where(word => word.Length >= Shortest)],
                "(b.guest_name || E'\\n' || b.guest_email || E'\\n' || b.booker_name || E'\\n' || b.booker_email) ILIKE {0}",
                words
            )}
            ORDER BY abs(extract(epoch FROM lower(s.time) - @now)), b.id LIMIT {Most}
            """,
            values,
            row => new FoundBooking(row.GetGuid(0), row.GetString(1), row.GetString(2), row.GetFieldValue<Instant>(3))
        );

    private Asked<FoundLink> AskLinks(RoundTrip trip, IReadOnlyList<string> words)
    {
        var (sql, values) = LinkSearch.Containing(string.Join(' ', words.Where(word => word.Length >= Shortest)));
        return trip.Ask(
            $"""
            SELECT l.id, p.title, coalesce((SELECT string_agg(guest->>'name', ', ') FROM jsonb_array_elements(l.guests) AS guest), ''), l.made_at
            FROM links l JOIN pages p ON p.id = l.id
            WHERE l.workspace_id = @workspace{sql} ORDER BY l.made_at DESC, l.id LIMIT {Most}
            """,
            new Dictionary<string, object>(values) { ["workspace"] = tenant.WorkspaceId!.Value },
            row => new FoundLink(row.GetGuid(0), row.GetString(1), row.GetString(2), row.GetFieldValue<Instant>(3))
        );
    }

    /// <summary>That each of the words stands there.</summary>
    /// <param name="all">Among which they are numbered, where these are only some.</param>
    private static string Each(IReadOnlyList<string> words, string stands, IReadOnlyList<string>? all = null) =>
        string.Concat(
            words.Select(word =>
                $" AND ({string.Format(System.Globalization.CultureInfo.InvariantCulture, stands, $"@word{(all ?? words).Index().First(pair => pair.Item == word).Index}")})"
            )
        );

    /// <summary>What is pasted as a whole address is looked for by its path.</summary>
    private static string[] WordsOf(string typed)
    {
        var text = typed.Length > MostLetters ? typed[..MostLetters] : typed;
        if (
            Uri.TryCreate(text.Trim(), UriKind.Absolute, out var address)
            && address.Scheme is "http" or "https"
            && address.AbsolutePath.Length > 1
        )
            text = address.AbsolutePath;
        return
        [
            .. string.Concat(text.Select(letter => char.IsControl(letter) ? ' ' : letter))
                .Split(' ', StringSplitOptions.RemoveEmptyEntries)
                .Distinct(StringComparer.OrdinalIgnoreCase)
                .Take(MostWords),
        ];
    }
}
