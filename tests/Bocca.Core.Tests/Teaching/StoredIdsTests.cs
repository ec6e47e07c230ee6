using Bocca.Core.Teaching;

namespace Bocca.Core.Tests.Teaching;

/// <summary>What stands in records is read for ever: every point and option that was ever stored is still there, under its id.</summary>
public sealed class StoredIdsTests
{
    /// <summary>Points with the ids of their options, as they stood on 2 December 2026: lines are added, never taken away.</summary>
    private static IEnumerable<(string Point, string[] Options)> Stood =>
        File.ReadLines(Path.Combine(AppContext.BaseDirectory, "Teaching", "option-ids.txt"))
            .Select(line => line.Split(": "))
            .Select(parts => (parts[0], parts[1].Split(' ')));

    [Fact]
    public void Every_option_that_was_ever_stored_is_read()
    {
        Assert.Equal(57, Stood.Count());
        foreach (var (point, options) in Stood)
        foreach (var option in options)
        {
            var approach = Approach.Parse($"AirFirst {point}={option}");
            Assert.Equal(option, approach[point]);
            Assert.Equal(approach, Approach.Parse($"{approach}"));
        }
    }

    /// <summary>A case of each sort: the first, one in between, the last.</summary>
    [Fact]
    public void An_id_means_what_it_meant()
    {
        var approach = Approach.Parse("LipsFirst stage.lips=b sing=c valve4=c");
        Assert.Equal(LipsAlone.WhenWanted, approach.Of(Points.LipsAlone));
        Assert.Equal(Singing.Off, approach.Of(Points.Singing));
        Assert.Equal(FourthValve.Ask, approach.Of(Points.FourthValve));
        Assert.Equal("b", Points.LipsAlone.IdOf(LipsAlone.WhenWanted));
        Assert.Throws<FormatException>(() => Approach.Parse("lipsfirst"));
    }
}
