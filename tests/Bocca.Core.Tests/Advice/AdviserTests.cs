using Bocca.Core.Breath;
using Bocca.Core.Buzz.Drills;
using Bocca.Core.Ear;
using Bocca.Core.Embouchure;
using Bocca.Core.Fingering.Trainer;
using Bocca.Core.Health;
using Bocca.Core.Judging;
using Bocca.Core.Teaching;
using Bocca.Core.Tone.Drills;
using CsCheck;

namespace Bocca.Core.Tests.Advice;

public class AdviserTests
{
    private static readonly Approach Mouthpiece = Approach.Of(ApproachPreset.MouthpieceFirst);

    private static readonly string[] Signals =
    [
        .. SymptomTable
            .Shipped.All.SelectMany(symptom =>
                symptom
                    .Tells.Concat(symptom.Supports)
                    .Concat(symptom.Contradicts)
                    .Append($"heard.{symptom.Id}")
                    .Concat(symptom.Ask is { } ask ? [$"yes.{ask.Id}", $"no.{ask.Id}"] : Array.Empty<string>())
            )
            .Distinct(),
    ];

    public static TheoryData<string> Ids => [.. SymptomTable.Shipped.All.Select(symptom => symptom.Id)];

    private static Evidence Known(string signal) => new(signal, $"({signal})");

    [Theory]
    [MemberData(nameof(Ids))]
    public void Each_symptom_is_found_by_what_shows_it_and_says_what_it_went_by(string id)
    {
        var symptom = SymptomTable.Shipped.Get(id);
        var shown = symptom.Tells.Count > 0 ? symptom.Tells : [$"heard.{id}"];
        Evidence[] evidence = [.. shown.Concat(symptom.Supports).Select(Known)];
        var advice = Adviser.Advise(evidence, SymptomTable.Shipped, Mouthpiece);
        Assert.NotNull(advice);
        var suspects = new[] { advice.Found }.Concat(advice.Others).ToList();
        var found = Assert.Single(suspects, suspect => suspect.Symptom.Id == id);
        Assert.Equal(evidence, found.For);
        Assert.Empty(found.Against);
        Assert.All(symptom.Causes, Assert.NotEmpty);
        Assert.NotEmpty(symptom.Basis);
    }

    // The symptom table of the trade, common practice: what was seen, and what is taken for it first.
    [Theory]
    [InlineData("airOnly", "heard.airOnly")]
    [InlineData("silence", "heard.silence seen.breathHeld")]
    [InlineData("pinched", "heard.pinched seen.teeth")]
    [InlineData("pinched", "seen.squeeze seen.pressure")]
    [InlineData("airy", "heard.airy")]
    [InlineData("cheeks", "seen.cheeks")]
    [InlineData("cheeks", "seen.corners")]
    [InlineData("shoulders", "seen.shoulders heard.short")]
    [InlineData("uneven", "heard.uneven placed.moved")]
    [InlineData("climbs", "heard.climbs heard.fades")]
    [InlineData("faceMoves", "seen.faceMoves heard.scoop")]
    [InlineData("oneLow", "seen.oneLow")]
    [InlineData("cutOff", "seen.tongueStops")]
    [InlineData("dizzy", "seen.dizzy heard.airOnly seen.cheeks heard.wobble")]
    public void The_likeliest_is_named_first(string expected, string signals) =>
        Assert.Equal(expected, Adviser.Advise([.. signals.Split(' ').Select(Known)], SymptomTable.Shipped, Mouthpiece)!.Found.Symptom.Id);

    [Fact]
    public void Whatever_is_known_a_tense_pupil_is_never_told_to_tighten() =>
        Gen.Select(Gen.OneOfConst(Signals).List[1, 8], Gen.Enum<ApproachPreset>(), Gen.Bool)
            .Sample(
                (signals, preset, ticked) =>
                {
                    Evidence[] evidence = [.. signals.Distinct().Select(Known)];
                    if (
                        Adviser.Advise(evidence, SymptomTable.Shipped, Approach.Of(preset), ticked) is { } advice
                        && (ticked || Adviser.IsTense(evidence))
                    )
                    {
                        Assert.True(advice.Tense);
                        Assert.NotEqual(Pull.Firm, advice.Fix.Pull);
                    }
                }
            );

