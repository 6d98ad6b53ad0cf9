using LooseLantern.Server.Data;
using LooseLantern.Server.Features.Bookings;
using LooseLantern.Server.Features.Links;
using LooseLantern.Server.Features.Post;
using LooseLantern.Server.Tenancy;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Npgsql;
using NpgsqlTypes;

namespace LooseLantern.Server.Demo;

/// <summary>How much of everything the large demo has beside the small one.</summary>
public sealed record LargeDemoSize(int Hosts, int Pages, int Bookings, int Links)
{
    public static readonly LargeDemoSize Usual = new(200, 400, 50_000, 10_000);
}

/// <summary>
/// The small demo with much more of the same in its workspace: berths as hosts, a survey page for each, bookings from a
/// year and a half back to half a year ahead with the mail of each, and links, of which one in twenty is still out. It
/// is written by the database itself, copied from rows of the small demo, to see what lists and editors cost where
/// there is much.
/// </summary>
public static class LargeDemo
{
    private const string BaseDesk = "brackwater";
    private const string BasePage = "hull-survey";

    /// <summary>So many guests there are; their names repeat with it.</summary>
    private const int GuestsComeAgain = 11 * 7 * 130;

    /// <summary>Adds it to the small demo, unless it is there.</summary>
    public static async Task FillOnceAsync(IServiceProvider services, LargeDemoSize size, CancellationToken ct)
    {
        await using var scope = services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<LanternDb>();
        var now = scope.ServiceProvider.GetRequiredService<IClock>().GetCurrentInstant();
        if (
            await db
                .Pages.IgnoreQueryFilters()
                .AnyAsync(page => page.Address == "berth-1" && page.Desk!.Address == BaseDesk, ct)
        )
            return;
        await TellAsync(services, db, ct);
        await using (var transaction = await db.Database.BeginTransactionAsync(ct))
        {
            await KeepSecretsAsync(scope.ServiceProvider, db, size, ct);
            await HostsAndPagesAsync(db, size, now, ct);
            await BookingsAsync(db, size, now, ct);
            await LinksAsync(db, size, now, ct);
            await transaction.CommitAsync(ct);
        }

        // The planner goes by what there is now, as it does by itself within a minute.
        await db.Database.ExecuteSqlAsync($"ANALYZE", ct);
    }

    /// <summary>Guests are told what those of the small demo are told, so that has to be written.</summary>
    private static async Task TellAsync(IServiceProvider services, LanternDb db, CancellationToken ct)
    {
        foreach (var workspace in await db.Workspaces.IgnoreQueryFilters().Select(row => row.Id).ToListAsync(ct))
        {
            await using var scope = services.CreateAsyncScope();
            scope.ServiceProvider.GetRequiredService<Tenant>().Enter(workspace);
            await scope.ServiceProvider.GetRequiredService<Tellings>().WriteAllAsync(null, ct);
        }
    }

    /// <summary>
    /// Makes room for what is worked out, and a secret for each booking and link, as every other has.
    /// </summary>
    private static async Task KeepSecretsAsync(
        IServiceProvider services,
        LanternDb db,
        LargeDemoSize size,
        CancellationToken ct
    )
    {
        await db.Database.ExecuteSqlAsync(
            $"""
            CREATE TEMP TABLE large_secrets
                (n int PRIMARY KEY, hash bytea, protected text, reply_hash bytea, reply_protected text) ON COMMIT DROP;
            CREATE TEMP TABLE large_addresses (n int PRIMARY KEY, hash bytea, protected text) ON COMMIT DROP;
            CREATE TEMP TABLE large_hosts (n int PRIMARY KEY, id uuid) ON COMMIT DROP;
            CREATE TEMP TABLE large_pages (n int PRIMARY KEY, id uuid, seat uuid) ON COMMIT DROP;
            CREATE TEMP TABLE large_base (page uuid, seat uuid, host uuid) ON COMMIT DROP;
            CREATE TEMP TABLE large_bookings
                (n int PRIMARY KEY, id uuid, session uuid, host uuid, page uuid, guest text, start timestamptz, booked timestamptz)
                ON COMMIT DROP;
            CREATE TEMP TABLE large_links
                (n int PRIMARY KEY, id uuid, is_out boolean, made timestamptz, ends date, guest text, model uuid) ON COMMIT DROP;
            CREATE TEMP TABLE large_link_seats (link uuid, model uuid, id uuid) ON COMMIT DROP
            """,
            ct
        );
        var (links, replies, addresses) = (
            services.GetRequiredService<PrivateLinks>(),
            services.GetRequiredService<ReplyAddresses>(),
            services.GetRequiredService<LinkAddresses>()
        );
        var connection = (NpgsqlConnection)db.Database.GetDbConnection();
        await using (var copy = await connection.BeginBinaryImportAsync("COPY large_secrets FROM STDIN BINARY", ct))
        {
            for (var n = 0; n < size.Bookings; n++)
            {
                var (secret, reply) = (links.Create(), replies.Create());
                await copy.StartRowAsync(ct);
                await copy.WriteAsync(n, NpgsqlDbType.Integer, ct);
                await copy.WriteAsync(secret.Hash, NpgsqlDbType.Bytea, ct);
                await copy.WriteAsync(secret.Protected, NpgsqlDbType.Text, ct);
                await copy.WriteAsync(reply.Hash, NpgsqlDbType.Bytea, ct);
                await copy.WriteAsync(reply.Protected, NpgsqlDbType.Text, ct);
            }

            await copy.CompleteAsync(ct);
        }

        await using (var copy = await connection.BeginBinaryImportAsync("COPY large_addresses FROM STDIN BINARY", ct))
        {
            for (var n = 0; n < size.Links; n++)
            {
                var address = addresses.Create();
                await copy.StartRowAsync(ct);
                await copy.WriteAsync(n, NpgsqlDbType.Integer, ct);
                await copy.WriteAsync(address.Hash, NpgsqlDbType.Bytea, ct);
                await copy.WriteAsync(address.Protected, NpgsqlDbType.Text, ct);
            }

            await copy.CompleteAsync(ct);
        }
    }

