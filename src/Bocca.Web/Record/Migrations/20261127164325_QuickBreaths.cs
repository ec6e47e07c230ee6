using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Bocca.Web.Record.Migrations
{
    /// <inheritdoc />
    public partial class QuickBreaths : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            // A half rest was the first pattern of the quick breaths and is none any more: what was done in it keeps a name of its own, and
            // the other patterns move up by one.
            migrationBuilder.Sql(
                "UPDATE Entries SET DrillId = 'quick-breath-half' WHERE Kind = 'breath' AND DrillId = 'quick-breath' AND Level = 0;");
            migrationBuilder.Sql(
                "UPDATE Entries SET Level = Level - 1 WHERE Kind = 'breath' AND DrillId = 'quick-breath' AND Level > 0;");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql(
                "UPDATE Entries SET Level = Level + 1 WHERE Kind = 'breath' AND DrillId = 'quick-breath';");
            migrationBuilder.Sql(
                "UPDATE Entries SET DrillId = 'quick-breath' WHERE Kind = 'breath' AND DrillId = 'quick-breath-half';");
        }
    }
}
