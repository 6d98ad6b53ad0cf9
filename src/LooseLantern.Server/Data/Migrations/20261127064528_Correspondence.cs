using System;
using Microsoft.EntityFrameworkCore.Migrations;
using NodaTime;

#nullable disable

namespace LooseLantern.Server.Data.Migrations
{
    /// <inheritdoc />
    public partial class Correspondence : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropForeignKey(
                name: "fk_messages_bookings_booking_id",
                table: "messages");

            migrationBuilder.AddColumn<int>(
                name: "approval_hours",
                table: "pages",
                type: "integer",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "changes",
                table: "pages",
                type: "jsonb",
                nullable: false,
                defaultValue: "{\"mayMove\":true,\"moveUntil\":0,\"mayCancel\":true,\"cancelUntil\":0,\"mostBrought\":3,\"cancelWords\":\"\",\"askWhom\":\"\"}");

            migrationBuilder.AddColumn<string>(
                name: "post",
                table: "pages",
                type: "jsonb",
                nullable: false,
                defaultValue: "{\"toGuests\":\"invitation\",\"reminders\":[1440,60],\"booked\":null,\"moved\":null,\"cancelled\":null,\"reminder\":null,\"eventTitle\":\"\",\"eventText\":\"\",\"hostWords\":\"\",\"links\":[]}");

            migrationBuilder.AlterColumn<Guid>(
                name: "booking_id",
                table: "messages",
                type: "uuid",
                nullable: true,
                oldClrType: typeof(Guid),
                oldType: "uuid");

            migrationBuilder.AddColumn<Guid[]>(
                name: "file_ids",
                table: "messages",
                type: "uuid[]",
                nullable: false,
                defaultValue: new Guid[0]);

            migrationBuilder.AddColumn<Guid>(
                name: "person_id",
                table: "messages",
                type: "uuid",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "protected_secret",
                table: "messages",
                type: "text",
                nullable: true);