    private static async Task HostsAndPagesAsync(LanternDb db, LargeDemoSize size, Instant now, CancellationToken ct)
    {
        await db.Database.ExecuteSqlAsync(
            $"""
            INSERT INTO large_hosts
                SELECT n, gen_random_uuid() AS id FROM generate_series(0, {size.Hosts} - 1) AS n;
            INSERT INTO large_pages
                SELECT n, gen_random_uuid() AS id, gen_random_uuid() AS seat FROM generate_series(0, {size.Pages} - 1) AS n;
            INSERT INTO large_base
                SELECT page.id AS page, (SELECT id FROM seats WHERE page_id = page.id ORDER BY position LIMIT 1) AS seat,
                    (SELECT id FROM hosts WHERE workspace_id = page.workspace_id AND person_id IS NULL ORDER BY name LIMIT 1) AS host
                FROM pages AS page JOIN desks ON desks.id = page.desk_id
                WHERE page.address = {BasePage} AND desks.address = {BaseDesk}
            """,
            ct
        );
        await db.Database.ExecuteSqlAsync(
            $"""
            INSERT INTO hosts SELECT made.* FROM large_hosts, large_base JOIN hosts AS model ON model.id = large_base.host,
                LATERAL jsonb_populate_record(model, jsonb_build_object('id', large_hosts.id, 'name', 'Berth ' || n + 1,
                    'busy_secret_hash', NULL, 'protected_busy_secret', NULL, 'written_calendar_id', NULL)) AS made
            """,
            ct
        );
        await db.Database.ExecuteSqlAsync(
            $"""
            INSERT INTO pages SELECT made.* FROM large_pages, large_base JOIN pages AS model ON model.id = large_base.page,
                LATERAL jsonb_populate_record(model, jsonb_build_object('id', large_pages.id, 'address', 'berth-' || n + 1,
                    'title', 'Survey at berth ' || n + 1, 'draft', NULL)) AS made
            """,
            ct
        );
        await db.Database.ExecuteSqlAsync(
            $"""
            INSERT INTO seats SELECT made.* FROM large_pages, large_base JOIN seats AS model ON model.id = large_base.seat,
                LATERAL jsonb_populate_record(model, jsonb_build_object('id', large_pages.seat, 'page_id', large_pages.id)) AS made
            """,
            ct
        );
        // The first is that of the bookings; pools have one to three.
        await db.Database.ExecuteSqlAsync(
            $"""
            INSERT INTO seat_hosts (seat_id, host_id, workspace_id, position, since)
            SELECT large_pages.seat, large_hosts.id, hosts.workspace_id, nth, {now}
            FROM large_pages CROSS JOIN LATERAL generate_series(0, least(large_pages.n % 3, {size.Hosts} - 1)) AS nth
            JOIN large_hosts ON large_hosts.n = (large_pages.n + nth * 7) % {size.Hosts}
            JOIN hosts ON hosts.id = large_hosts.id
            ON CONFLICT DO NOTHING
            """,
            ct
        );
        await db.Database.ExecuteSqlAsync(
            $"""
            INSERT INTO page_editions SELECT made.* FROM large_pages, large_base
                JOIN LATERAL (SELECT one FROM page_editions AS one WHERE page_id = large_base.page ORDER BY number LIMIT 1) AS model ON true,
                LATERAL jsonb_populate_record(model.one, jsonb_build_object('id', gen_random_uuid(), 'page_id', large_pages.id, 'number', 1)) AS made
            """,
            ct
        );
    }

