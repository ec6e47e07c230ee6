using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Bocca.Web.Record.Migrations
{
    /// <inheritdoc />
    public partial class ErasingAndSlots : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_TimetableSlots_PupilId",
                table: "TimetableSlots");

            migrationBuilder.AddColumn<Guid>(
                name: "Key",
                table: "Pupils",
                type: "TEXT",
                nullable: false,
                defaultValue: new Guid("00000000-0000-0000-0000-000000000000"));

            // What each pupil's last edit was called is random and the same in every copy made since: it becomes the key. Two pupils
            // changed in one go bear the same; the later of them gets another.
            migrationBuilder.Sql("""
                UPDATE Pupils SET "Key" = Version;
                UPDATE Pupils SET "Key" = upper(
                    hex(randomblob(4)) || '-' || hex(randomblob(2)) || '-' || hex(randomblob(2)) || '-' || hex(randomblob(2)) || '-'
                    || hex(randomblob(6)))
                WHERE Id NOT IN (SELECT MIN(Id) FROM Pupils GROUP BY Version);
                """);
            // Of the same lesson twice the first stays.
            migrationBuilder.Sql("""
                UPDATE TimetableSlots SET DeletedAt = AddedAt
                WHERE DeletedAt IS NULL AND Id NOT IN (
                    SELECT MIN(Id) FROM TimetableSlots WHERE DeletedAt IS NULL
                    GROUP BY PupilId, CASE WHEN PupilId IS NULL THEN ClassName ELSE '' END, "Day", Start, "From");
                """);
            migrationBuilder.CreateIndex(
                name: "IX_TimetableSlots_ClassName_Day_Start_From",
                table: "TimetableSlots",
                columns: new[] { "ClassName", "Day", "Start", "From" },
                unique: true,
                filter: "\"DeletedAt\" IS NULL AND \"PupilId\" IS NULL");

            migrationBuilder.CreateIndex(
                name: "IX_TimetableSlots_PupilId_Day_Start_From",
                table: "TimetableSlots",
                columns: new[] { "PupilId", "Day", "Start", "From" },
                unique: true,
                filter: "\"DeletedAt\" IS NULL AND \"PupilId\" IS NOT NULL");

            migrationBuilder.CreateIndex(
                name: "IX_Pupils_Key",
                table: "Pupils",
                column: "Key",
                unique: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_TimetableSlots_ClassName_Day_Start_From",
                table: "TimetableSlots");

            migrationBuilder.DropIndex(
                name: "IX_TimetableSlots_PupilId_Day_Start_From",
                table: "TimetableSlots");

            migrationBuilder.DropIndex(
                name: "IX_Pupils_Key",
                table: "Pupils");

            migrationBuilder.DropColumn(
                name: "Key",
                table: "Pupils");

            migrationBuilder.CreateIndex(
                name: "IX_TimetableSlots_PupilId",
                table: "TimetableSlots",
                column: "PupilId");
        }
    }
}
