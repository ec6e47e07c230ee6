using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Bocca.Web.Record.Migrations
{
    /// <inheritdoc />
    public partial class Demonstrations : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<bool>(
                name: "Invented",
                table: "Pupils",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            // The invented pupils' histories have keys of their own; until now they bore the practice player's name.
            migrationBuilder.Sql("""
                UPDATE Pupils SET Invented = 1
                WHERE Id IN (SELECT PupilId FROM Entries WHERE Source = 'PracticePlayer' AND "Key" IS NOT NULL);
                UPDATE Entries SET Source = 'Microphone' WHERE Source = 'PracticePlayer' AND "Key" IS NOT NULL;
                """);
            // What the practice player played besides is nobody's: it leaves figures, dues and lists.
            migrationBuilder.Sql("""
                DELETE FROM Figures WHERE EntryId IN (SELECT Id FROM Entries WHERE Source = 'PracticePlayer');
                UPDATE Entries SET DeletedAt = COALESCE(DeletedAt, At), DueAt = NULL WHERE Source = 'PracticePlayer';
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "Invented",
                table: "Pupils");
        }
    }
}
