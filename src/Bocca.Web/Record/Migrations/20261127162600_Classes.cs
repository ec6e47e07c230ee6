using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Bocca.Web.Record.Migrations
{
    /// <inheritdoc />
    public partial class Classes : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "ClassName",
                table: "Pupils",
                type: "TEXT",
                maxLength: 40,
                nullable: false,
                defaultValue: "");

            // Where two of the room's were written at one moment, the newer one holds.
            migrationBuilder.Sql(
                "DELETE FROM FirstNoteOrders WHERE PupilId IS NULL AND Id NOT IN "
                    + "(SELECT MAX(Id) FROM FirstNoteOrders WHERE PupilId IS NULL GROUP BY InstrumentId);");

            migrationBuilder.CreateIndex(
                name: "IX_FirstNoteOrders_InstrumentId",
                table: "FirstNoteOrders",
                column: "InstrumentId",
                unique: true,
                filter: "PupilId IS NULL");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_FirstNoteOrders_InstrumentId",
                table: "FirstNoteOrders");

            migrationBuilder.DropColumn(
                name: "ClassName",
                table: "Pupils");
        }
    }
}