    [Fact]
    public void An_answer_weighs_and_its_question_is_asked_no_more()
    {
        var open = Adviser.Advise([Known("heard.airOnly")], SymptomTable.Shipped, Mouthpiece)!;
        Assert.Equal(["lipsMeet"], open.Questions.Select(question => question.Id));
        var answered = Adviser.Advise([Known("heard.airOnly"), Known("no.lipsMeet")], SymptomTable.Shipped, Mouthpiece)!;
        Assert.Empty(answered.Questions);
        Assert.True(answered.Found.Score > open.Found.Score);
        Assert.True(
            Adviser.Advise([Known("heard.airOnly"), Known("yes.lipsMeet")], SymptomTable.Shipped, Mouthpiece)!.Found.Score
                < open.Found.Score
        );
    }

    [Fact]
    public void The_teacher_may_overrule()
    {
        var advice = Adviser.Advise([Known("seen.cheeks"), Known("seen.shoulders")], SymptomTable.Shipped, Mouthpiece, chosen: "airy")!;
        Assert.Equal("airy", advice.Found.Symptom.Id);
        Assert.Equal(["shoulders", "cheeks"], advice.Others.Select(other => other.Symptom.Id));
        Assert.Null(Adviser.Advise([], SymptomTable.Shipped, Mouthpiece));
    }

    public static TheoryData<string> Symptoms => [.. SymptomTable.Shipped.All.Select(symptom => symptom.Id)];

    /// <summary>One action a cue, at most twelve words (common practice); where somebody could be hurt, the words are said whole.</summary>
    [Theory, MemberData(nameof(Symptoms))]
    public void Every_rung_is_one_action_of_few_words_with_the_drill_that_mends_it(string id)
    {
        var symptom = SymptomTable.Shipped.Get(id);
        Assert.NotEmpty(symptom.Fixes);
        Assert.Equal(symptom.Fixes.Count, symptom.Fixes.Select(fix => fix.Id).Distinct().Count());
        foreach (var fix in symptom.Fixes)
        {
            Mouthpiece.Meets(fix.When);
            Mouthpiece.Meets(fix.Unless);
            if (symptom.IsHealth)
                continue;
            Assert.InRange(fix.Cue.Split(' ').Length, 1, Fix.MostWords);
            Assert.Equal(1, fix.Cue.Count(letter => letter is '.'));
            Assert.DoesNotContain(" and ", fix.Cue, StringComparison.Ordinal);
            Assert.DoesNotContain(';', fix.Cue);
            AssertExists(fix.Drill!);
        }

        foreach (var preset in Enum.GetValues<ApproachPreset>())
        {
            var silent = Approach.Of(preset).With("sing", "c");
            Assert.NotEmpty(symptom.Ladder(Approach.Of(preset), tense: false));
            Assert.DoesNotContain(symptom.Ladder(silent, tense: false), fix => fix.Cue.Contains("Sing", StringComparison.Ordinal));
        }
    }

    private static void AssertExists(string drill)
    {
        Action check = drill.Split(':') switch
        {
            ["buzz", var id] => () => BuzzDrill.Get(id),
            ["breath", var id] => () => BreathDrill.Get(id),
            ["tone", var id] => () => ToneDrill.Get(id),
            ["notes", var id] => () => Assert.Contains(HandDrill.All, known => known.Id == id),
            ["set-up", var id] => () => Assert.Contains(id, new[] { "placement", "hold", "care" }),
            ["ear", var id] => () => Assert.True(id == "cards" || EarDrill.Get(id) is not null),
            _ => () => Assert.Equal("slurs", drill),
        };
        check();
    }

