using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Bocca.Web.Record.Migrations
{
    /// <inheritdoc />
    public partial class Hand : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<double>(
                name: "A4Hz",
                table: "Rooms",
                type: "REAL",
                nullable: false,
                defaultValue: 440.0);

            migrationBuilder.AddColumn<double>(
                name: "Celsius",
                table: "Rooms",
                type: "REAL",
                nullable: false,
                defaultValue: 20.0);

            migrationBuilder.AddColumn<int>(
                name: "FurthestPosition",
                table: "Pupils",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "HighestValve",
                table: "Pupils",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "Hands",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    PupilId = table.Column<int>(type: "INTEGER", nullable: false),
                    DrillId = table.Column<string>(type: "TEXT", maxLength: 40, nullable: false),
                    InstrumentId = table.Column<string>(type: "TEXT", maxLength: 40, nullable: false),
                    At = table.Column<DateTime>(type: "TEXT", nullable: false),
                    Right = table.Column<int>(type: "INTEGER", nullable: false),
                    Asked = table.Column<int>(type: "INTEGER", nullable: false),
                    MedianSeconds = table.Column<double>(type: "REAL", nullable: false),
                    Passed = table.Column<bool>(type: "INTEGER", nullable: false),
                    Summary = table.Column<string>(type: "TEXT", maxLength: 300, nullable: false),
                    MarksJson = table.Column<string>(type: "TEXT", nullable: false),
                    DeletedAt = table.Column<DateTime>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Hands", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Hands_Pupils_PupilId",
                        column: x => x.PupilId,
                        principalTable: "Pupils",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Measured",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    PupilId = table.Column<int>(type: "INTEGER", nullable: false),
                    InstrumentId = table.Column<string>(type: "TEXT", maxLength: 40, nullable: false),
                    At = table.Column<DateTime>(type: "TEXT", nullable: false),
                    SlideTubeMetres = table.Column<double>(type: "REAL", nullable: true),
                    SlideTravelCm = table.Column<double>(type: "REAL", nullable: true),
                    ThirdForTwoThree = table.Column<bool>(type: "INTEGER", nullable: false),
                    ValveCentsJson = table.Column<string>(type: "TEXT", maxLength: 300, nullable: false),
                    Remark = table.Column<string>(type: "TEXT", maxLength: 300, nullable: false),
                    DeletedAt = table.Column<DateTime>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Measured", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Measured_Pupils_PupilId",
                        column: x => x.PupilId,
                        principalTable: "Pupils",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Pins",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    PupilId = table.Column<int>(type: "INTEGER", nullable: false),
                    InstrumentId = table.Column<string>(type: "TEXT", maxLength: 40, nullable: false),
                    Midi = table.Column<int>(type: "INTEGER", nullable: false),
                    Setting = table.Column<string>(type: "TEXT", maxLength: 20, nullable: false),
                    At = table.Column<DateTime>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Pins", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Pins_Pupils_PupilId",
                        column: x => x.PupilId,
                        principalTable: "Pupils",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Recalls",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    PupilId = table.Column<int>(type: "INTEGER", nullable: false),
                    InstrumentId = table.Column<string>(type: "TEXT", maxLength: 40, nullable: false),
                    Item = table.Column<string>(type: "TEXT", maxLength: 20, nullable: false),
                    StabilityDays = table.Column<double>(type: "REAL", nullable: false),
                    Difficulty = table.Column<double>(type: "REAL", nullable: false),
                    SeenAt = table.Column<DateTime>(type: "TEXT", nullable: false),
                    DueAt = table.Column<DateTime>(type: "TEXT", nullable: false),
                    Times = table.Column<int>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Recalls", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Recalls_Pupils_PupilId",
                        column: x => x.PupilId,
                        principalTable: "Pupils",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Hands_PupilId_At",
                table: "Hands",
                columns: new[] { "PupilId", "At" });

            migrationBuilder.CreateIndex(
                name: "IX_Measured_PupilId_At",
                table: "Measured",
                columns: new[] { "PupilId", "At" });

            migrationBuilder.CreateIndex(
                name: "IX_Pins_PupilId_InstrumentId_Midi",
                table: "Pins",
                columns: new[] { "PupilId", "InstrumentId", "Midi" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Recalls_PupilId_DueAt",
                table: "Recalls",
                columns: new[] { "PupilId", "DueAt" });

            migrationBuilder.CreateIndex(
                name: "IX_Recalls_PupilId_InstrumentId_Item",
                table: "Recalls",
                columns: new[] { "PupilId", "InstrumentId", "Item" },
                unique: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "Hands");

            migrationBuilder.DropTable(
                name: "Measured");

            migrationBuilder.DropTable(
                name: "Pins");

            migrationBuilder.DropTable(
                name: "Recalls");

            migrationBuilder.DropColumn(
                name: "A4Hz",
                table: "Rooms");

            migrationBuilder.DropColumn(
                name: "Celsius",
                table: "Rooms");

            migrationBuilder.DropColumn(
                name: "FurthestPosition",
                table: "Pupils");

            migrationBuilder.DropColumn(
                name: "HighestValve",
                table: "Pupils");
        }
    }
}
