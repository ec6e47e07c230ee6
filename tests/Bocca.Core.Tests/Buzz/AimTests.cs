using Bocca.Core.Buzz;
using Bocca.Core.Buzz.Aims;
using Bocca.Core.Buzz.Drills;
using Bocca.Core.Buzz.Measures;
using Bocca.Core.Instruments;
using Bocca.Core.Judging;
using Bocca.Core.Music;
using Bocca.Core.Simulation;
using Bocca.Core.Teaching;

namespace Bocca.Core.Tests.Buzz;

/// <summary>Every drill, played well and played badly.</summary>
public sealed class AimTests
{
    public static TheoryData<string, SoundStage> Played
    {
        get
        {
            // Each on what it is first played on, and the usual one on all.
            var data = new TheoryData<string, SoundStage>();
            foreach (var drill in BuzzDrill.All)
            foreach (var on in drill.On.Take(drill.Id == "sound4-rest4" ? drill.On.Count : 1))
                data.Add(drill.Id, on);
            return data;
        }
    }

    [Theory, MemberData(nameof(Played))]
    public void A_drill_played_as_asked_passes(string id, SoundStage on)
    {
        var verdict = Hear("trumpet-bb", id, on, "").Verdict;
        Assert.True(verdict.Outcome == Outcome.Passed, $"{verdict.Summary} {string.Join(" | ", verdict.Asked)} {verdict.Next}");
        Assert.DoesNotContain(verdict.Asked, aim => aim.Met == false);
    }

    [Theory]
    [InlineData("long-buzz", "short=0.85", "long")]
    [InlineData("four-tongued", "slow-start=250", "tongued")]
    [InlineData("grip-steps", "wander=90@5,6", "one finger")]
    public void What_a_drill_asks_for_is_missed_when_it_is_not_played(string id, string fault, string what)
    {
        var verdict = Hear("trumpet-bb", id, SoundStage.Mouthpiece, fault).Verdict;
        Assert.NotEqual(Outcome.Passed, verdict.Outcome);
        Assert.Contains(verdict.Asked, aim => aim.Met == false && aim.What == what);
    }

    // A drill that asks for another thing, played in its place: the same counts are needed.
    [Theory]
    [InlineData("three-heights", "middle")]
    [InlineData("mp-siren", "narrow")]
    [InlineData("siren-three", "level")]
    [InlineData("buzz-neighbour", "level")]
    [InlineData("lips-tune", "level")]
    [InlineData("three-samples", "plain")]
    [InlineData("air-first-note", "plain")]
    public void A_drill_played_without_what_it_is_for_does_not_pass(string id, string how)
    {
        var drill = BuzzDrill.Get(id);
        IReadOnlyList<double> Flat(Cue cue) =>
            how == "narrow" ? [.. cue.Heights.Select(height => height / 4)] : [.. cue.Heights.Select(_ => 0.0)];
        var plan = drill.Plan with { Tries = [.. drill.Plan.Tries.Select(cue => cue with { Heights = Flat(cue) })] };
        IReadOnlyList<Fault> faults = id == "air-first-note" ? [Fault.Parse("air-first=900")] : [];
        var take = SimulatedPlayer.Play(Catalogue.Get("trombone"), SoundStage.Mouthpiece, plan, faults, 6, Tuning.Standard);
        var verdict = TakeListener
            .Hear(take.Sound, new AskedTake(drill, drill.Plan, SoundStage.Mouthpiece, LearningStage.FirstNotes), SoundingPupil.Unknown)
            .Verdict;
        Assert.NotEqual(Outcome.Passed, verdict.Outcome);
        Assert.Contains(verdict.Asked, aim => aim.Met == false);
    }

    [Fact]
    public void A_jaw_that_is_not_dropped_is_no_proof()
    {
        var verdict = Hear("trumpet-bb", "jaw-check", SoundStage.Mouthpiece, "", playedAs: "steady-line").Verdict;
        Assert.NotEqual(Outcome.Passed, verdict.Outcome);
        Assert.Contains(verdict.Asked, aim => aim is { What: "jaw dropped", Heard: "3 of 3 sounded", Met: false });
        Assert.Contains(verdict.Asked, aim => aim is { What: "jaw back", Met: true });
    }

