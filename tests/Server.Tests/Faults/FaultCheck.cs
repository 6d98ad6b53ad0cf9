using System.Globalization;
using LooseLantern.Server.Data.Model;
using Npgsql;

namespace Server.Tests.Faults;

/// <summary>What must be so once everything is up again and all that was due is done.</summary>
internal sealed class FaultCheck(FaultWorld world, FaultRun run)
{
    private static readonly TimeSpan Patience = TimeSpan.FromMinutes(5);

    private readonly List<string> _faults = [];

    /// <returns>What is not as it must be.</returns>
    public async Task<IReadOnlyList<string>> LookAsync()
    {
        await SettleAsync();
        _faults.AddRange(world.Outages.Failures);
        _faults.AddRange(world.Cluster.Deadlocks());
        await BookingsAsync();
        await SessionsAsync();
        await MessagesAsync();
        await CalendarsAsync();
        return _faults;
    }

    /// <summary>
    /// Waits until nothing is due. Pauses before another try, and leases of servers that were killed, are cut short:
    /// they would only take longer.
    /// </summary>
    private async Task SettleAsync()
    {
        // Many take long; what matters is that it goes on.
        var (until, least) = (DateTime.UtcNow + Patience, long.MaxValue);
        while (true)
        {
            var now = (await world.Ada.GetAsync("/api/token")).GetProperty("now").GetString();
            // Whatever a server that runs is at takes less than half a minute; the leases are of three.
            await AskAsync(
                $"""
                UPDATE messages SET due_at = '{now}' WHERE state = 'Due' AND attempts > 0 AND due_at > '{now}';
                UPDATE messages SET sending_until = NULL WHERE state = 'Due' AND sending_until < '{now}'::timestamptz + interval '150 seconds';
                UPDATE tellings SET working_until = NULL WHERE working_until < '{now}'::timestamptz + interval '30 seconds';
                UPDATE written_events SET due_at = '{now}' WHERE due_at > '{now}';
                UPDATE written_events SET writing_until = NULL WHERE due_at IS NOT NULL AND writing_until < '{now}'::timestamptz + interval '150 seconds'
                """
            );
            var left = await AskAsync(
                $"""
                SELECT 'message ' || kind || ' to ' || to_email || ' ' || coalesce(fault, '') FROM messages WHERE state = 'Due' AND due_at <= '{now}'
                UNION ALL SELECT 'telling of ' || page_id FROM tellings
                UNION ALL SELECT 'event ' || uid || ' ' || coalesce(fault, '') FROM written_events WHERE due_at IS NOT NULL
                """
            );
            if (left.Count == 0)
                return;
            if (left.Count < least)
                (until, least) = (DateTime.UtcNow + Patience, left.Count);
            if (DateTime.UtcNow > until)
            {
                _faults.AddRange(left.Take(10).Select(row => $"never done: {row}"));
                return;
            }

            await Task.Delay(500);
        }
    }

    /// <summary>Every booking that anybody was told of is there, as its guest was told last.</summary>
    private async Task BookingsAsync()
    {
        foreach (var kept in run.All)
        {
            var seen = await run.SeeAsync(kept);
            var isCancelled = seen.GetProperty("cancelledAt").ValueKind != JsonValueKind.Null;
            if (isCancelled != kept.IsCancelled || seen.GetProperty("start").GetString() != kept.Start)
                _faults.Add(
                    $"{kept.Email} was told {kept.Start}, cancelled {kept.IsCancelled}; it is {seen.GetProperty("start")}, cancelled {isCancelled}"
                );
        }

        var told = run
            .All.Where(kept => !kept.IsCancelled)
            .Select(kept => kept.Email)
            .ToHashSet(StringComparer.Ordinal);
        foreach (var email in await AskAsync("SELECT guest_email FROM bookings WHERE cancelled_at IS NULL"))
        {
            if (!told.Remove(email))
                _faults.Add($"a booking of {email} of which nobody was told");
        }

        foreach (var kept in run.All.Where(kept => kept is { Answer: not null, IsCancelled: false }))
        {
            var reply = (await AskAsync($"SELECT reply FROM bookings WHERE guest_email = '{kept.Email}'")).Single();
            if (!reply.Equals(kept.Answer, StringComparison.OrdinalIgnoreCase))
                _faults.Add($"{kept.Email} answered {kept.Answer}; it is {reply}");
        }
    }

    /// <summary>No host is in two places, no session is without its people, and nothing is held for nobody.</summary>
    private async Task SessionsAsync()
    {
        await NoneAsync(
            "two sessions of one host at one time",
            """
            SELECT a.id::text FROM sessions a JOIN session_hosts ah ON ah.session_id = a.id
            JOIN session_hosts bh ON bh.host_id = ah.host_id JOIN sessions b ON b.id = bh.session_id AND b.id > a.id
            WHERE a.cancelled_at IS NULL AND b.cancelled_at IS NULL AND a.time && b.time
            """
        );
        await NoneAsync(
            "a session without guests",
            "SELECT s.id::text FROM sessions s WHERE s.cancelled_at IS NULL AND NOT EXISTS (SELECT 1 FROM bookings b WHERE b.session_id = s.id AND b.cancelled_at IS NULL)"
        );
        await NoneAsync(
            "a session without hosts",
            "SELECT s.id::text FROM sessions s WHERE s.cancelled_at IS NULL AND NOT EXISTS (SELECT 1 FROM session_hosts h WHERE h.session_id = s.id)"
        );
        await NoneAsync(
            "a booking in a session that is cancelled",
            "SELECT b.id::text FROM bookings b JOIN sessions s ON s.id = b.session_id WHERE b.cancelled_at IS NULL AND s.cancelled_at IS NOT NULL"
        );
        await NoneAsync(
            "a session whose hosts' time is not kept, or not the session's",
            """
            SELECT s.id::text FROM sessions s JOIN session_hosts h ON h.session_id = s.id
            LEFT JOIN commitments c ON c.holder_id = s.id AND c.host_id = h.host_id
            WHERE s.cancelled_at IS NULL AND (c.id IS NULL OR c.span <> s.time)
            """
        );
        await NoneAsync(
            "time that is kept for nobody",
            """
            SELECT c.id::text FROM commitments c
            WHERE NOT EXISTS (SELECT 1 FROM sessions s WHERE s.id = c.holder_id AND s.cancelled_at IS NULL)
                AND NOT EXISTS (SELECT 1 FROM links l WHERE l.id = c.holder_id AND l.takes_more AND l.revoked_at IS NULL)
            """
        );
    }

