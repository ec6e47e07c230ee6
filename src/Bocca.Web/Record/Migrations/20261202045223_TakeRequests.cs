using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Bocca.Web.Record.Migrations
{
    /// <inheritdoc />
    public partial class TakeRequests : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "Requests",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false).Annotation("Sqlite:Autoincrement", true),
                    Kind = table.Column<string>(type: "TEXT", maxLength: 20, nullable: false),
                    Version = table.Column<int>(type: "INTEGER", nullable: false),
                    Body = table.Column<string>(type: "TEXT", nullable: false),
                    Hash = table.Column<string>(type: "TEXT", maxLength: 64, nullable: false),
                },
                constraints: table => table.PrimaryKey("PK_Requests", x => x.Id)
            );
            migrationBuilder.CreateIndex(name: "IX_Requests_Hash", table: "Requests", column: "Hash", unique: true);

            // Columns alone: a million entries are not written anew for them.
            migrationBuilder.Sql("ALTER TABLE Entries ADD COLUMN RequestId INTEGER NULL REFERENCES Requests (Id);");
            migrationBuilder.Sql("ALTER TABLE Entries ADD COLUMN Rebuilt INTEGER NOT NULL DEFAULT 0;");
            migrationBuilder.CreateIndex(
                name: "IX_Entries_RequestId",
                table: "Entries",
                column: "RequestId",
                filter: "\"RequestId\" IS NOT NULL"
            );
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(name: "IX_Entries_RequestId", table: "Entries");
            migrationBuilder.DropColumn(name: "Rebuilt", table: "Entries");
            migrationBuilder.DropColumn(name: "RequestId", table: "Entries");
            migrationBuilder.DropTable(name: "Requests");
        }
    }
}