    /// <summary>Every third day one of each host, at an hour of its own.</summary>
    private static async Task BookingsAsync(LanternDb db, LargeDemoSize size, Instant now, CancellationToken ct)
    {
        await db.Database.ExecuteSqlAsync(
            $"""
            INSERT INTO large_bookings
            SELECT k AS n, gen_random_uuid() AS id, gen_random_uuid() AS session, host.id AS host, page.id AS page,
                (ARRAY['Ottilie', 'Jasper', 'Tilda', 'Osric', 'Imke', 'Fergal', 'Esme', 'Lucius', 'Aksel', 'Eskil', 'Wren'])[1 + k % 11]
                    || ' ' || (ARRAY['Holloway', 'Pellow', 'Ferrow', 'Sandvig', 'Tornby', 'Ronne', 'Mulhearn'])[1 + k / 11 % 7] AS guest,
                ((({now} AT TIME ZONE 'Europe/Copenhagen')::date - 540 + k / {size.Hosts} * 3)
                    + make_time(8 + host.n % 8, 0, 0)) AT TIME ZONE 'Europe/Copenhagen' AS start, NULL AS booked
            FROM generate_series(0, {size.Bookings} - 1) AS k
            JOIN large_hosts AS host ON host.n = k % {size.Hosts}
            JOIN large_pages AS page ON page.n = host.n % {size.Pages}
            """,
            ct
        );
        // Two weeks ahead, but nobody has booked yet what is booked tomorrow.
        await db.Database.ExecuteSqlAsync(
            $"UPDATE large_bookings SET booked = least(start - interval '14 days', {now} - n % 500 * interval '1 hour')",
            ct
        );
        await db.Database.ExecuteSqlAsync(
            $"""
            INSERT INTO sessions (id, workspace_id, page_id, time, uid, sequence)
            SELECT session, pages.workspace_id, page, tstzrange(start, start + interval '45 minutes'), session, 0
            FROM large_bookings JOIN pages ON pages.id = page
            """,
            ct
        );
        await db.Database.ExecuteSqlAsync(
            $"""
            INSERT INTO session_hosts (session_id, host_id, workspace_id, seat, assigned_at)
            SELECT session, host, pages.workspace_id, 0, booked FROM large_bookings JOIN pages ON pages.id = page
            """,
            ct
        );
        await db.Database.ExecuteSqlAsync(
            $"""
            INSERT INTO commitments (id, workspace_id, host_id, holder_id, kind, page_id, span, buffer_before, buffer_after)
            SELECT gen_random_uuid(), pages.workspace_id, host, session, 'Booking', page,
                tstzrange(start, start + interval '45 minutes'), pages.buffer_before, pages.buffer_after
            FROM large_bookings JOIN pages ON pages.id = page
            """,
            ct
        );
        await db.Database.ExecuteSqlAsync(
            $"""
            INSERT INTO bookings SELECT made.* FROM large_bookings AS large
                JOIN large_secrets AS secret ON secret.n = large.n
                CROSS JOIN LATERAL (
                    SELECT one FROM bookings AS one JOIN sessions ON sessions.id = one.session_id
                    JOIN large_base ON large_base.page = sessions.page_id
                    WHERE one.cancelled_at IS NULL AND one.waits_until IS NULL AND one.wish_start IS NULL ORDER BY one.id LIMIT 1) AS model,
                LATERAL jsonb_populate_record(model.one, jsonb_build_object('id', large.id, 'session_id', large.session, 'guest_id', NULL, 'booker_id', NULL,
                    'guest_name', guest, 'guest_email', lower(replace(guest, ' ', '.')) || '.' || large.n % {GuestsComeAgain} || '@guests.example',
                    'booker_name', '', 'booker_email', '', 'booked_at', booked,
                    'secret_hash', secret.hash, 'protected_secret', secret.protected, 'answer_secret_hash', NULL,
                    'protected_answer_secret', NULL, 'reply_secret_hash', secret.reply_hash, 'protected_reply_secret', secret.reply_protected)) AS made
            """,
            ct
        );
        await db.Database.ExecuteSqlAsync(
            $"""
            INSERT INTO messages SELECT made.* FROM large_bookings AS large
                CROSS JOIN LATERAL (
                    SELECT one FROM messages AS one JOIN pages ON pages.workspace_id = one.workspace_id JOIN large_base ON large_base.page = pages.id
                    WHERE one.kind = 'BookedForGuest' ORDER BY one.id LIMIT 1) AS model,
                LATERAL jsonb_populate_record(model.one, jsonb_build_object('id', gen_random_uuid(), 'booking_id', large.id,
                    'person_id', NULL, 'state', 'Sent', 'held_back', NULL, 'fault', NULL, 'to_name', guest, 'to_email', lower(replace(guest, ' ', '.')) || '.' || large.n % {GuestsComeAgain} || '@guests.example',
                    'message_id', large.id || '@guests.example', 'written_at', booked,
                    'due_at', booked, 'sent_at', booked,
                    'subject', 'Survey: ' || to_char(start, 'FMDD Month YYYY'), 'html', '', 'calendar', NULL, 'calendar_method', NULL)) AS made
            """,
            ct
        );
    }

