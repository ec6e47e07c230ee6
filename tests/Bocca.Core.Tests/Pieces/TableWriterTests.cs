namespace Bocca.Core.Tests.Pieces;

/// <summary>Tables that a spreadsheet opens: what somebody typed into a score or a name is no formula there.</summary>
public sealed class TableWriterTests
{
    [Fact]
    public void A_cell_that_would_begin_a_formula_is_escaped_and_a_number_is_not()
    {
        using var text = new StringWriter();
        using (var table = new TableWriter(text))
        {
            foreach (var cell in (string[])["=1+1", "@SUM(A1)", "-2+3", "\t=1", "-31.2", "0-1", "C4"])
                table.WriteField(cell);
            table.NextRecord();
        }

        // What is escaped stands in quotes as well.
        Assert.Equal("\"'=1+1\",\"'@SUM(A1)\",\"'-2+3\",\"'\t=1\",-31.2,0-1,C4", text.ToString().Trim());
    }
}
