using Microsoft.EntityFrameworkCore.Migrations;
using NodaTime;

#nullable disable

namespace LooseLantern.Server.Data.Migrations
{
    /// <inheritdoc />
    public partial class LineUps : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<Instant>(
                name: "assigned_at",
                table: "session_hosts",
                type: "timestamp with time zone",
                nullable: false,
                defaultValue: NodaTime.Instant.FromUnixTimeTicks(0L));

            migrationBuilder.AddColumn<string>(
                name: "fill",
                table: "seats",
                type: "text",
                nullable: false,
                defaultValue: "Balanced");

            migrationBuilder.AddColumn<Instant>(
                name: "since",
                table: "seat_hosts",
                type: "timestamp with time zone",
                nullable: false,
                defaultValue: NodaTime.Instant.FromUnixTimeTicks(0L));

            migrationBuilder.AddColumn<int>(
                name: "daily_cap",
                table: "pages",
                type: "integer",
                nullable: true);

            migrationBuilder.AddColumn<bool>(
                name: "keeps_hosts",
                table: "pages",
                type: "boolean",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<int>(
                name: "places",
                table: "pages",
                type: "integer",
                nullable: false,
                defaultValue: 1);

            migrationBuilder.AddColumn<int>(
                name: "weekly_cap",
                table: "pages",
                type: "integer",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "daily_cap",
                table: "hosts",
                type: "integer",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "weekly_cap",
                table: "hosts",
                type: "integer",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "weight",
                table: "hosts",
                type: "integer",
                nullable: false,
                defaultValue: 1);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "assigned_at",
                table: "session_hosts");

            migrationBuilder.DropColumn(
                name: "fill",
                table: "seats");

            migrationBuilder.DropColumn(
                name: "since",
                table: "seat_hosts");

            migrationBuilder.DropColumn(
                name: "daily_cap",
                table: "pages");

            migrationBuilder.DropColumn(
                name: "keeps_hosts",
                table: "pages");

            migrationBuilder.DropColumn(
                name: "places",
                table: "pages");

            migrationBuilder.DropColumn(
                name: "weekly_cap",
                table: "pages");

            migrationBuilder.DropColumn(
                name: "daily_cap",
                table: "hosts");

            migrationBuilder.DropColumn(
                name: "weekly_cap",
                table: "hosts");

            migrationBuilder.DropColumn(
                name: "weight",
                table: "hosts");
        }
    }
}
