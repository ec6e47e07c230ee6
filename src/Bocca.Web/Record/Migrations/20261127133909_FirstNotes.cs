using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Bocca.Web.Record.Migrations
{
    /// <inheritdoc />
    public partial class FirstNotes : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "FirstNoteOrders",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    PupilId = table.Column<int>(type: "INTEGER", nullable: true),
                    InstrumentId = table.Column<string>(type: "TEXT", maxLength: 40, nullable: false),
                    Notes = table.Column<string>(type: "TEXT", maxLength: 100, nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_FirstNoteOrders", x => x.Id);
                    table.ForeignKey(
                        name: "FK_FirstNoteOrders_Pupils_PupilId",
                        column: x => x.PupilId,
                        principalTable: "Pupils",
                        principalColumn: "Id");
                });

            migrationBuilder.CreateIndex(
                name: "IX_FirstNoteOrders_PupilId_InstrumentId",
                table: "FirstNoteOrders",
                columns: new[] { "PupilId", "InstrumentId" },
                unique: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "FirstNoteOrders");
        }
    }
}
