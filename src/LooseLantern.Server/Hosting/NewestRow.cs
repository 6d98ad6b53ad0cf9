using NodaTime;
using Npgsql;

namespace LooseLantern.Server.Hosting;

/// <summary>When something was last done in a database that a program with a clock of its own starts on.</summary>
public static class NewestRow
{
    public static async Task GoOnFromAsync(StartedClock clock, NpgsqlDataSource database)
    {
        // Each of them is written at the moment that it names; none of them names a time to come.
        await using var command = database.CreateCommand(
            """
            SELECT greatest(
                (SELECT max(at) FROM record),
                (SELECT max(booked_at) FROM bookings),
                (SELECT max(cancelled_at) FROM bookings),
                (SELECT max(seen_at) FROM signed_in),
                (SELECT max(received_at) FROM incoming_mail),
                (SELECT max(looked_at) FROM calendars))
            """
        );
        if (await command.ExecuteScalarAsync() is Instant newest)
            clock.GoOnFrom(newest);
    }
}