            migrationBuilder.AddColumn<byte[]>(
                name: "answer_secret_hash",
                table: "bookings",
                type: "bytea",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "companions",
                table: "bookings",
                type: "jsonb",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.AddColumn<string>(
                name: "protected_answer_secret",
                table: "bookings",
                type: "text",
                nullable: true);

            migrationBuilder.AddColumn<Instant>(
                name: "replied_at",
                table: "bookings",
                type: "timestamp with time zone",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "reply",
                table: "bookings",
                type: "text",
                nullable: false,
                defaultValue: "None");

            migrationBuilder.AddColumn<Instant>(
                name: "waits_until",
                table: "bookings",
                type: "timestamp with time zone",
                nullable: true);

            migrationBuilder.AddColumn<Instant>(
                name: "wish_end",
                table: "bookings",
                type: "timestamp with time zone",
                nullable: true);

            migrationBuilder.AddColumn<Instant>(
                name: "wish_start",
                table: "bookings",
                type: "timestamp with time zone",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "hearing",
                table: "AspNetUsers",
                type: "jsonb",
                nullable: false,
                defaultValue: "{\"own\":\"atOnce\",\"actedFor\":\"never\",\"others\":\"never\",\"reminded\":true,\"quietFrom\":null,\"quietUntil\":null,\"dailyAt\":\"07:00:00\"}");

            migrationBuilder.CreateTable(
                name: "incoming_mail",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    booking_id = table.Column<Guid>(type: "uuid", nullable: false),
                    received_at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    from_name = table.Column<string>(type: "text", nullable: false),
                    from_address = table.Column<string>(type: "text", nullable: false),
                    subject = table.Column<string>(type: "text", nullable: false),
                    text = table.Column<string>(type: "text", nullable: false),
                    calendar = table.Column<string>(type: "text", nullable: true),
                    meaning = table.Column<string>(type: "text", nullable: false),
                    not_understood = table.Column<string>(type: "text", nullable: true),
                    wish_start = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    wish_end = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    fingerprint = table.Column<byte[]>(type: "bytea", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_incoming_mail", x => x.id);
                    table.ForeignKey(
                        name: "fk_incoming_mail_bookings_booking_id",
                        column: x => x.booking_id,
                        principalTable: "bookings",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_incoming_mail_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "page_files",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    page_id = table.Column<Guid>(type: "uuid", nullable: false),
                    name = table.Column<string>(type: "text", nullable: false),
                    media_type = table.Column<string>(type: "text", nullable: false),
                    bytes = table.Column<byte[]>(type: "bytea", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_page_files", x => x.id);
                    table.ForeignKey(
                        name: "fk_page_files_pages_page_id",
                        column: x => x.page_id,
                        principalTable: "pages",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_page_files_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "password_resets",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    person_id = table.Column<Guid>(type: "uuid", nullable: false),
                    secret_hash = table.Column<byte[]>(type: "bytea", nullable: false),
                    expires_at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    used_at = table.Column<Instant>(type: "timestamp with time zone", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_password_resets", x => x.id);
                    table.ForeignKey(
                        name: "fk_password_resets_asp_net_users_person_id",
                        column: x => x.person_id,
                        principalTable: "AspNetUsers",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_password_resets_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "video_rooms",
                columns: table => new
                {
                    session_id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    link = table.Column<string>(type: "text", nullable: true),
                    code = table.Column<string>(type: "text", nullable: false),
                    is_wanted = table.Column<bool>(type: "boolean", nullable: false),
                    wish = table.Column<int>(type: "integer", nullable: false),
                    due_at = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    working_until = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    attempts = table.Column<int>(type: "integer", nullable: false),
                    fault = table.Column<string>(type: "text", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_video_rooms", x => x.session_id);
                    table.ForeignKey(
                        name: "fk_video_rooms_sessions_session_id",
                        column: x => x.session_id,
                        principalTable: "sessions",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_video_rooms_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "ix_bookings_answer_secret_hash",
                table: "bookings",
                column: "answer_secret_hash",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_bookings_waits_until",
                table: "bookings",
                column: "waits_until");

            migrationBuilder.CreateIndex(
                name: "ix_incoming_mail_booking_id_fingerprint",
                table: "incoming_mail",
                columns: new[] { "booking_id", "fingerprint" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_incoming_mail_workspace_id",
                table: "incoming_mail",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_incoming_mail_workspace_id_booking_id_received_at",
                table: "incoming_mail",
                columns: new[] { "workspace_id", "booking_id", "received_at" });

            migrationBuilder.CreateIndex(
                name: "ix_page_files_page_id",
                table: "page_files",
                column: "page_id");

            migrationBuilder.CreateIndex(
                name: "ix_page_files_workspace_id",
                table: "page_files",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_password_resets_person_id",
                table: "password_resets",
                column: "person_id");

            migrationBuilder.CreateIndex(
                name: "ix_password_resets_secret_hash",
                table: "password_resets",
                column: "secret_hash",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_password_resets_workspace_id",
                table: "password_resets",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_video_rooms_due_at",
                table: "video_rooms",
                column: "due_at");

            migrationBuilder.CreateIndex(
                name: "ix_video_rooms_workspace_id",
                table: "video_rooms",
                column: "workspace_id");

            migrationBuilder.AddForeignKey(
                name: "fk_messages_bookings_booking_id",
                table: "messages",
                column: "booking_id",
                principalTable: "bookings",
                principalColumn: "id");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropForeignKey(
                name: "fk_messages_bookings_booking_id",
                table: "messages");

            migrationBuilder.DropTable(
                name: "incoming_mail");

            migrationBuilder.DropTable(
                name: "page_files");

            migrationBuilder.DropTable(
                name: "password_resets");

            migrationBuilder.DropTable(
                name: "video_rooms");

            migrationBuilder.DropIndex(
                name: "ix_bookings_answer_secret_hash",
                table: "bookings");

            migrationBuilder.DropIndex(
                name: "ix_bookings_waits_until",
                table: "bookings");

            migrationBuilder.DropColumn(
                name: "approval_hours",
                table: "pages");

            migrationBuilder.DropColumn(
                name: "changes",
                table: "pages");

            migrationBuilder.DropColumn(
                name: "post",
                table: "pages");

            migrationBuilder.DropColumn(
                name: "file_ids",
                table: "messages");

            migrationBuilder.DropColumn(
                name: "person_id",
                table: "messages");

            migrationBuilder.DropColumn(
                name: "protected_secret",
                table: "messages");

            migrationBuilder.DropColumn(
                name: "answer_secret_hash",
                table: "bookings");

            migrationBuilder.DropColumn(
                name: "companions",
                table: "bookings");

            migrationBuilder.DropColumn(
                name: "protected_answer_secret",
                table: "bookings");

            migrationBuilder.DropColumn(
                name: "replied_at",
                table: "bookings");

            migrationBuilder.DropColumn(
                name: "reply",
                table: "bookings");

            migrationBuilder.DropColumn(
                name: "waits_until",
                table: "bookings");

            migrationBuilder.DropColumn(
                name: "wish_end",
                table: "bookings");

            migrationBuilder.DropColumn(
                name: "wish_start",
                table: "bookings");

            migrationBuilder.DropColumn(
                name: "hearing",
                table: "AspNetUsers");

            migrationBuilder.AlterColumn<Guid>(
                name: "booking_id",
                table: "messages",
                type: "uuid",
                nullable: false,
                defaultValue: new Guid("00000000-0000-0000-0000-000000000000"),
                oldClrType: typeof(Guid),
                oldType: "uuid",
                oldNullable: true);

            migrationBuilder.AddForeignKey(
                name: "fk_messages_bookings_booking_id",
                table: "messages",
                column: "booking_id",
                principalTable: "bookings",
                principalColumn: "id",
                onDelete: ReferentialAction.Cascade);
        }
    }
}
