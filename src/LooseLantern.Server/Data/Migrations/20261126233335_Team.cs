using System;
using Microsoft.EntityFrameworkCore.Migrations;
using NodaTime;

#nullable disable

namespace LooseLantern.Server.Data.Migrations
{
    /// <inheritdoc />
    public partial class Team : Migration
    {
        private const string NothingUsual =
            "{\"duration\":null,\"bufferBefore\":null,\"bufferAfter\":null,\"notice\":null,\"placeKind\":null,\"place\":null,\"reminders\":null,\"language\":null,\"clock\":null}";

        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<Instant>(
                name: "first_run_ended_at",
                table: "workspaces",
                type: "timestamp with time zone",
                nullable: true);

            migrationBuilder.AddColumn<string[]>(
                name: "first_steps",
                table: "workspaces",
                type: "text[]",
                nullable: false,
                defaultValue: new string[0]);

            migrationBuilder.AddColumn<string>(
                name: "usual",
                table: "workspaces",
                type: "jsonb",
                nullable: false,
                defaultValue: NothingUsual);

            migrationBuilder.AddColumn<string>(
                name: "mark",
                table: "pages",
                type: "text",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<bool>(
                name: "offers_whole_blocks",
                table: "pages",
                type: "boolean",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<bool>(
                name: "is_named",
                table: "hours",
                type: "boolean",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<int>(
                name: "version",
                table: "hours",
                type: "integer",
                nullable: false,
                defaultValue: 1);

            migrationBuilder.AddColumn<string>(
                name: "kind",
                table: "hosts",
                type: "text",
                nullable: false,
                defaultValue: "Person");

            migrationBuilder.AddColumn<Instant>(
                name: "retired_at",
                table: "hosts",
                type: "timestamp with time zone",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "clock",
                table: "AspNetUsers",
                type: "text",
                nullable: false,
                defaultValue: "H24");

            migrationBuilder.AddColumn<string>(
                name: "language",
                table: "AspNetUsers",
                type: "text",
                nullable: false,
                defaultValue: "en");

            migrationBuilder.AddColumn<Instant>(
                name: "left_at",
                table: "AspNetUsers",
                type: "timestamp with time zone",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "line",
                table: "AspNetUsers",
                type: "text",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "usual",
                table: "AspNetUsers",
                type: "jsonb",
                nullable: false,
                defaultValue: NothingUsual);

            migrationBuilder.AddColumn<string>(
                name: "zone",
                table: "AspNetUsers",
                type: "text",
                nullable: false,
                defaultValue: "UTC");

            migrationBuilder.CreateTable(
                name: "acting_for",
                columns: table => new
                {
                    host_id = table.Column<Guid>(type: "uuid", nullable: false),
                    person_id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    may_offer = table.Column<bool>(type: "boolean", nullable: false),
                    may_book = table.Column<bool>(type: "boolean", nullable: false),
                    may_move = table.Column<bool>(type: "boolean", nullable: false),
                    sees_titles = table.Column<bool>(type: "boolean", nullable: false),
                    since = table.Column<Instant>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_acting_for", x => new { x.host_id, x.person_id });
                    table.ForeignKey(
                        name: "fk_acting_for_asp_net_users_person_id",
                        column: x => x.person_id,
                        principalTable: "AspNetUsers",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_acting_for_hosts_host_id",
                        column: x => x.host_id,
                        principalTable: "hosts",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_acting_for_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "blocks",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    page_id = table.Column<Guid>(type: "uuid", nullable: false),
                    start = table.Column<LocalDateTime>(type: "timestamp without time zone", nullable: false),
                    length = table.Column<int>(type: "integer", nullable: false),
                    rule = table.Column<string>(type: "text", nullable: true),
                    without = table.Column<LocalDate[]>(type: "date[]", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_blocks", x => x.id);
                    table.ForeignKey(
                        name: "fk_blocks_pages_page_id",
                        column: x => x.page_id,
                        principalTable: "pages",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_blocks_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "invitations",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    name = table.Column<string>(type: "text", nullable: false),
                    email = table.Column<string>(type: "text", nullable: false),
                    is_owner = table.Column<bool>(type: "boolean", nullable: false),
                    is_coordinator = table.Column<bool>(type: "boolean", nullable: false),
                    is_host = table.Column<bool>(type: "boolean", nullable: false),
                    by_person_id = table.Column<Guid>(type: "uuid", nullable: false),
                    secret_hash = table.Column<byte[]>(type: "bytea", nullable: false),
                    protected_secret = table.Column<string>(type: "text", nullable: false),
                    expires_at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    taken_up_at = table.Column<Instant>(type: "timestamp with time zone", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_invitations", x => x.id);
                    table.ForeignKey(
                        name: "fk_invitations_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "portraits",
                columns: table => new
                {
                    person_id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    media_type = table.Column<string>(type: "text", nullable: false),
                    bytes = table.Column<byte[]>(type: "bytea", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_portraits", x => x.person_id);
                    table.ForeignKey(
                        name: "fk_portraits_asp_net_users_person_id",
                        column: x => x.person_id,
                        principalTable: "AspNetUsers",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_portraits_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "record",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    person_id = table.Column<Guid>(type: "uuid", nullable: false),
                    person_name = table.Column<string>(type: "text", nullable: false),
                    for_hosts = table.Column<Guid[]>(type: "uuid[]", nullable: false),
                    subject_id = table.Column<Guid>(type: "uuid", nullable: false),
                    what = table.Column<string>(type: "text", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_record", x => x.id);
                    table.ForeignKey(
                        name: "fk_record_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "signed_in",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    person_id = table.Column<Guid>(type: "uuid", nullable: false),
                    since = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    seen_at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    device = table.Column<string>(type: "text", nullable: false),
                    network_address = table.Column<string>(type: "text", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_signed_in", x => x.id);
                    table.ForeignKey(
                        name: "fk_signed_in_asp_net_users_person_id",
                        column: x => x.person_id,
                        principalTable: "AspNetUsers",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_signed_in_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "ix_acting_for_person_id",
                table: "acting_for",
                column: "person_id");

            migrationBuilder.CreateIndex(
                name: "ix_acting_for_workspace_id",
                table: "acting_for",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_blocks_page_id",
                table: "blocks",
                column: "page_id");

            migrationBuilder.CreateIndex(
                name: "ix_blocks_workspace_id",
                table: "blocks",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_invitations_secret_hash",
                table: "invitations",
                column: "secret_hash",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_invitations_workspace_id",
                table: "invitations",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_portraits_workspace_id",
                table: "portraits",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_record_for_hosts",
                table: "record",
                column: "for_hosts")
                .Annotation("Npgsql:IndexMethod", "gin");

            migrationBuilder.CreateIndex(
                name: "ix_record_workspace_id",
                table: "record",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_record_workspace_id_subject_id_at",
                table: "record",
                columns: new[] { "workspace_id", "subject_id", "at" });

            migrationBuilder.CreateIndex(
                name: "ix_signed_in_person_id",
                table: "signed_in",
                column: "person_id");

            migrationBuilder.CreateIndex(
                name: "ix_signed_in_workspace_id",
                table: "signed_in",
                column: "workspace_id");

            migrationBuilder.Sql("UPDATE hours SET is_named = true WHERE id IN (SELECT hours_id FROM hosts)");
            migrationBuilder.Sql("UPDATE hosts SET kind = 'Room' WHERE person_id IS NULL");
            migrationBuilder.Sql("UPDATE \"AspNetUsers\" AS person SET zone = workspaces.zone FROM workspaces WHERE workspaces.id = person.workspace_id");
            migrationBuilder.Sql("UPDATE pages SET mark = initcap(left(regexp_replace(title, '[^[:alpha:]]', '', 'g') || 'xx', 2))");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "acting_for");

            migrationBuilder.DropTable(
                name: "blocks");

            migrationBuilder.DropTable(
                name: "invitations");

            migrationBuilder.DropTable(
                name: "portraits");

            migrationBuilder.DropTable(
                name: "record");

            migrationBuilder.DropTable(
                name: "signed_in");

            migrationBuilder.DropColumn(
                name: "first_run_ended_at",
                table: "workspaces");

            migrationBuilder.DropColumn(
                name: "first_steps",
                table: "workspaces");

            migrationBuilder.DropColumn(
                name: "usual",
                table: "workspaces");

            migrationBuilder.DropColumn(
                name: "mark",
                table: "pages");

            migrationBuilder.DropColumn(
                name: "offers_whole_blocks",
                table: "pages");

            migrationBuilder.DropColumn(
                name: "is_named",
                table: "hours");

            migrationBuilder.DropColumn(
                name: "version",
                table: "hours");

            migrationBuilder.DropColumn(
                name: "kind",
                table: "hosts");

            migrationBuilder.DropColumn(
                name: "retired_at",
                table: "hosts");

            migrationBuilder.DropColumn(
                name: "clock",
                table: "AspNetUsers");

            migrationBuilder.DropColumn(
                name: "language",
                table: "AspNetUsers");

            migrationBuilder.DropColumn(
                name: "left_at",
                table: "AspNetUsers");

            migrationBuilder.DropColumn(
                name: "line",
                table: "AspNetUsers");

            migrationBuilder.DropColumn(
                name: "usual",
                table: "AspNetUsers");

            migrationBuilder.DropColumn(
                name: "zone",
                table: "AspNetUsers");
        }
    }
}
