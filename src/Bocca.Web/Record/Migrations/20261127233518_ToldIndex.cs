using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Bocca.Web.Record.Migrations
{
    /// <inheritdoc />
    public partial class ToldIndex : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateIndex(
                name: "IX_Entries_Told",
                table: "Entries",
                column: "At",
                filter: "\"Kind\" IN ('seen', 'report', 'week')");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Entries_Told",
                table: "Entries");
        }
    }
}
