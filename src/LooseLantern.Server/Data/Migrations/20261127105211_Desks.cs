using System;
using Microsoft.EntityFrameworkCore.Migrations;
using NodaTime;

#nullable disable

namespace LooseLantern.Server.Data.Migrations
{
    /// <inheritdoc />
    public partial class Desks : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "accent",
                table: "desks",
                type: "text",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string[]>(
                name: "framers",
                table: "desks",
                type: "text[]",
                nullable: false,
                defaultValue: new string[0]);

            migrationBuilder.AddColumn<Guid>(
                name: "host_id",
                table: "desks",
                type: "uuid",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "host_name",
                table: "desks",
                type: "text",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "intro",
                table: "desks",
                type: "text",
                nullable: false,
                defaultValue: "");

            migrationBuilder.CreateTable(
                name: "personal_addresses",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    page_id = table.Column<Guid>(type: "uuid", nullable: false),
                    name = table.Column<string>(type: "text", nullable: false),
                    email = table.Column<string>(type: "text", nullable: false),
                    made_at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    secret_hash = table.Column<byte[]>(type: "bytea", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_personal_addresses", x => x.id);
                    table.ForeignKey(
                        name: "fk_personal_addresses_pages_page_id",
                        column: x => x.page_id,
                        principalTable: "pages",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_personal_addresses_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "pictures",
                columns: table => new
                {
                    owner_id = table.Column<Guid>(type: "uuid", nullable: false),
                    kind = table.Column<string>(type: "text", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    bytes = table.Column<byte[]>(type: "bytea", nullable: false),
                    media_type = table.Column<string>(type: "text", nullable: false),
                    set_at = table.Column<Instant>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_pictures", x => new { x.owner_id, x.kind });
                    table.ForeignKey(
                        name: "fk_pictures_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "desks_one_host_name",
                table: "desks",
                column: "host_name",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_desks_host_id",
                table: "desks",
                column: "host_id");

            migrationBuilder.CreateIndex(
                name: "ix_personal_addresses_page_id",
                table: "personal_addresses",
                column: "page_id");

            migrationBuilder.CreateIndex(
                name: "ix_personal_addresses_secret_hash",
                table: "personal_addresses",
                column: "secret_hash",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_personal_addresses_workspace_id",
                table: "personal_addresses",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_pictures_workspace_id",
                table: "pictures",
                column: "workspace_id");

            migrationBuilder.AddForeignKey(
                name: "fk_desks_hosts_host_id",
                table: "desks",
                column: "host_id",
                principalTable: "hosts",
                principalColumn: "id",
                onDelete: ReferentialAction.SetNull);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropForeignKey(
                name: "fk_desks_hosts_host_id",
                table: "desks");

            migrationBuilder.DropTable(
                name: "personal_addresses");

            migrationBuilder.DropTable(
                name: "pictures");

            migrationBuilder.DropIndex(
                name: "desks_one_host_name",
                table: "desks");

            migrationBuilder.DropIndex(
                name: "ix_desks_host_id",
                table: "desks");

            migrationBuilder.DropColumn(
                name: "accent",
                table: "desks");

            migrationBuilder.DropColumn(
                name: "framers",
                table: "desks");

            migrationBuilder.DropColumn(
                name: "host_id",
                table: "desks");

            migrationBuilder.DropColumn(
                name: "host_name",
                table: "desks");

            migrationBuilder.DropColumn(
                name: "intro",
                table: "desks");
        }
    }
}
