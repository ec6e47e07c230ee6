using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Bocca.Web.Record.Migrations
{
    /// <inheritdoc />
    public partial class LessonsAndWeeks : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<int>(
                name: "Seat",
                table: "Pupils",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<bool>(
                name: "WeekRuns",
                table: "Pupils",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.CreateTable(
                name: "PaperItems",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Book = table.Column<string>(type: "TEXT", maxLength: 80, nullable: false),
                    Page = table.Column<int>(type: "INTEGER", nullable: true),
                    Number = table.Column<string>(type: "TEXT", maxLength: 20, nullable: false),
                    Words = table.Column<string>(type: "TEXT", maxLength: 200, nullable: false),
                    SymptomId = table.Column<string>(type: "TEXT", maxLength: 40, nullable: false),
                    From = table.Column<string>(type: "TEXT", maxLength: 30, nullable: false),
                    On = table.Column<double>(type: "REAL", nullable: false),
                    Off = table.Column<double>(type: "REAL", nullable: false),
                    Times = table.Column<int>(type: "INTEGER", nullable: false),
                    Tempo = table.Column<double>(type: "REAL", nullable: false),
                    DeletedAt = table.Column<DateTime>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_PaperItems", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "TimetableHolidays",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    First = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    Last = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    Name = table.Column<string>(type: "TEXT", maxLength: 60, nullable: false),
                    AddedAt = table.Column<DateTime>(type: "TEXT", nullable: false),
                    DeletedAt = table.Column<DateTime>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_TimetableHolidays", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "TimetableSlots",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    PupilId = table.Column<int>(type: "INTEGER", nullable: true),
                    ClassName = table.Column<string>(type: "TEXT", maxLength: 40, nullable: false),
                    Day = table.Column<string>(type: "TEXT", maxLength: 10, nullable: false),
                    Start = table.Column<TimeOnly>(type: "TEXT", nullable: false),
                    Minutes = table.Column<int>(type: "INTEGER", nullable: false),
                    From = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    Until = table.Column<DateOnly>(type: "TEXT", nullable: true),
                    Except = table.Column<string>(type: "TEXT", maxLength: 2000, nullable: false),
                    AddedAt = table.Column<DateTime>(type: "TEXT", nullable: false),
                    DeletedAt = table.Column<DateTime>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_TimetableSlots", x => x.Id);
                    table.ForeignKey(
                        name: "FK_TimetableSlots_Pupils_PupilId",
                        column: x => x.PupilId,
                        principalTable: "Pupils",
                        principalColumn: "Id");
                });

            migrationBuilder.CreateIndex(
                name: "IX_TimetableSlots_PupilId",
                table: "TimetableSlots",
                column: "PupilId");

            // A lesson on record from before it had an agenda has an empty one.
            migrationBuilder.Sql(
                """
                INSERT INTO Payloads (EntryId, Version, Body)
                SELECT Id, 1, '{"minutes":30,"parts":[],"begun":[],"mood":"Fine","good":"","task":""}' FROM Entries
                WHERE Kind = 'lesson' AND Id NOT IN (SELECT EntryId FROM Payloads)
                """
            );
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "PaperItems");

            migrationBuilder.DropTable(
                name: "TimetableHolidays");

            migrationBuilder.DropTable(
                name: "TimetableSlots");

            migrationBuilder.DropColumn(
                name: "Seat",
                table: "Pupils");

            migrationBuilder.DropColumn(
                name: "WeekRuns",
                table: "Pupils");
        }
    }
}