    private static async Task LinksAsync(LanternDb db, LargeDemoSize size, Instant now, CancellationToken ct)
    {
        await db.Database.ExecuteSqlAsync(
            $"""
            INSERT INTO large_links
            SELECT n, gen_random_uuid() AS id, n % 20 = 0 AS is_out,
                {now} - make_interval(days => 30 + n % 500) AS made,
                ({now} AT TIME ZONE 'Europe/Copenhagen')::date + CASE WHEN n % 20 = 0 THEN 5 + n % 9 ELSE -1 - n % 500 END AS ends,
                (ARRAY['Ottilie', 'Jasper', 'Tilda', 'Osric', 'Imke', 'Fergal', 'Esme', 'Lucius', 'Aksel', 'Eskil', 'Wren'])[1 + n % 11]
                    || ' ' || (ARRAY['Holloway', 'Pellow', 'Ferrow', 'Sandvig', 'Tornby', 'Ronne', 'Mulhearn'])[1 + n / 11 % 7] AS guest,
                (SELECT links.id FROM links JOIN pages ON pages.id = links.id
                    JOIN pages AS base ON base.workspace_id = links.workspace_id JOIN large_base ON large_base.page = base.id
                    WHERE links.state = 'Out' AND pages.state = 'Published' ORDER BY links.id LIMIT 1) AS model
            FROM generate_series(0, {size.Links} - 1) AS n
            """,
            ct
        );
        await db.Database.ExecuteSqlAsync(
            $"""
            INSERT INTO pages SELECT made.* FROM large_links JOIN pages AS example ON example.id = large_links.model,
                LATERAL jsonb_populate_record(example, jsonb_build_object('id', large_links.id, 'address', '~' || large_links.id,
                    'created_at', large_links.made, 'title', example.title || ', ' || n + 1)) AS made
            """,
            ct
        );
        await db.Database.ExecuteSqlAsync(
            $"""
            INSERT INTO large_link_seats
            SELECT large_links.id AS link, seats.id AS model, gen_random_uuid() AS id
            FROM large_links JOIN seats ON seats.page_id = large_links.model
            """,
            ct
        );
        await db.Database.ExecuteSqlAsync(
            $"""
            INSERT INTO seats SELECT made.* FROM large_link_seats AS large JOIN seats AS example ON example.id = large.model,
                LATERAL jsonb_populate_record(example, jsonb_build_object('id', large.id, 'page_id', large.link)) AS made
            """,
            ct
        );
        await db.Database.ExecuteSqlAsync(
            $"""
            INSERT INTO seat_hosts SELECT made.* FROM large_link_seats AS large JOIN seat_hosts AS example ON example.seat_id = large.model,
                LATERAL jsonb_populate_record(example, jsonb_build_object('seat_id', large.id)) AS made
            """,
            ct
        );
        await db.Database.ExecuteSqlAsync(
            $"""
            INSERT INTO links SELECT made.* FROM large_links AS large JOIN links AS example ON example.id = large.model
                JOIN large_addresses AS address ON address.n = large.n,
                LATERAL jsonb_populate_record(example, jsonb_build_object('id', large.id, 'secret_hash', address.hash,
                    'guests', jsonb_build_array((example.guests->0) || jsonb_build_object('name', guest,
                        'email', lower(replace(guest, ' ', '.')) || '.' || large.n % {GuestsComeAgain} || '@guests.example')),
                    'protected_secret', address.protected, 'made_at', made, 'out_at', made, 'given_at', made, 'ends_on', ends,
                    'ends_at', (ends + 1)::timestamp AT TIME ZONE 'Europe/Copenhagen',
                    'check_due_at', {now} + make_interval(days => CASE WHEN is_out THEN 1 ELSE 3650 END))) AS made
            """,
            ct
        );
    }
}
