using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Bocca.Web.Record.Migrations
{
    /// <inheritdoc />
    public partial class Initial : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "Pupils",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Name = table.Column<string>(type: "TEXT", maxLength: 80, nullable: false),
                    InstrumentId = table.Column<string>(type: "TEXT", maxLength: 40, nullable: false),
                    ReadingId = table.Column<string>(type: "TEXT", maxLength: 20, nullable: false),
                    Preset = table.Column<string>(type: "TEXT", maxLength: 30, nullable: true),
                    Points = table.Column<string>(type: "TEXT", maxLength: 1500, nullable: false),
                    BornIn = table.Column<int>(type: "INTEGER", nullable: true),
                    Health = table.Column<int>(type: "INTEGER", nullable: false),
                    DoctorAgrees = table.Column<bool>(type: "INTEGER", nullable: false),
                    ArmCm = table.Column<double>(type: "REAL", nullable: true),
                    Stage = table.Column<string>(type: "TEXT", maxLength: 30, nullable: false),
                    Started = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    Remark = table.Column<string>(type: "TEXT", maxLength: 500, nullable: false),
                    Version = table.Column<Guid>(type: "TEXT", nullable: false),
                    DeletedAt = table.Column<DateTime>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Pupils", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "Rooms",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false),
                    Preset = table.Column<string>(type: "TEXT", maxLength: 30, nullable: false),
                    Points = table.Column<string>(type: "TEXT", maxLength: 1500, nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Rooms", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "Advice",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    PupilId = table.Column<int>(type: "INTEGER", nullable: false),
                    SymptomId = table.Column<string>(type: "TEXT", maxLength: 40, nullable: false),
                    SuggestedId = table.Column<string>(type: "TEXT", maxLength: 40, nullable: false),
                    Cue = table.Column<string>(type: "TEXT", maxLength: 300, nullable: false),
                    Why = table.Column<string>(type: "TEXT", maxLength: 1200, nullable: false),
                    ApproachText = table.Column<string>(type: "TEXT", maxLength: 1500, nullable: false),
                    At = table.Column<DateTime>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Advice", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Advice_Pupils_PupilId",
                        column: x => x.PupilId,
                        principalTable: "Pupils",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Balloons",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    PupilId = table.Column<int>(type: "INTEGER", nullable: false),
                    CircumferenceCm = table.Column<double>(type: "REAL", nullable: false),
                    Litres = table.Column<double>(type: "REAL", nullable: false),
                    At = table.Column<DateTime>(type: "TEXT", nullable: false),
                    DeletedAt = table.Column<DateTime>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Balloons", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Balloons_Pupils_PupilId",
                        column: x => x.PupilId,
                        principalTable: "Pupils",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Breaths",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    PupilId = table.Column<int>(type: "INTEGER", nullable: false),
                    Key = table.Column<Guid>(type: "TEXT", nullable: false),
                    DrillId = table.Column<string>(type: "TEXT", maxLength: 40, nullable: false),
                    Rung = table.Column<int>(type: "INTEGER", nullable: false),
                    Tempo = table.Column<double>(type: "REAL", nullable: false),
                    AskedCounts = table.Column<double>(type: "REAL", nullable: false),
                    AskedSeconds = table.Column<double>(type: "REAL", nullable: false),
                    HeardSeconds = table.Column<double>(type: "REAL", nullable: true),
                    VariationPercent = table.Column<double>(type: "REAL", nullable: true),
                    Even = table.Column<bool>(type: "INTEGER", nullable: false),
                    Stopped = table.Column<bool>(type: "INTEGER", nullable: false),
                    Measured = table.Column<bool>(type: "INTEGER", nullable: false),
                    DrilledSeconds = table.Column<double>(type: "REAL", nullable: false),
                    HeldBreaths = table.Column<int>(type: "INTEGER", nullable: false),
                    Summary = table.Column<string>(type: "TEXT", maxLength: 400, nullable: false),
                    ApproachText = table.Column<string>(type: "TEXT", maxLength: 1500, nullable: false),
                    At = table.Column<DateTime>(type: "TEXT", nullable: false),
                    DeletedAt = table.Column<DateTime>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Breaths", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Breaths_Pupils_PupilId",
                        column: x => x.PupilId,
                        principalTable: "Pupils",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Notes",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    PupilId = table.Column<int>(type: "INTEGER", nullable: false),
                    Written = table.Column<string>(type: "TEXT", maxLength: 8, nullable: false),
                    ReadingId = table.Column<string>(type: "TEXT", maxLength: 20, nullable: false),
                    Setting = table.Column<string>(type: "TEXT", maxLength: 20, nullable: false),
                    Partial = table.Column<int>(type: "INTEGER", nullable: false),
                    Cents = table.Column<double>(type: "REAL", nullable: false),
                    ApproachText = table.Column<string>(type: "TEXT", maxLength: 1500, nullable: false),
                    SavedAt = table.Column<DateTime>(type: "TEXT", nullable: false),
                    DeletedAt = table.Column<DateTime>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Notes", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Notes_Pupils_PupilId",
                        column: x => x.PupilId,
                        principalTable: "Pupils",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Noticed",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    PupilId = table.Column<int>(type: "INTEGER", nullable: false),
                    Signal = table.Column<string>(type: "TEXT", maxLength: 60, nullable: false),
                    At = table.Column<DateTime>(type: "TEXT", nullable: false),
                    DeletedAt = table.Column<DateTime>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Noticed", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Noticed_Pupils_PupilId",
                        column: x => x.PupilId,
                        principalTable: "Pupils",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Placements",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    PupilId = table.Column<int>(type: "INTEGER", nullable: false),
                    Source = table.Column<string>(type: "TEXT", maxLength: 30, nullable: false),
                    RimMm = table.Column<double>(type: "REAL", nullable: false),
                    MarksJson = table.Column<string>(type: "TEXT", nullable: false),
                    MeasuresJson = table.Column<string>(type: "TEXT", nullable: false),
                    ShareAbove = table.Column<double>(type: "REAL", nullable: false),
                    Sentences = table.Column<string>(type: "TEXT", maxLength: 800, nullable: false),
                    Signals = table.Column<string>(type: "TEXT", maxLength: 200, nullable: false),
                    ApproachText = table.Column<string>(type: "TEXT", maxLength: 1500, nullable: false),
                    At = table.Column<DateTime>(type: "TEXT", nullable: false),
                    DeletedAt = table.Column<DateTime>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Placements", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Placements_Pupils_PupilId",
                        column: x => x.PupilId,
                        principalTable: "Pupils",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Steps",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    PupilId = table.Column<int>(type: "INTEGER", nullable: false),
                    TakeId = table.Column<int>(type: "INTEGER", nullable: true),
                    Place = table.Column<string>(type: "TEXT", maxLength: 30, nullable: false),
                    DrillId = table.Column<string>(type: "TEXT", maxLength: 40, nullable: true),
                    Cue = table.Column<string>(type: "TEXT", maxLength: 300, nullable: false),
                    Reason = table.Column<string>(type: "TEXT", maxLength: 600, nullable: false),
                    AcceptedAt = table.Column<DateTime>(type: "TEXT", nullable: false),
                    DoneAt = table.Column<DateTime>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Steps", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Steps_Pupils_PupilId",
                        column: x => x.PupilId,
                        principalTable: "Pupils",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Takes",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    PupilId = table.Column<int>(type: "INTEGER", nullable: false),
                    DrillId = table.Column<string>(type: "TEXT", maxLength: 40, nullable: false),
                    Tempo = table.Column<double>(type: "REAL", nullable: false),
                    On = table.Column<string>(type: "TEXT", maxLength: 30, nullable: false),
                    Source = table.Column<string>(type: "TEXT", maxLength: 30, nullable: false),
                    RecordedAt = table.Column<DateTime>(type: "TEXT", nullable: false),
                    Kept = table.Column<bool>(type: "INTEGER", nullable: false),
                    DeletedAt = table.Column<DateTime>(type: "TEXT", nullable: true),
                    ApproachText = table.Column<string>(type: "TEXT", maxLength: 1500, nullable: false),
                    Outcome = table.Column<string>(type: "TEXT", maxLength: 30, nullable: false),
                    SteadinessCents = table.Column<double>(type: "REAL", nullable: true),
                    Summary = table.Column<string>(type: "TEXT", maxLength: 600, nullable: false),
                    MeasuresJson = table.Column<string>(type: "TEXT", nullable: false),
                    VerdictJson = table.Column<string>(type: "TEXT", nullable: false),
                    ThreadsJson = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Takes", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Takes_Pupils_PupilId",
                        column: x => x.PupilId,
                        principalTable: "Pupils",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Ticks",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    PupilId = table.Column<int>(type: "INTEGER", nullable: false),
                    CheckId = table.Column<string>(type: "TEXT", maxLength: 40, nullable: false),
                    ApproachText = table.Column<string>(type: "TEXT", maxLength: 1500, nullable: false),
                    At = table.Column<DateTime>(type: "TEXT", nullable: false),
                    DeletedAt = table.Column<DateTime>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Ticks", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Ticks_Pupils_PupilId",
                        column: x => x.PupilId,
                        principalTable: "Pupils",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Advice_PupilId_At",
                table: "Advice",
                columns: new[] { "PupilId", "At" });

            migrationBuilder.CreateIndex(
                name: "IX_Balloons_PupilId_At",
                table: "Balloons",
                columns: new[] { "PupilId", "At" });

            migrationBuilder.CreateIndex(
                name: "IX_Breaths_Key",
                table: "Breaths",
                column: "Key",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Breaths_PupilId_At",
                table: "Breaths",
                columns: new[] { "PupilId", "At" });

            migrationBuilder.CreateIndex(
                name: "IX_Notes_PupilId_SavedAt",
                table: "Notes",
                columns: new[] { "PupilId", "SavedAt" });

            migrationBuilder.CreateIndex(
                name: "IX_Noticed_PupilId_At",
                table: "Noticed",
                columns: new[] { "PupilId", "At" });

            migrationBuilder.CreateIndex(
                name: "IX_Placements_PupilId_At",
                table: "Placements",
                columns: new[] { "PupilId", "At" });

            migrationBuilder.CreateIndex(
                name: "IX_Steps_PupilId_DoneAt",
                table: "Steps",
                columns: new[] { "PupilId", "DoneAt" });

            migrationBuilder.CreateIndex(
                name: "IX_Takes_PupilId_Kept_RecordedAt",
                table: "Takes",
                columns: new[] { "PupilId", "Kept", "RecordedAt" });

            migrationBuilder.CreateIndex(
                name: "IX_Ticks_PupilId_At",
                table: "Ticks",
                columns: new[] { "PupilId", "At" });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "Advice");

            migrationBuilder.DropTable(
                name: "Balloons");

            migrationBuilder.DropTable(
                name: "Breaths");

            migrationBuilder.DropTable(
                name: "Notes");

            migrationBuilder.DropTable(
                name: "Noticed");

            migrationBuilder.DropTable(
                name: "Placements");

            migrationBuilder.DropTable(
                name: "Rooms");

            migrationBuilder.DropTable(
                name: "Steps");

            migrationBuilder.DropTable(
                name: "Takes");

            migrationBuilder.DropTable(
                name: "Ticks");

            migrationBuilder.DropTable(
                name: "Pupils");
        }
    }
}
