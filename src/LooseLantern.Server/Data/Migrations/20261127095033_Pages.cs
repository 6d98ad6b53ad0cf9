using System;
using Microsoft.EntityFrameworkCore.Migrations;
using NodaTime;

#nullable disable

namespace LooseLantern.Server.Data.Migrations
{
    /// <inheritdoc />
    public partial class Pages : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string[]>(
                name: "kinds",
                table: "workspaces",
                type: "text[]",
                nullable: false,
                defaultValue: new string[0]);

            migrationBuilder.AddColumn<string>(
                name: "details",
                table: "pages",
                type: "jsonb",
                nullable: false,
                defaultValue: "{\"naming\":{\"name\":\"\",\"kind\":\"\",\"mark\":null},\"face\":{\"language\":\"\",\"accent\":\"\",\"showsHosts\":true,\"placeZoneOnly\":false,\"isListed\":true},\"place\":{\"directions\":\"\",\"hostsRing\":true},\"after\":{\"words\":\"\",\"goTo\":\"\",\"offersAnother\":false},\"lead\":0,\"alsoInvited\":[],\"screening\":[]}");

            migrationBuilder.AddColumn<string>(
                name: "draft",
                table: "pages",
                type: "jsonb",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "window",
                table: "pages",
                type: "jsonb",
                nullable: true);

            migrationBuilder.AddColumn<string[]>(
                name: "flags",
                table: "bookings",
                type: "text[]",
                nullable: false,
                defaultValue: new string[0]);

            migrationBuilder.CreateTable(
                name: "former_addresses",
                columns: table => new
                {
                    desk_id = table.Column<Guid>(type: "uuid", nullable: false),
                    address = table.Column<string>(type: "text", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    page_id = table.Column<Guid>(type: "uuid", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_former_addresses", x => new { x.desk_id, x.address });
                    table.ForeignKey(
                        name: "fk_former_addresses_pages_page_id",
                        column: x => x.page_id,
                        principalTable: "pages",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_former_addresses_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "page_editions",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    page_id = table.Column<Guid>(type: "uuid", nullable: false),
                    number = table.Column<int>(type: "integer", nullable: false),
                    at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    by = table.Column<string>(type: "text", nullable: false),
                    form = table.Column<string>(type: "jsonb", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_page_editions", x => x.id);
                    table.ForeignKey(
                        name: "fk_page_editions_pages_page_id",
                        column: x => x.page_id,
                        principalTable: "pages",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_page_editions_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "ix_former_addresses_page_id",
                table: "former_addresses",
                column: "page_id");

            migrationBuilder.CreateIndex(
                name: "ix_former_addresses_workspace_id",
                table: "former_addresses",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_page_editions_page_id_number",
                table: "page_editions",
                columns: new[] { "page_id", "number" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_page_editions_workspace_id",
                table: "page_editions",
                column: "workspace_id");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "former_addresses");

            migrationBuilder.DropTable(
                name: "page_editions");

            migrationBuilder.DropColumn(
                name: "kinds",
                table: "workspaces");

            migrationBuilder.DropColumn(
                name: "details",
                table: "pages");

            migrationBuilder.DropColumn(
                name: "draft",
                table: "pages");

            migrationBuilder.DropColumn(
                name: "window",
                table: "pages");

            migrationBuilder.DropColumn(
                name: "flags",
                table: "bookings");
        }
    }
}