    [Theory]
    [InlineData("face-shape")]
    [InlineData("lip-awareness")]
    [InlineData("speak-through")]
    public void A_pair_tells_what_the_face_changed_and_nothing_that_it_did_not(string id)
    {
        string Told(string faults) =>
            Hear("trumpet-bb", id, SoundStage.Mouthpiece, faults).Verdict.Asked.First(aim => aim.What == "after").Heard;
        Assert.Contains("clearer", Told("airy=14@1,2,3"), StringComparison.Ordinal);
        Assert.Contains("steadier", Told("wander=60@1,2,3"), StringComparison.Ordinal);
        Assert.DoesNotContain("clearer", Told(""), StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("silent=0.5@1,2,4,5,7,8,10", "a little lower: 3 of 3 spoke")]
    [InlineData("wander=70@3,6,9,1,4,7,10", "a little higher: 3 of 3 spoke")]
    public void Ten_placements_are_told_one_by_one_and_the_best_is_named(string faults, string best)
    {
        var asked = Hear("trombone", "placement-search", SoundStage.Mouthpiece, faults).Verdict.Asked;
        Assert.Equal(11, asked.Count);
        Assert.StartsWith(best, asked[0].Heard, StringComparison.Ordinal);
        Assert.Equal("try 10, as usual", asked[^1].What);
    }

    [Fact]
    public void Placements_that_are_alike_are_too_close_to_call() =>
        Assert.Contains(
            "too close to call",
            Hear("trombone", "placement-search", SoundStage.Mouthpiece, "wander=5").Verdict.Asked[0].Heard,
            StringComparison.Ordinal
        );

    // Common practice: 12 long ones, 12 of four counts and 48 tongued over lips, mouthpiece and instrument.
    [Fact]
    public void The_grid_has_twelve_twelve_and_forty_eight()
    {
        var drill = BuzzDrill.Get("stage-grid");
        Assert.Equal([12, 12, 48], drill.Plan.Tries.GroupBy(cue => cue.Label).Select(kind => drill.On.Count * kind.Count()));
    }

    // Common practice: four sets of four tongued counts, and a breath after each four.
    [Theory]
    [InlineData("four-tongued")]
    [InlineData("stage-grid")]
    public void Tongued_counts_have_a_place_to_breathe(string id)
    {
        var tongued = BuzzDrill.Get(id).Plan.Tries.Where(cue => cue.Tongued).ToList();
        Assert.Equal(16, tongued.Count);
        Assert.All(tongued.Where((_, i) => i % 4 == 3), cue => Assert.True(cue.RestBeats >= 4));
        Assert.All(tongued.Where((_, i) => i % 4 != 3), cue => Assert.True(cue.RestBeats < 1));
    }

    // Computed: a half, a half and a whole note are eight counts; seven sequences or more, two minutes or more.
    [Fact]
    public void The_neighbours_are_eight_counts_each_and_last_two_minutes()
    {
        var plan = BuzzDrill.Get("buzz-neighbour").Plan;
        Assert.All(plan.Tries, cue => Assert.Equal(8, cue.SoundBeats + cue.RestBeats));
        Assert.InRange(plan.TotalSeconds, 120, 300);
        Assert.Equal(Enumerable.Range(0, 8).Select(step => -(double)step), plan.Tries.Take(8).Select(cue => cue.Heights[0]));
    }

    [Fact]
    public void A_voice_is_drawn_and_not_judged()
    {
        var heard = Hear("horn-f", "mp-siren", SoundStage.Mouthpiece, "silent=1@1,2");
        Assert.Equal(Outcome.Passed, heard.Verdict.Outcome);
        Assert.Equal(3, heard.Measures.Asked.Count());
    }

    [Theory]
    [InlineData("trumpet-bb")]
    [InlineData("trombone")]
    public void Voice_mouthpiece_and_instrument_lie_over_each_other(string id)
    {
        var heard = Hear(id, "siren-three", SoundStage.Instrument, "");
        Assert.True(heard.Verdict.Outcome == Outcome.Passed, $"{heard.Verdict.Summary} {string.Join("; ", heard.Verdict.Asked)}");
        var laid = LaidCurves.Of(heard.Strip!)!;
        Assert.Equal(["sing", "mouthpiece", "instrument"], laid.Labels);
        Assert.All(laid.Labels.Skip(1), label => Assert.InRange(laid.Likeness(label, "sing"), 0.6, 1));
        Assert.All(
            heard.Verdict.Asked.Where(aim => aim.What.Contains("after the voice", StringComparison.Ordinal)),
            aim => Assert.True(aim.Met, aim.Heard)
        );
    }

    [Fact]
    public void A_mouthpiece_that_goes_down_where_the_voice_went_up_does_not_follow_it()
    {
        var drill = BuzzDrill.Get("siren-three");
        var plan = drill.Plan with
        {
            Tries = [.. drill.Plan.Tries.Select(cue => cue.Label == "mouthpiece" ? cue with { Heights = [10, 0, 10] } : cue)],
        };
        var take = SimulatedPlayer.Play(Catalogue.Get("trumpet-bb"), SoundStage.Instrument, plan, [], 6, Tuning.Standard);
        var verdict = TakeListener
            .Hear(take.Sound, new AskedTake(drill, drill.Plan, SoundStage.Instrument, LearningStage.FirstNotes), SoundingPupil.Unknown)
            .Verdict;
        Assert.NotEqual(Outcome.Passed, verdict.Outcome);
        Assert.Contains(verdict.Asked, aim => aim is { What: "mouthpiece after the voice", Met: false });
    }

    // Computed: the likeness is a correlation, so that width and height do not matter and the way does.
    [Fact]
    public void Likeness_minds_the_way_and_not_the_width()
    {
        LaidCurve Made(string label, Func<double, double> height) =>
            LaidCurves.Curve(label, [.. Enumerable.Range(0, 100).Select(i => i % 9 == 4 ? null : (double?)height(i / 99.0))])!;
        var laid = new LaidCurves([
            Made("a", x => Math.Sin(Math.PI * x)),
            Made("b", x => 40 + (5 * Math.Sin(Math.PI * x))),
            Made("c", x => -Math.Sin(Math.PI * x)),
            Made("d", x => Math.Sin(2 * Math.PI * x)),
        ]);
        Assert.Equal(1, laid.Likeness("b", "a"), 0.01);
        Assert.Equal(5, laid.WidthRatio("b", "a"), 0.05);
        Assert.Equal(-1, laid.Likeness("c", "a"), 0.01);
        Assert.Equal(0, laid.Likeness("d", "a"), 0.05);
        Assert.Null(LaidCurves.Curve("e", [1, 2, null]));
    }

    private static HeardTake Hear(
        string instrumentId,
        string drillId,
        SoundStage on,
        string faults,
        int seed = 5,
        SoundingPupil? pupil = null,
        string? playedAs = null
    )
    {
        var instrument = Catalogue.Get(instrumentId);
        var drill = BuzzDrill.Get(drillId);
        var played = playedAs is null ? drill : BuzzDrill.Get(playedAs);
        var take = SimulatedPlayer.Play(
            instrument,
            on,
            drill.Plan,
            [.. $"{played.Played} {faults}".Split(' ', StringSplitOptions.RemoveEmptyEntries).Select(Fault.Parse)],
            seed,
            drill.StartHz(instrument, Tuning.Standard)
        );
        return TakeListener.Hear(
            take.Sound,
            new AskedTake(drill, drill.Plan, on, LearningStage.FirstNotes),
            pupil ?? SoundingPupil.Unknown
        );
    }
}
