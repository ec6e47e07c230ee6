using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Bocca.Web.Record.Migrations
{
    /// <inheritdoc />
    public partial class Journal : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "ZoneId",
                table: "Rooms",
                type: "TEXT",
                maxLength: 60,
                nullable: true);

            migrationBuilder.CreateTable(
                name: "Approaches",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Text = table.Column<string>(type: "TEXT", maxLength: 1500, nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Approaches", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "Entries",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    PupilId = table.Column<int>(type: "INTEGER", nullable: false),
                    Kind = table.Column<string>(type: "TEXT", maxLength: 20, nullable: false),
                    DrillId = table.Column<string>(type: "TEXT", maxLength: 200, nullable: true),
                    Subject = table.Column<string>(type: "TEXT", maxLength: 2000, nullable: false),
                    InstrumentId = table.Column<string>(type: "TEXT", maxLength: 40, nullable: true),
                    Stage = table.Column<string>(type: "TEXT", maxLength: 20, nullable: true),
                    Source = table.Column<string>(type: "TEXT", maxLength: 20, nullable: true),
                    Tempo = table.Column<double>(type: "REAL", nullable: true),
                    Level = table.Column<double>(type: "REAL", nullable: true),
                    Came = table.Column<int>(type: "INTEGER", nullable: true),
                    Asked = table.Column<int>(type: "INTEGER", nullable: true),
                    At = table.Column<long>(type: "INTEGER", nullable: false),
                    Kept = table.Column<bool>(type: "INTEGER", nullable: false),
                    DeletedAt = table.Column<long>(type: "INTEGER", nullable: true),
                    DoneAt = table.Column<long>(type: "INTEGER", nullable: true),
                    DueAt = table.Column<long>(type: "INTEGER", nullable: true),
                    Key = table.Column<Guid>(type: "TEXT", nullable: true),
                    ApproachId = table.Column<int>(type: "INTEGER", nullable: true),
                    Outcome = table.Column<string>(type: "TEXT", maxLength: 20, nullable: true),
                    Summary = table.Column<string>(type: "TEXT", maxLength: 800, nullable: false),
                    LevelDb = table.Column<double>(type: "REAL", nullable: true),
                    SoundedSeconds = table.Column<double>(type: "REAL", nullable: true),
                    ElapsedSeconds = table.Column<double>(type: "REAL", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Entries", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Entries_Approaches_ApproachId",
                        column: x => x.ApproachId,
                        principalTable: "Approaches",
                        principalColumn: "Id");
                    table.ForeignKey(
                        name: "FK_Entries_Pupils_PupilId",
                        column: x => x.PupilId,
                        principalTable: "Pupils",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Figures",
                columns: table => new
                {
                    EntryId = table.Column<long>(type: "INTEGER", nullable: false),
                    Name = table.Column<string>(type: "TEXT", maxLength: 40, nullable: false),
                    Item = table.Column<string>(type: "TEXT", maxLength: 60, nullable: false),
                    PupilId = table.Column<int>(type: "INTEGER", nullable: false),
                    InstrumentId = table.Column<string>(type: "TEXT", maxLength: 40, nullable: true),
                    Stage = table.Column<string>(type: "TEXT", maxLength: 20, nullable: true),
                    At = table.Column<long>(type: "INTEGER", nullable: false),
                    Value = table.Column<double>(type: "REAL", nullable: false),
                    Spread = table.Column<double>(type: "REAL", nullable: false),
                    Count = table.Column<int>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Figures", x => new { x.EntryId, x.Name, x.Item });
                    table.ForeignKey(
                        name: "FK_Figures_Entries_EntryId",
                        column: x => x.EntryId,
                        principalTable: "Entries",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Payloads",
                columns: table => new
                {
                    EntryId = table.Column<long>(type: "INTEGER", nullable: false),
                    Version = table.Column<int>(type: "INTEGER", nullable: false),
                    Body = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Payloads", x => x.EntryId);
                    table.ForeignKey(
                        name: "FK_Payloads_Entries_EntryId",
                        column: x => x.EntryId,
                        principalTable: "Entries",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Approaches_Text",
                table: "Approaches",
                column: "Text",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Entries_ApproachId",
                table: "Entries",
                column: "ApproachId");

            migrationBuilder.CreateIndex(
                name: "IX_Entries_At_Id",
                table: "Entries",
                columns: new[] { "At", "Id" });

            migrationBuilder.CreateIndex(
                name: "IX_Entries_Kept",
                table: "Entries",
                column: "Kept",
                filter: "\"Kept\" = 0");

            migrationBuilder.CreateIndex(
                name: "IX_Entries_Key",
                table: "Entries",
                column: "Key",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Entries_Kind_DueAt_PupilId",
                table: "Entries",
                columns: new[] { "Kind", "DueAt", "PupilId" },
                filter: "\"DueAt\" IS NOT NULL");

            migrationBuilder.CreateIndex(
                name: "IX_Entries_OpenSteps",
                table: "Entries",
                columns: new[] { "Kind", "PupilId" },
                filter: "\"Kind\" = 'step' AND \"DoneAt\" IS NULL");

            migrationBuilder.CreateIndex(
                name: "IX_Entries_PupilId_At_Id",
                table: "Entries",
                columns: new[] { "PupilId", "At", "Id" });

            migrationBuilder.CreateIndex(
                name: "IX_Entries_PupilId_Kind_At_Id",
                table: "Entries",
                columns: new[] { "PupilId", "Kind", "At", "Id" });

            migrationBuilder.CreateIndex(
                name: "IX_Figures_PupilId_Name_At_Value",
                table: "Figures",
                columns: new[] { "PupilId", "Name", "At", "Value" });

            migrationBuilder.CreateIndex(
                name: "IX_Figures_PupilId_Name_InstrumentId_At_Value",
                table: "Figures",
                columns: new[] { "PupilId", "Name", "InstrumentId", "At", "Value" });

            // What stands is carried over before the old tables go; all of it in the one transaction of this migration.
            foreach (var statement in JournalCopy.Statements)
                migrationBuilder.Sql(statement);
            foreach (var table in JournalCopy.OldTables)
                migrationBuilder.DropTable(name: table);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder) =>
            throw new System.NotSupportedException("The copy that was made before this step is the way back.");
    }
}
