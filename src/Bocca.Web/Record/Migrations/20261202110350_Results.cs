using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Bocca.Web.Record.Migrations
{
    /// <inheritdoc />
    public partial class Results : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder) =>
            // A column alone: entries are renewed some at a time, and the column Level, which it stands for, goes when all are.
            migrationBuilder.Sql("ALTER TABLE Entries ADD COLUMN Result TEXT NULL;");

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder) => migrationBuilder.DropColumn(name: "Result", table: "Entries");
    }
}
