using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Bocca.Web.Record.Migrations
{
    /// <inheritdoc />
    public partial class HealthAndRest : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "ConsentBy",
                table: "Pupils",
                type: "TEXT",
                maxLength: 80,
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "ConsentFor",
                table: "Pupils",
                type: "TEXT",
                maxLength: 200,
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<DateOnly>(
                name: "ConsentOn",
                table: "Pupils",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<bool>(
                name: "ConsentSaysWhy",
                table: "Pupils",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<DateOnly>(
                name: "ConsentUntil",
                table: "Pupils",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "Mouth",
                table: "Pupils",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<double>(
                name: "HighSeconds",
                table: "Entries",
                type: "REAL",
                nullable: true);

            migrationBuilder.AddColumn<double>(
                name: "PlayedSeconds",
                table: "Entries",
                type: "REAL",
                nullable: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "ConsentBy",
                table: "Pupils");

            migrationBuilder.DropColumn(
                name: "ConsentFor",
                table: "Pupils");

            migrationBuilder.DropColumn(
                name: "ConsentOn",
                table: "Pupils");

            migrationBuilder.DropColumn(
                name: "ConsentSaysWhy",
                table: "Pupils");

            migrationBuilder.DropColumn(
                name: "ConsentUntil",
                table: "Pupils");

            migrationBuilder.DropColumn(
                name: "Mouth",
                table: "Pupils");

            migrationBuilder.DropColumn(
                name: "HighSeconds",
                table: "Entries");

            migrationBuilder.DropColumn(
                name: "PlayedSeconds",
                table: "Entries");
        }
    }
}
