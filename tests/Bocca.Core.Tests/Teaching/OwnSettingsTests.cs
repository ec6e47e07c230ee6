using Bocca.Core.Breath;
using Bocca.Core.Buzz;
using Bocca.Core.Buzz.Drills;
using Bocca.Core.Buzz.Measures;
using Bocca.Core.Health;
using Bocca.Core.Judging;
using Bocca.Core.Slurs;
using Bocca.Core.Teaching;
using Bocca.Core.Tone.Drills;

namespace Bocca.Core.Tests.Teaching;

/// <summary>What a teacher sets otherwise: every number reaches what it names, caps only go down, ladders stay sayable.</summary>
public sealed class OwnSettingsTests
{
    private static OwnSettings Set(string path, double value) => OwnSettings.None.With(path, NumberSetting.Text(value));

    [Fact]
    public void Every_band_reaches_its_own_number_and_no_other()
    {
        var shipped = BandTable.Shipped;
        foreach (var band in BandSettings.All.Select(each => each.Setting))
        {
            Assert.InRange(band.Shipped, band.Least, band.Most);
            var changed = shipped.With(Set(band.Path, band.Most == band.Shipped ? band.Least : band.Most));
            StageBands[] before = [shipped.Lips, shipped.Mouthpiece, shipped.FirstNotes, shipped.Second];
            StageBands[] after = [changed.Lips, changed.Mouthpiece, changed.FirstNotes, changed.Second];
            Assert.Equal(1, before.Zip(after).Count(pair => pair.First != pair.Second));
        }

        Assert.Equal(55, shipped.With(Set("bands.mouthpiece.steadyCents", 55)).Mouthpiece.SteadyCents);
        Assert.Equal(shipped, shipped.With(OwnSettings.None));
    }

    [Fact]
    public void Every_number_of_a_drill_and_of_a_slur_changes_what_is_played_or_judged()
    {
        foreach (var drill in BuzzDrill.All)
        foreach (var number in drill.Settings)
            Assert.True(!Differs(number) || !drill.With(Set(number.Path, number.Most)).Plan.Equals(drill.Plan), number.Path);
        foreach (var drill in ToneDrill.All)
        foreach (var number in drill.Settings.Where(Differs))
        {
            var changed = drill.With(Set(number.Path, number.Most));
            Assert.True(changed.Tempo != drill.Tempo || !changed.Sets.SequenceEqual(drill.Sets), number.Path);
            Assert.Equal((drill.Id, drill.Aim, drill.Ask), (changed.Id, changed.Aim, changed.Ask));
        }

        foreach (var number in SlurBandTable.Settings)
            Assert.NotEqual(SlurBandTable.Shipped, SlurBandTable.Shipped.With(Set(number.Path, number.Least)));
    }

    private static bool Differs(NumberSetting number) => number.Most != number.Shipped;

    [Fact]
    public void Caps_only_go_down_whatever_is_stored()
    {
        foreach (var number in BreathLimits.Settings)
            Assert.Equal(BreathLimits.Ceiling, BreathLimits.Of(Set(number.Path, 10 * number.Shipped + 100)));
        Assert.Equal(2, BreathLimits.Of(Set("breath.holdSeconds", 2)).HoldSeconds);
        var pupil = new BreathingPupil(14, BreathHealth.None, false) { Most = BreathLimits.Of(Set("breath.secondsPerDay", 60)) };
        Assert.Equal(60, BreathLimits.For(pupil).SecondsPerDay);
        var limits = PlayingLimits.For(LearningStage.FirstNotes, 30);
        Assert.Equal(limits, limits.With(Set("limits.onSeconds", 900).With("limits.offSeconds", "1")));
        Assert.Equal((60, 300), (Of("limits.onSeconds", 60).OnSeconds, Of("limits.offSeconds", 300).OffSeconds));
        PlayingLimits Of(string path, double value) => limits.With(Set(path, value));
        var plan = new CuePlan(60, 4, 4, 8);
        Assert.Null(LipTime.Refusal(plan, SoundStage.Lips, 0));
        Assert.NotNull(LipTime.Refusal(plan, SoundStage.Lips, 0, Set(LipTime.Setting.Path, 60)));
        Assert.NotNull(LipTime.Refusal(plan, SoundStage.Lips, 250, Set(LipTime.Setting.Path, 10000)));
    }