    /// <summary>Each guest was told once of each thing that became of their booking, and has that mail once.</summary>
    private async Task MessagesAsync()
    {
        await NoneAsync(
            "a message that failed",
            "SELECT kind || ' ' || to_email || ' ' || coalesce(fault, '') FROM messages WHERE state = 'Failed'"
        );
        var sent = (
            await AskAsync("SELECT to_email || ' ' || message_id || ' ' || kind FROM messages WHERE state = 'Sent'")
        ).ConvertAll(row => row.Split(' '));
        foreach (var box in sent.GroupBy(row => row[0]))
        {
            var mails = world.StandIn.Mail.Mails(box.Key);
            foreach (var row in box)
            {
                if (mails.Count(mail => mail.MessageId == row[1]) is not 1 and var times)
                    _faults.Add($"{row[2]} to {row[0]} is there {times} times");
            }
        }

        foreach (var kept in run.All)
        {
            var kinds = sent.Where(row => row[0] == kept.Email).Select(row => row[2]).ToList();
            Expect(kept, kinds, nameof(MessageKind.BookedForGuest), 1);
            Expect(kept, kinds, nameof(MessageKind.MovedForGuest), kept.Moves);
            Expect(kept, kinds, nameof(MessageKind.CancelledForGuest), kept.IsCancelled ? 1 : 0);
        }
    }

    private void Expect(Kept kept, List<string> kinds, string kind, int count)
    {
        if (kinds.Count(one => one == kind) is var found && found != count)
            _faults.Add($"{kept.Email} was mailed {kind} {found} times instead of {count}");
    }

    /// <summary>Hosts' own calendars have what is booked of them, at its time, and nothing else of ours.</summary>
    private async Task CalendarsAsync()
    {
        Guid[] hosts = [world.Ada.HostId, world.Bo.HostId];
        for (var i = 0; i < hosts.Length; i++)
        {
            var wanted = (
                await AskAsync(
                    $"""
                    SELECT s.uid || ' ' || to_char(lower(s.time) AT TIME ZONE 'UTC', 'YYYYMMDD"T"HH24MISS"Z"') FROM sessions s
                    JOIN session_hosts h ON h.session_id = s.id WHERE h.host_id = '{hosts[
                        i
                    ]}' AND s.cancelled_at IS NULL
                    UNION ALL
                    SELECT w.uid || ' ' || to_char(lower(c.span) AT TIME ZONE 'UTC', 'YYYYMMDD"T"HH24MISS"Z"') FROM written_events w
                    JOIN commitments c ON c.id = w.hold_id WHERE w.host_id = '{hosts[i]}' AND w.is_wanted
                    """
                )
            ).ToHashSet(StringComparer.Ordinal);
            var there = world
                .Calendars[i]
                .Objects.Values.Select(text =>
                    $"{MailScene.Property(text, "UID")["UID:".Length..]} {MailScene.Property(text[text.IndexOf("BEGIN:VEVENT", StringComparison.Ordinal)..], "DTSTART").Split(':')[^1]}"
                )
                .ToHashSet(StringComparer.Ordinal);
            foreach (var row in wanted.Except(there).Take(5))
                _faults.Add($"not in the calendar: {row}; {await KnownAsync(hosts[i], row)}");
            foreach (var row in there.Except(wanted).Take(5))
                _faults.Add($"left in the calendar: {row}; {await KnownAsync(hosts[i], row)}");
        }
    }

    /// <summary>What is known of what should stand there, for whoever seeks the fault.</summary>
    private async Task<string> KnownAsync(Guid host, string row) =>
        string.Join(
            ", ",
            await AskAsync(
                $"SELECT w::text FROM written_events w WHERE host_id = '{host}' AND uid = '{row.Split(' ')[0]}'"
            )
        );

    private async Task NoneAsync(string what, string sql) =>
        _faults.AddRange((await AskAsync(sql)).Take(5).Select(row => $"{what}: {row}"));

    private async Task<List<string>> AskAsync(string sql)
    {
        await using var connection = new NpgsqlConnection(world.Cluster.ConnectionString);
        await connection.OpenAsync();
        await using var command = new NpgsqlCommand(sql, connection);
        await using var reader = await command.ExecuteReaderAsync();
        var rows = new List<string>();
        while (reader.FieldCount > 0 && await reader.ReadAsync())
            rows.Add(Convert.ToString(reader.GetValue(0), CultureInfo.InvariantCulture) ?? "");
        return rows;
    }
}
