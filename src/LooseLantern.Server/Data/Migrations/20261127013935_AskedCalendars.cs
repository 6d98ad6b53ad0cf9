using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace LooseLantern.Server.Data.Migrations
{
    /// <inheritdoc />
    public partial class AskedCalendars : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<byte[]>(
                name: "busy_secret_hash",
                table: "hosts",
                type: "bytea",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "protected_busy_secret",
                table: "hosts",
                type: "text",
                nullable: true);

            migrationBuilder.AddColumn<bool>(
                name: "is_asked",
                table: "calendars",
                type: "boolean",
                nullable: false,
                defaultValue: true);

            migrationBuilder.AddColumn<bool>(
                name: "tentative_counts",
                table: "calendars",
                type: "boolean",
                nullable: false,
                defaultValue: true);

            migrationBuilder.CreateIndex(
                name: "ix_hosts_busy_secret_hash",
                table: "hosts",
                column: "busy_secret_hash",
                unique: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "ix_hosts_busy_secret_hash",
                table: "hosts");

            migrationBuilder.DropColumn(
                name: "busy_secret_hash",
                table: "hosts");

            migrationBuilder.DropColumn(
                name: "protected_busy_secret",
                table: "hosts");

            migrationBuilder.DropColumn(
                name: "is_asked",
                table: "calendars");

            migrationBuilder.DropColumn(
                name: "tentative_counts",
                table: "calendars");
        }
    }
}
