using System;
using Microsoft.EntityFrameworkCore.Migrations;
using NodaTime;
using Npgsql.EntityFrameworkCore.PostgreSQL.Metadata;

#nullable disable

namespace LooseLantern.Server.Data.Migrations
{
    /// <inheritdoc />
    public partial class CalendarsOutside : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropForeignKey(
                name: "fk_calendars_hosts_host_id",
                table: "calendars");

            migrationBuilder.RenameColumn(
                name: "source",
                table: "calendars",
                newName: "old_source");

            migrationBuilder.RenameColumn(
                name: "file_name",
                table: "calendars",
                newName: "source");

            migrationBuilder.AddColumn<string>(
                name: "kind",
                table: "calendars",
                type: "text",
                nullable: false,
                defaultValue: "File");

            migrationBuilder.AddColumn<int>(
                name: "closes_after_hours",
                table: "workspaces",
                type: "integer",
                nullable: false,
                defaultValue: 24);

            migrationBuilder.AddColumn<long>(
                name: "resource_id",
                table: "unread_events",
                type: "bigint",
                nullable: false,
                defaultValue: 0L);

            migrationBuilder.AddColumn<string>(
                name: "calendar_choices",
                table: "pages",
                type: "jsonb",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.AddColumn<Guid>(
                name: "written_calendar_id",
                table: "hosts",
                type: "uuid",
                nullable: true);

            migrationBuilder.AlterColumn<Guid>(
                name: "host_id",
                table: "calendars",
                type: "uuid",
                nullable: true,
                oldClrType: typeof(Guid),
                oldType: "uuid");

            migrationBuilder.AddColumn<Guid>(
                name: "account_id",
                table: "calendars",
                type: "uuid",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "attempts",
                table: "calendars",
                type: "integer",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<string>(
                name: "collection_url",
                table: "calendars",
                type: "text",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "entity_tag",
                table: "calendars",
                type: "text",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "fault",
                table: "calendars",
                type: "text",
                nullable: true);

            migrationBuilder.AddColumn<Instant>(
                name: "looked_at",
                table: "calendars",
                type: "timestamp with time zone",
                nullable: false,
                defaultValue: NodaTime.Instant.FromUnixTimeTicks(0L));

            migrationBuilder.AddColumn<Instant>(
                name: "looking_until",
                table: "calendars",
                type: "timestamp with time zone",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "looks",
                table: "calendars",
                type: "integer",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<bool>(
                name: "may_write",
                table: "calendars",
                type: "boolean",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<Instant>(
                name: "next_look_at",
                table: "calendars",
                type: "timestamp with time zone",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "protected_address",
                table: "calendars",
                type: "text",
                nullable: true);

            migrationBuilder.AddColumn<Instant>(
                name: "read_whole_at",
                table: "calendars",
                type: "timestamp with time zone",
                nullable: false,
                defaultValue: NodaTime.Instant.FromUnixTimeTicks(0L));

            migrationBuilder.AddColumn<int>(
                name: "refresh_seconds",
                table: "calendars",
                type: "integer",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "sync_token",
                table: "calendars",
                type: "text",
                nullable: true);

            migrationBuilder.AddColumn<bool>(
                name: "tells_changes",
                table: "calendars",
                type: "boolean",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<Instant>(
                name: "unreachable_since",
                table: "calendars",
                type: "timestamp with time zone",
                nullable: true);

            migrationBuilder.AddColumn<long>(
                name: "resource_id",
                table: "calendar_entries",
                type: "bigint",
                nullable: false,
                defaultValue: 0L);

            migrationBuilder.AddColumn<byte[]>(
                name: "feed_secret_hash",
                table: "AspNetUsers",
                type: "bytea",
                nullable: true);

            migrationBuilder.AddColumn<bool>(
                name: "feeds_all",
                table: "AspNetUsers",
                type: "boolean",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<string>(
                name: "protected_feed_secret",
                table: "AspNetUsers",
                type: "text",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "calendar_accounts",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    url = table.Column<string>(type: "text", nullable: false),
                    user_name = table.Column<string>(type: "text", nullable: false),
                    protected_password = table.Column<string>(type: "text", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_calendar_accounts", x => x.id);
                    table.ForeignKey(
                        name: "fk_calendar_accounts_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "calendar_hosts",
                columns: table => new
                {
                    calendar_id = table.Column<Guid>(type: "uuid", nullable: false),
                    host_id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_calendar_hosts", x => new { x.calendar_id, x.host_id });
                    table.ForeignKey(
                        name: "fk_calendar_hosts_calendars_calendar_id",
                        column: x => x.calendar_id,
                        principalTable: "calendars",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_calendar_hosts_hosts_host_id",
                        column: x => x.host_id,
                        principalTable: "hosts",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_calendar_hosts_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "calendar_resources",
                columns: table => new
                {
                    id = table.Column<long>(type: "bigint", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityByDefaultColumn),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    calendar_id = table.Column<Guid>(type: "uuid", nullable: false),
                    path = table.Column<string>(type: "text", nullable: false),
                    entity_tag = table.Column<string>(type: "text", nullable: true),
                    body = table.Column<byte[]>(type: "bytea", nullable: false),
                    own = table.Column<string>(type: "jsonb", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_calendar_resources", x => x.id);
                    table.ForeignKey(
                        name: "fk_calendar_resources_calendars_calendar_id",
                        column: x => x.calendar_id,
                        principalTable: "calendars",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_calendar_resources_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "written_events",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    host_id = table.Column<Guid>(type: "uuid", nullable: false),
                    calendar_id = table.Column<Guid>(type: "uuid", nullable: false),
                    uid = table.Column<string>(type: "text", nullable: false),
                    session_id = table.Column<Guid>(type: "uuid", nullable: true),
                    hold_id = table.Column<Guid>(type: "uuid", nullable: true),
                    hold_title = table.Column<string>(type: "text", nullable: false),
                    is_wanted = table.Column<bool>(type: "boolean", nullable: false),
                    is_left_off = table.Column<bool>(type: "boolean", nullable: false),
                    wish = table.Column<int>(type: "integer", nullable: false),
                    due_at = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    writing_until = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    attempts = table.Column<int>(type: "integer", nullable: false),
                    fault = table.Column<string>(type: "text", nullable: true),
                    path = table.Column<string>(type: "text", nullable: true),
                    entity_tag = table.Column<string>(type: "text", nullable: true),
                    written_start = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    written_end = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    outside = table.Column<string>(type: "text", nullable: false),
                    outside_start = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    outside_end = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    noticed_at = table.Column<Instant>(type: "timestamp with time zone", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_written_events", x => x.id);
                    table.ForeignKey(
                        name: "fk_written_events_calendars_calendar_id",
                        column: x => x.calendar_id,
                        principalTable: "calendars",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_written_events_hosts_host_id",
                        column: x => x.host_id,
                        principalTable: "hosts",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_written_events_sessions_session_id",
                        column: x => x.session_id,
                        principalTable: "sessions",
                        principalColumn: "id");
                    table.ForeignKey(
                        name: "fk_written_events_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            // What calendars were read from moves to rows of its own, and everybody gets the calendar that is kept here.
            migrationBuilder.Sql("""
                INSERT INTO calendar_resources (workspace_id, calendar_id, path, body) SELECT workspace_id, id, '', old_source FROM calendars;
                UPDATE calendar_entries SET resource_id = (SELECT r.id FROM calendar_resources r WHERE r.calendar_id = calendar_entries.calendar_id);
                UPDATE unread_events SET resource_id = (SELECT r.id FROM calendar_resources r WHERE r.calendar_id = unread_events.calendar_id);
                UPDATE calendars SET looked_at = loaded_at, read_whole_at = loaded_at;
                INSERT INTO calendar_hosts (calendar_id, host_id, workspace_id) SELECT id, host_id, workspace_id FROM calendars;
                """);
            migrationBuilder.DropColumn(name: "old_source", table: "calendars");
            migrationBuilder.Sql("""
                WITH built_in AS (
                    INSERT INTO calendars (id, workspace_id, kind, host_id, name, source, is_asked, tentative_counts, loaded_at, looked_at, read_whole_at, read_range)
                    SELECT gen_random_uuid(), workspace_id, 'BuiltIn', id, 'Kept here', '', true, true, now(), now(), now(), 'empty' FROM hosts
                    RETURNING id, host_id, workspace_id)
                INSERT INTO calendar_hosts (calendar_id, host_id, workspace_id) SELECT id, host_id, workspace_id FROM built_in;
                """);

            migrationBuilder.CreateIndex(
                name: "ix_unread_events_resource_id",
                table: "unread_events",
                column: "resource_id");

            migrationBuilder.CreateIndex(
                name: "ix_hosts_written_calendar_id",
                table: "hosts",
                column: "written_calendar_id");

            migrationBuilder.CreateIndex(
                name: "ix_calendars_account_id",
                table: "calendars",
                column: "account_id");

            migrationBuilder.CreateIndex(
                name: "ix_calendars_next_look_at",
                table: "calendars",
                column: "next_look_at");

            migrationBuilder.CreateIndex(
                name: "ix_calendar_entries_resource_id",
                table: "calendar_entries",
                column: "resource_id");

            migrationBuilder.CreateIndex(
                name: "ix_asp_net_users_feed_secret_hash",
                table: "AspNetUsers",
                column: "feed_secret_hash",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_calendar_accounts_workspace_id",
                table: "calendar_accounts",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_calendar_hosts_host_id",
                table: "calendar_hosts",
                column: "host_id");

            migrationBuilder.CreateIndex(
                name: "ix_calendar_hosts_workspace_id",
                table: "calendar_hosts",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_calendar_resources_calendar_id",
                table: "calendar_resources",
                column: "calendar_id");

            migrationBuilder.CreateIndex(
                name: "ix_calendar_resources_workspace_id",
                table: "calendar_resources",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_calendar_resources_workspace_id_calendar_id_path",
                table: "calendar_resources",
                columns: new[] { "workspace_id", "calendar_id", "path" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_written_events_calendar_id",
                table: "written_events",
                column: "calendar_id");

            migrationBuilder.CreateIndex(
                name: "ix_written_events_due_at",
                table: "written_events",
                column: "due_at");

            migrationBuilder.CreateIndex(
                name: "ix_written_events_host_id",
                table: "written_events",
                column: "host_id");

            migrationBuilder.CreateIndex(
                name: "ix_written_events_session_id",
                table: "written_events",
                column: "session_id");

            migrationBuilder.CreateIndex(
                name: "ix_written_events_workspace_id",
                table: "written_events",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_written_events_workspace_id_uid_host_id",
                table: "written_events",
                columns: new[] { "workspace_id", "uid", "host_id" },
                unique: true);

            migrationBuilder.AddForeignKey(
                name: "fk_calendar_entries_calendar_resources_resource_id",
                table: "calendar_entries",
                column: "resource_id",
                principalTable: "calendar_resources",
                principalColumn: "id",
                onDelete: ReferentialAction.Cascade);

            migrationBuilder.AddForeignKey(
                name: "fk_calendars_calendar_accounts_account_id",
                table: "calendars",
                column: "account_id",
                principalTable: "calendar_accounts",
                principalColumn: "id");

            migrationBuilder.AddForeignKey(
                name: "fk_calendars_hosts_host_id",
                table: "calendars",
                column: "host_id",
                principalTable: "hosts",
                principalColumn: "id");

            migrationBuilder.AddForeignKey(
                name: "fk_hosts_calendars_written_calendar_id",
                table: "hosts",
                column: "written_calendar_id",
                principalTable: "calendars",
                principalColumn: "id",
                onDelete: ReferentialAction.SetNull);

            migrationBuilder.AddForeignKey(
                name: "fk_unread_events_calendar_resources_resource_id",
                table: "unread_events",
                column: "resource_id",
                principalTable: "calendar_resources",
                principalColumn: "id",
                onDelete: ReferentialAction.Cascade);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropForeignKey(
                name: "fk_calendar_entries_calendar_resources_resource_id",
                table: "calendar_entries");

            migrationBuilder.DropForeignKey(
                name: "fk_calendars_calendar_accounts_account_id",
                table: "calendars");

            migrationBuilder.DropForeignKey(
                name: "fk_calendars_hosts_host_id",
                table: "calendars");

            migrationBuilder.DropForeignKey(
                name: "fk_hosts_calendars_written_calendar_id",
                table: "hosts");

            migrationBuilder.DropForeignKey(
                name: "fk_unread_events_calendar_resources_resource_id",
                table: "unread_events");

            migrationBuilder.DropTable(
                name: "calendar_accounts");

            migrationBuilder.DropTable(
                name: "calendar_hosts");

            migrationBuilder.DropTable(
                name: "calendar_resources");

            migrationBuilder.DropTable(
                name: "written_events");

            migrationBuilder.DropIndex(
                name: "ix_unread_events_resource_id",
                table: "unread_events");

            migrationBuilder.DropIndex(
                name: "ix_hosts_written_calendar_id",
                table: "hosts");

            migrationBuilder.DropIndex(
                name: "ix_calendars_account_id",
                table: "calendars");

            migrationBuilder.DropIndex(
                name: "ix_calendars_next_look_at",
                table: "calendars");

            migrationBuilder.DropIndex(
                name: "ix_calendar_entries_resource_id",
                table: "calendar_entries");

            migrationBuilder.DropIndex(
                name: "ix_asp_net_users_feed_secret_hash",
                table: "AspNetUsers");

            migrationBuilder.DropColumn(
                name: "closes_after_hours",
                table: "workspaces");

            migrationBuilder.DropColumn(
                name: "resource_id",
                table: "unread_events");

            migrationBuilder.DropColumn(
                name: "calendar_choices",
                table: "pages");

            migrationBuilder.DropColumn(
                name: "written_calendar_id",
                table: "hosts");

            migrationBuilder.DropColumn(
                name: "account_id",
                table: "calendars");

            migrationBuilder.DropColumn(
                name: "attempts",
                table: "calendars");

            migrationBuilder.DropColumn(
                name: "collection_url",
                table: "calendars");

            migrationBuilder.DropColumn(
                name: "entity_tag",
                table: "calendars");

            migrationBuilder.DropColumn(
                name: "fault",
                table: "calendars");

            migrationBuilder.DropColumn(
                name: "looked_at",
                table: "calendars");

            migrationBuilder.DropColumn(
                name: "looking_until",
                table: "calendars");

            migrationBuilder.DropColumn(
                name: "looks",
                table: "calendars");

            migrationBuilder.DropColumn(
                name: "may_write",
                table: "calendars");

            migrationBuilder.DropColumn(
                name: "next_look_at",
                table: "calendars");

            migrationBuilder.DropColumn(
                name: "protected_address",
                table: "calendars");

            migrationBuilder.DropColumn(
                name: "read_whole_at",
                table: "calendars");

            migrationBuilder.DropColumn(
                name: "refresh_seconds",
                table: "calendars");

            migrationBuilder.DropColumn(
                name: "sync_token",
                table: "calendars");

            migrationBuilder.DropColumn(
                name: "tells_changes",
                table: "calendars");

            migrationBuilder.DropColumn(
                name: "unreachable_since",
                table: "calendars");

            migrationBuilder.DropColumn(
                name: "resource_id",
                table: "calendar_entries");

            migrationBuilder.DropColumn(
                name: "feed_secret_hash",
                table: "AspNetUsers");

            migrationBuilder.DropColumn(
                name: "feeds_all",
                table: "AspNetUsers");

            migrationBuilder.DropColumn(
                name: "protected_feed_secret",
                table: "AspNetUsers");

            migrationBuilder.RenameColumn(
                name: "source",
                table: "calendars",
                newName: "file_name");

            migrationBuilder.DropColumn(
                name: "kind",
                table: "calendars");

            migrationBuilder.AddColumn<byte[]>(
                name: "source",
                table: "calendars",
                type: "bytea",
                nullable: false,
                defaultValue: new byte[0]);

            migrationBuilder.AlterColumn<Guid>(
                name: "host_id",
                table: "calendars",
                type: "uuid",
                nullable: false,
                defaultValue: new Guid("00000000-0000-0000-0000-000000000000"),
                oldClrType: typeof(Guid),
                oldType: "uuid",
                oldNullable: true);

            migrationBuilder.AddForeignKey(
                name: "fk_calendars_hosts_host_id",
                table: "calendars",
                column: "host_id",
                principalTable: "hosts",
                principalColumn: "id",
                onDelete: ReferentialAction.Cascade);
        }
    }
}