    [Theory]
    [InlineData("a", "'a' is not a number")]
    [InlineData("9999", "must be")]
    [InlineData("NaN", "is not a number")]
    [InlineData("-5", "must be")]
    public void What_is_typed_wrong_is_said_in_a_sentence(string typed, string sentence)
    {
        var gate = BandSettings.All.First(band => band.Setting.Path == "bands.mouthpiece.steadyCents").Setting;
        Assert.Contains(sentence, Assert.Throws<ArgumentException>(() => gate.Read(typed)).Message);
        Assert.Equal(35.5, gate.Read(" 35,5 "));
    }

    [Fact]
    public void A_pupils_own_goes_over_the_rooms_and_the_values_come_back_alike()
    {
        var room = Set("bands.lips.steadyCents", 70).With("bands.lips.breaks", "3");
        var all = Set("bands.lips.steadyCents", 80).Over(room);
        Assert.Equal(("80", "3"), (all["bands.lips.steadyCents"], all["bands.lips.breaks"]));
        Assert.Equal(all.Values, OwnSettings.Of(all.Values).Values);
        Assert.Empty(room.With("bands.lips.steadyCents", null).With("bands.lips.breaks", null).Values);
    }

    /// <summary>A setting that led somewhere in an earlier version and leads nowhere now changes nothing.</summary>
    [Theory]
    [InlineData("bands.mouthpiece.gone")]
    [InlineData("bands.gone.steadyCents")]
    [InlineData("bands.mouthpiece.steadyCents.deeper")]
    [InlineData("bands.basis")]
    public void A_path_that_leads_nowhere_is_passed_over(string path) =>
        Assert.Equal(BandTable.Shipped, BandTable.Shipped.With(Set(path, 3)));

    [Fact]
    public void Every_ladder_that_ships_could_be_a_teachers_own()
    {
        foreach (var symptom in SymptomTable.Shipped.All.Where(symptom => !symptom.IsHealth))
        {
            var ladder = OwnLadder.Checked(symptom, OwnLadder.Of(symptom));
            Assert.Equal(symptom.Fixes.Select(fix => fix.Cue), symptom.With(ladder).Fixes.Select(fix => fix.Cue));
        }
    }

    [Fact]
    public void A_ladder_is_reordered_reworded_and_added_to_and_a_reworded_cue_keeps_what_it_brought()
    {
        var symptom = SymptomTable.Shipped.Get("oneLow");
        var rungs = OwnLadder.Of(symptom);
        OwnRung[] typed = [new("own-1", "Think of the note above.", Pull.Neutral), rungs[1], rungs[0] with { Cue = "Hum it first." }];
        var ladders = new Dictionary<string, IReadOnlyList<OwnRung>> { ["oneLow"] = OwnLadder.Checked(symptom, typed) };
        var changed = SymptomTable.Shipped.With(ladders).Get("oneLow");
        var approach = Approach.Of(ApproachPreset.MouthpieceFirst);
        Assert.Equal(["Think of the note above.", "Hum it first."], changed.Ladder(approach, tense: false).Select(fix => fix.Cue));
        // Where nobody sings, nobody is told to hum.
        Assert.DoesNotContain(
            "Hum it first.",
            changed.Ladder(approach.With(Approach.Points("sing=c")), tense: false).Select(fix => fix.Cue)
        );
        Assert.Equal("oneLow.sing", CueHistory.NameOf("oneLow", changed.Fixes[2]));
    }

    [Theory]
    [InlineData("Set the corners. Then blow.", "two things")]
    [InlineData("one two three four five six seven eight nine ten eleven twelve thirteen", "13 words")]
    [InlineData("", "something has to be left")]
    public void What_cannot_be_said_while_playing_is_refused(string cue, string sentence)
    {
        var symptom = SymptomTable.Shipped.Get("oneLow");
        var problem = Assert.Throws<ArgumentException>(() => OwnLadder.Checked(symptom, [new("own-1", cue, Pull.Neutral)]));
        Assert.Contains(sentence, problem.Message);
    }

    [Fact]
    public void What_is_said_where_somebody_may_be_hurt_stays_as_it_is()
    {
        var dizzy = SymptomTable.Shipped.Get("dizzy");
        Assert.Throws<ArgumentException>(() => OwnLadder.Checked(dizzy, [new("sit", "Go on.", Pull.Neutral)]));
        Assert.Equal(dizzy, dizzy.With([new("sit", "Go on.", Pull.Neutral)]));
    }
}