    [Fact]
    public void No_drill_mends_everything()
    {
        var fixes = SymptomTable.Shipped.All.SelectMany(symptom => symptom.Fixes).Where(fix => fix.Drill is not null).ToList();
        Assert.All(
            fixes.GroupBy(fix => fix.Drill),
            drill => Assert.True(drill.Count() < 0.1 * fixes.Count, $"{drill.Key}: {drill.Count()}")
        );
    }

    /// <summary>Three tries without gain, then the next rung; what helped comes first next time (common practice).</summary>
    [Fact]
    public void The_next_rung_comes_after_three_tries_without_gain_and_what_helped_comes_first()
    {
        var low = SymptomTable.Shipped.Get("oneLow");
        var lips = Approach.Of(ApproachPreset.LipsFirst);
        var ladder = low.Ladder(lips, tense: false);
        string Cue(params (string Id, bool Helped)[] newestFirst) =>
            low.FixFor(
                lips,
                tense: false,
                new CueHistory([.. newestFirst.Select(each => new CueTry($"oneLow.{each.Id}", each.Helped))])
            ).Id;
        Assert.Equal(["sing", "air", "lips", "lift"], ladder.Select(fix => fix.Id));
        Assert.Equal("sing", Cue());
        Assert.Equal("sing", Cue(("sing", false), ("sing", false)));
        Assert.Equal("air", Cue(("sing", false), ("sing", false), ("sing", false)));
        Assert.Equal("lips", Cue(("lips", true), ("sing", false)));
        // Gain in between starts the count anew.
        Assert.Equal("sing", Cue(("sing", false), ("sing", false), ("sing", true), ("sing", false)));
        // When all have been given up, the one given up longest ago.
        Assert.Equal("sing", Cue([.. ladder.Reverse().SelectMany(fix => Enumerable.Repeat((fix.Id, false), CueHistory.Patience))]));
        Assert.DoesNotContain(low.Ladder(lips, tense: true), fix => fix.Pull == Pull.Firm);
        Assert.Equal(
            (1, 4),
            new CueHistory([
                new("oneLow.sing", false),
                new("oneLow.sing", true),
                new("oneLow.sing", false),
                new("oneLow.sing", false),
            ]).Count("oneLow", ladder[0])
        );
    }

    /// <summary>The table for readers is the one that ships: every rung with its drill, nothing beside.</summary>
    [Fact]
    public void The_table_of_cues_is_what_ships()
    {
        var top = new DirectoryInfo(AppContext.BaseDirectory);
        while (!File.Exists(Path.Combine(top.FullName, "Bocca.slnx")))
            top = top.Parent!;
        var rows = File.ReadAllLines(Path.Combine(top.FullName, "docs", "CUES.md"))
            .Where(line => line.StartsWith("| ", StringComparison.Ordinal));
        var rungs = SymptomTable.Shipped.All.SelectMany(symptom => symptom.Fixes).ToList();
        Assert.Equal(rungs.Count + 2, rows.Count());
        Assert.All(
            rungs,
            rung =>
                Assert.Contains(
                    rows,
                    row =>
                        row.Contains($"| {rung.Cue}", StringComparison.Ordinal)
                        && row.EndsWith($"| {rung.Drill} |", StringComparison.Ordinal)
                )
        );
    }

    [Fact]
    public void What_can_be_noted_shows_something_and_no_key_is_taken_twice()
    {
        var used = SymptomTable.Shipped.All.SelectMany(symptom => symptom.Tells).ToHashSet();
        // What hurts speaks for the day itself.
        Assert.All(
            Observation.All.Where(observation => Complaint.Find(observation.Id) is null),
            observation => Assert.Contains($"seen.{observation.Id}", used)
        );
        var keys = Observation.All.Select(observation => observation.Key).OfType<string>().ToList();
        Assert.Equal(keys.Count, keys.Distinct().Count());
        Assert.DoesNotContain(keys, key => "h;/?0123456789".Contains(key));
    }
}
