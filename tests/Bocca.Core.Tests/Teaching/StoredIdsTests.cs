using Bocca.Core.Breath;
using Bocca.Core.Buzz;
using Bocca.Core.Buzz.Drills;
using Bocca.Core.Buzz.Measures;
using Bocca.Core.Counting;
using Bocca.Core.Health;
using Bocca.Core.Slurs;
using Bocca.Core.Teaching;
using Bocca.Core.Tone.Drills;

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

    /// <summary>Paths of a teacher's own numbers, as they stood on 2 December 2026: lines are added, never taken away.</summary>
    [Fact]
    public void Every_number_that_was_ever_set_is_still_found()
    {
        List<string> paths =
        [
            .. BandSettings.All.Select(band => band.Setting.Path),
            .. (
                (IEnumerable<NumberSetting>)
                    [
                        .. SlurBandTable.Settings,
                        .. CountJudge.Settings,
                        .. BuzzDrill.All.SelectMany(drill => drill.Settings),
                        .. ToneDrill.All.SelectMany(drill => drill.Settings),
                        .. PlayingLimits.Settings,
                        LipTime.Setting,
                        .. BreathLimits.Settings,
                    ]
            ).Select(setting => setting.Path),
        ];
        Assert.Equal(paths.Count, paths.Distinct().Count());
        Assert.Empty(File.ReadLines(Path.Combine(AppContext.BaseDirectory, "Teaching", "setting-paths.txt")).Except(paths));
    }

    [Fact]
    public void A_number_is_put_into_the_part_of_its_id()
    {
        var bursts = BuzzDrill.Get("buzz-bursts").With(OwnSettings.None.With("drills.buzz.buzz-bursts.sets.1.times", "3"));
        Assert.Equal([4, 3], bursts.Sets.Select(set => set.Times));
        foreach (
            var ids in BuzzDrill
                .All.Select(drill => drill.Sets.Select(set => set.Id).ToList())
                .Concat(ToneDrill.All.Select(drill => drill.Sets.Select(set => set.Id).ToList()))
        )
            Assert.Equal(ids.Count, ids.Distinct().Count());
    }

    /// <summary>The record sums these numbers.</summary>
    [Fact]
    public void Reasons_of_health_keep_their_numbers()
    {
        Assert.Equal([0, 1, 2, 4, 8, 16, 32, 64, 128, 256, 512], Enum.GetValues<BreathHealth>().Select(reason => (int)reason));
        Assert.Equal((1, 64, 512), ((int)BreathHealth.Breathing, (int)BreathHealth.EyePressure, (int)BreathHealth.Unsaid));
        Assert.Equal((0, 1, 2), ((int)MouthNote.None, (int)MouthNote.Braces, (int)MouthNote.LooseTooth));
    }
}
