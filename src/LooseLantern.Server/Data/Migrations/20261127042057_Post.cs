using Microsoft.EntityFrameworkCore.Migrations;
using NodaTime;

#nullable disable

namespace LooseLantern.Server.Data.Migrations
{
    /// <inheritdoc />
    public partial class Post : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            // Nothing has been sent so far, and what was written has no words; it would come too late by now.
            migrationBuilder.Sql("DELETE FROM messages");

            migrationBuilder.AddColumn<Instant>(
                name: "cancelled_at",
                table: "sessions",
                type: "timestamp with time zone",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "attempts",
                table: "messages",
                type: "integer",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<string>(
                name: "calendar",
                table: "messages",
                type: "text",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "calendar_method",
                table: "messages",
                type: "text",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "fault",
                table: "messages",
                type: "text",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "from_name",
                table: "messages",
                type: "text",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "html",
                table: "messages",
                type: "text",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<Instant>(
                name: "sending_until",
                table: "messages",
                type: "timestamp with time zone",
                nullable: true);

            migrationBuilder.AddColumn<Instant>(
                name: "sent_at",
                table: "messages",
                type: "timestamp with time zone",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "state",
                table: "messages",
                type: "text",
                nullable: false,
                defaultValue: "Due");

            migrationBuilder.AddColumn<string>(
                name: "subject",
                table: "messages",
                type: "text",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "text",
                table: "messages",
                type: "text",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<Instant>(
                name: "written_at",
                table: "messages",
                type: "timestamp with time zone",
                nullable: false,
                defaultValue: NodaTime.Instant.FromUnixTimeTicks(0L));

            migrationBuilder.AddColumn<string>(
                name: "cancel_word",
                table: "bookings",
                type: "text",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<Instant>(
                name: "cancelled_at",
                table: "bookings",
                type: "timestamp with time zone",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "cancelled_by",
                table: "bookings",
                type: "text",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "guest_language",
                table: "bookings",
                type: "text",
                nullable: false,
                defaultValue: "en");

            migrationBuilder.AddColumn<string>(
                name: "protected_reply_secret",
                table: "bookings",
                type: "text",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<byte[]>(
                name: "reply_secret_hash",
                table: "bookings",
                type: "bytea",
                nullable: false,
                defaultValue: new byte[0]);

            migrationBuilder.AddColumn<int>(
                name: "sequence",
                table: "bookings",
                type: "integer",
                nullable: false,
                defaultValue: 0);

            // Older bookings have no address of their own to answer to, and a hash that nothing comes to.
            migrationBuilder.Sql("UPDATE bookings SET reply_secret_hash = decode(replace(id::text, '-', ''), 'hex')");

            migrationBuilder.CreateIndex(
                name: "ix_messages_state_due_at",
                table: "messages",
                columns: new[] { "state", "due_at" });

            migrationBuilder.CreateIndex(
                name: "ix_messages_workspace_id_written_at",
                table: "messages",
                columns: new[] { "workspace_id", "written_at" });

            migrationBuilder.CreateIndex(
                name: "ix_bookings_reply_secret_hash",
                table: "bookings",
                column: "reply_secret_hash",
                unique: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "ix_messages_state_due_at",
                table: "messages");

            migrationBuilder.DropIndex(
                name: "ix_messages_workspace_id_written_at",
                table: "messages");

            migrationBuilder.DropIndex(
                name: "ix_bookings_reply_secret_hash",
                table: "bookings");

            migrationBuilder.DropColumn(
                name: "cancelled_at",
                table: "sessions");

            migrationBuilder.DropColumn(
                name: "attempts",
                table: "messages");

            migrationBuilder.DropColumn(
                name: "calendar",
                table: "messages");

            migrationBuilder.DropColumn(
                name: "calendar_method",
                table: "messages");

            migrationBuilder.DropColumn(
                name: "fault",
                table: "messages");

            migrationBuilder.DropColumn(
                name: "from_name",
                table: "messages");

            migrationBuilder.DropColumn(
                name: "html",
                table: "messages");

            migrationBuilder.DropColumn(
                name: "sending_until",
                table: "messages");

            migrationBuilder.DropColumn(
                name: "sent_at",
                table: "messages");

            migrationBuilder.DropColumn(
                name: "state",
                table: "messages");

            migrationBuilder.DropColumn(
                name: "subject",
                table: "messages");

            migrationBuilder.DropColumn(
                name: "text",
                table: "messages");

            migrationBuilder.DropColumn(
                name: "written_at",
                table: "messages");

            migrationBuilder.DropColumn(
                name: "cancel_word",
                table: "bookings");

            migrationBuilder.DropColumn(
                name: "cancelled_at",
                table: "bookings");

            migrationBuilder.DropColumn(
                name: "cancelled_by",
                table: "bookings");

            migrationBuilder.DropColumn(
                name: "guest_language",
                table: "bookings");

            migrationBuilder.DropColumn(
                name: "protected_reply_secret",
                table: "bookings");

            migrationBuilder.DropColumn(
                name: "reply_secret_hash",
                table: "bookings");

            migrationBuilder.DropColumn(
                name: "sequence",
                table: "bookings");
        }
    }
}
