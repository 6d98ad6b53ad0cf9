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
                defaultValue: "{\"naming\":{\"name\":\"\",\"kind\":\"\",\"mark\":null},\"face\":{\"language\":\"\",\"accent\":\"\",\"showsHosts\":true,\"placeZoneOnly\":false,\"isListed\":true},\"place\":{\"directions\":\"\",\"hostsRing\":true},\"after\":{\"words\":\"\",\"goTo\":\"\",\"offersAnother\":false,\"provesEmail\":false},\"lead\":0,\"alsoInvited\":[],\"screening\":[],\"mostOpen\":null}");

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

            migrationBuilder.AddColumn<string[]>(
                name: "flags",
                table: "bookings",
                type: "text[]",
                nullable: false,
                defaultValue: new string[0]);

            migrationBuilder.CreateTable(
                name: "email_codes",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    page_id = table.Column<Guid>(type: "uuid", nullable: false),
                    email = table.Column<string>(type: "text", nullable: false),
                    code_hash = table.Column<byte[]>(type: "bytea", nullable: false),
                    made_at = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    wrong_tries = table.Column<int>(type: "integer", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_email_codes", x => x.id);
                    table.ForeignKey(
                        name: "fk_email_codes_pages_page_id",
                        column: x => x.page_id,
                        principalTable: "pages",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_email_codes_workspaces_workspace_id",
                        column: x => x.workspace_id,
                        principalTable: "workspaces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

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
                name: "looked_for",
                columns: table => new
                {
                    page_id = table.Column<Guid>(type: "uuid", nullable: false),
                    week = table.Column<LocalDate>(type: "date", nullable: false),
                    part = table.Column<string>(type: "text", nullable: false),
                    found = table.Column<bool>(type: "boolean", nullable: false),
                    workspace_id = table.Column<Guid>(type: "uuid", nullable: false),
                    count = table.Column<int>(type: "integer", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_looked_for", x => new { x.page_id, x.week, x.part, x.found });
                    table.ForeignKey(
                        name: "fk_looked_for_pages_page_id",
                        column: x => x.page_id,
                        principalTable: "pages",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_looked_for_workspaces_workspace_id",
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
                name: "ix_email_codes_page_id_email_made_at",
                table: "email_codes",
                columns: new[] { "page_id", "email", "made_at" });

            migrationBuilder.CreateIndex(
                name: "ix_email_codes_workspace_id",
                table: "email_codes",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_former_addresses_page_id",
                table: "former_addresses",
                column: "page_id");

            migrationBuilder.CreateIndex(
                name: "ix_former_addresses_workspace_id",
                table: "former_addresses",
                column: "workspace_id");

            migrationBuilder.CreateIndex(
                name: "ix_looked_for_workspace_id",
                table: "looked_for",
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
                name: "email_codes");

            migrationBuilder.DropTable(
                name: "former_addresses");

            migrationBuilder.DropTable(
                name: "looked_for");

            migrationBuilder.DropTable(
                name: "page_editions");

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

            migrationBuilder.DropColumn(
                name: "flags",
                table: "bookings");
        }
    }
}
