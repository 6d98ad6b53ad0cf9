using System;
using Microsoft.EntityFrameworkCore.Migrations;
using NodaTime;

#nullable disable

namespace LooseLantern.Server.Data.Migrations
{
    /// <inheritdoc />
    public partial class Links : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "offer",
                table: "pages",
                type: "jsonb",
                nullable: true);

            migrationBuilder.AddColumn<Instant>(
                name: "held_until",
                table: "commitments",
                type: "timestamp with time zone",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "link_patterns",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    name = table.Column<string>(type: "text", nullable: false),
                    form = table.Column<string>(type: "jsonb", nullable: false),
                    saved_at = table.Column<Instant>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_link_patterns", x => x.id);
                    table.ForeignKey(
                        name: "fk_link_patterns_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "links",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    guests = table.Column<string>(type: "jsonb", nullable: false),
                    guest_zone = table.Column<string>(type: "text", nullable: false),
                    guest_language = table.Column<string>(type: "text", nullable: false),
                    topic = table.Column<string>(type: "text", nullable: false),
                    secret_hash = table.Column<byte[]>(type: "bytea", nullable: false),
                    protected_secret = table.Column<string>(type: "text", nullable: false),
                    made_by = table.Column<Guid>(type: "uuid", nullable: true),
                    made_at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    out_at = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    revoked_at = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    ends_on = table.Column<LocalDate>(type: "date", nullable: false),
                    takes = table.Column<int>(type: "integer", nullable: false),
                    reopens = table.Column<bool>(type: "boolean", nullable: false),
                    first_opened_at = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    last_opened_at = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    opened = table.Column<int>(type: "integer", nullable: false),
                    hold_until = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    notes = table.Column<string>(type: "text", nullable: false),
                    started_from = table.Column<string>(type: "text", nullable: false),
                    is_among_ourselves = table.Column<bool>(type: "boolean", nullable: false),
                    text = table.Column<string>(type: "jsonb", nullable: false),
                    asked_again_at = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    asked_again = table.Column<int>(type: "integer", nullable: false),
                    none_left_at = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    check_due_at = table.Column<Instant>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_links", x => x.id);
                    table.ForeignKey(
                        name: "fk_links_pages_id",
                        column: x => x.id,
                        principalTable: "pages",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_links_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "wishes",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    link_id = table.Column<Guid>(type: "uuid", nullable: false),
                    start = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    end = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    words = table.Column<string>(type: "text", nullable: false),
                    at = table.Column<Instant>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_wishes", x => x.id);
                    table.ForeignKey(
                        name: "fk_wishes_links_link_id",
                        column: x => x.link_id,
                        principalTable: "links",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_wishes_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "ix_link_patterns_workspace_id",
                table: "link_patterns",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_links_check_due_at",
                table: "links",
                column: "check_due_at");

            migrationBuilder.CreateIndex(
                name: "ix_links_secret_hash",
                table: "links",
                column: "secret_hash",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_links_workspace_id",
                table: "links",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_wishes_link_id",
                table: "wishes",
                column: "link_id");

            migrationBuilder.CreateIndex(
                name: "ix_wishes_workspace_id",
                table: "wishes",
                column: "workspace_id");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "link_patterns");

            migrationBuilder.DropTable(
                name: "wishes");

            migrationBuilder.DropTable(
                name: "links");

            migrationBuilder.DropColumn(
                name: "offer",
                table: "pages");

            migrationBuilder.DropColumn(
                name: "held_until",
                table: "commitments");
        }
    }
}
