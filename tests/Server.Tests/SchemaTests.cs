using LooseLantern.Server.Data.Model;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Server.Tests;

/// <summary>What the migrations make of an empty database is what the model says, and no more.</summary>
public class SchemaTests(World world)
{
    [Fact]
    public async Task No_change_of_the_model_waits_for_a_migration() =>
        (await world.LookAsync(db => Task.FromResult(db.Database.HasPendingModelChanges()))).ShouldBeFalse();

    [Fact]
    public async Task Every_column_is_there_with_its_type_and_no_other() =>
        (
            await RowsAsync(
                """
                SELECT c.relname || '.' || a.attname || ' ' || format_type(a.atttypid, a.atttypmod)
                    || CASE WHEN a.attnotnull THEN ' not null' ELSE '' END AS "Value"
                FROM pg_attribute a
                JOIN pg_class c ON c.oid = a.attrelid AND c.relkind = 'r' AND c.relnamespace = 'public'::regnamespace
                WHERE a.attnum > 0 AND NOT a.attisdropped AND c.relname <> '__EFMigrationsHistory'
                """
            )
        ).ShouldBe(
            await OfModelAsync(table =>
                table.Columns.Select(column =>
                    $"{table.Name}.{column.Name} {column.StoreType}{(column.IsNullable ? "" : " not null")}"
                )
            )
        );

    [Fact]
    public async Task Every_index_is_there_and_no_other() =>
        (
            await RowsAsync(
                """
                SELECT c.relname || '.' || i.relname || CASE WHEN x.indisunique THEN ' unique' ELSE '' END AS "Value"
                FROM pg_index x
                JOIN pg_class c ON c.oid = x.indrelid AND c.relnamespace = 'public'::regnamespace
                JOIN pg_class i ON i.oid = x.indexrelid
                WHERE NOT x.indisprimary AND NOT x.indisexclusion
                """
            )
        ).ShouldBe(
            (
                await OfModelAsync(table =>
                    table.Indexes.Select(index => $"{table.Name}.{index.Name}{(index.IsUnique ? " unique" : "")}")
                )
            )
                // Of expressions, for which EF has no words.
                .Concat([
                    "bookings.ix_bookings_booker",
                    "bookings.ix_bookings_by_guest",
                    "bookings.ix_bookings_ended",
                    "bookings.ix_bookings_flagged",
                    "bookings.ix_bookings_guest",
                    "bookings.ix_bookings_newest",
                    "bookings.ix_bookings_waiting",
                    "bookings.ix_bookings_words",
                    "guest_emails.ix_guest_emails_words",
                    "guests.ix_guests_words",
                    "links.ix_links_words",
                    "messages.ix_messages_reader",
                    "messages.ix_messages_words",
                    "pages.ix_pages_of_desks",
                    "pages.ix_pages_title",
                    "sessions.ix_sessions_start",
                    "written_events.ix_written_events_outside",
                ])
                .Order(StringComparer.Ordinal)
        );

    [Fact]
    public async Task Every_foreign_key_is_there_with_what_becomes_of_its_rows_and_no_other() =>
        (
            await RowsAsync(
                """
                SELECT t.relname || '.' || k.conname || ' ' || k.confdeltype::text AS "Value"
                FROM pg_constraint k JOIN pg_class t ON t.oid = k.conrelid
                WHERE k.contype = 'f' AND k.connamespace = 'public'::regnamespace
                """
            )
        ).ShouldBe(
            await OfModelAsync(table =>
                table.ForeignKeyConstraints.Select(key => $"{table.Name}.{key.Name} {WrittenMail(key.OnDeleteAction)}")
            )
        );

    /// <summary>EF has no words for it, so nothing but this would miss it.</summary>
    [Fact]
    public async Task The_constraint_that_no_double_booking_passes_is_there() =>
        (
            await RowsAsync(
                $"""
                SELECT pg_get_constraintdef(oid) AS "Value" FROM pg_constraint
                WHERE conname = '{CommitmentRow.NoDoubleBooking}' AND conrelid = 'commitments'::regclass
                """
            )
        ).ShouldBe(["EXCLUDE USING gist (host_id WITH =, holder_id WITH <>, span WITH &&)"]);

    private async Task<List<string>> RowsAsync(string sql) =>
        [
            .. (await world.LookAsync(db => db.Database.SqlQueryRaw<string>(sql).ToListAsync())).Order(
                StringComparer.Ordinal
            ),
        ];

    private async Task<List<string>> OfModelAsync(Func<ITable, IEnumerable<string>> lines) =>
        [
            .. (await world.LookAsync(db => Task.FromResult(db.Model.GetRelationalModel().Tables)))
                .SelectMany(lines)
                .Order(StringComparer.Ordinal),
        ];

    /// <summary>As pg_constraint.confdeltype has it.</summary>
    private static char WrittenMail(ReferentialAction action) =>
        action switch
        {
            ReferentialAction.Cascade => 'c',
            ReferentialAction.SetNull => 'n',
            ReferentialAction.Restrict => 'r',
            _ => 'a',
        };
}
