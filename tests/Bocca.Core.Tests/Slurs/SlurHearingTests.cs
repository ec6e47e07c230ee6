using Bocca.Core.Buzz.Measures;
using Bocca.Core.Instruments;
using Bocca.Core.Judging;
using Bocca.Core.Music;
using Bocca.Core.Simulation;
using Bocca.Core.Slurs;
using Bocca.Core.Teaching;
using Bocca.Core.Tone.Drills;
using Bocca.Core.Tone.Notes;

namespace Bocca.Core.Tests.Slurs;

/// <summary>Slurs played by the practice player's lips, heard change by change.</summary>
public sealed class SlurHearingTests
{
    private static (HeardSlur Heard, Verdict Verdict, AskedSlur Asked) Hear(
        string id,
        string shape,
        int first,
        string[]? misses = null,
        bool tongued = false,
        int tube = 0,
        int seed = 3,
        LearningStage stage = LearningStage.FirstNotes
    )
    {
        var instrument = Catalogue.Get(id);
        var player = SlurPlayer.Of(instrument, instrument.Readings[0], LearningStage.Pieces, Approach.Of(ApproachPreset.MouthpieceFirst));
        var sheet = SlurWriter.Sheet(player, SlurShape.Get(shape), first).Slurs;
        var asked = new AskedSlur(sheet[tube], 80, 1, new PlayerSituation(instrument, instrument.Readings[0], Tuning.Standard), stage);
        var how = new RowCharacter("x", "x", [.. (misses ?? []).Select(RowMiss.Parse)], []);
        var played = PlayedNote.Row(asked.Plan, asked.Player, how);
        if (tongued)
            played = [.. played.Select(note => note with { SlurredToNext = false, Share = note.SlurredToNext ? 0.92 : note.Share })];
        var sound = SimulatedPlayer.PlayRow(instrument, played, asked.Tempo, how.Faults, seed).Sound;
        var heard = HeardSlur.Hear(sound, asked);
        return (
            heard,
            SlurJudge.Judge(heard, asked, SoundingPupil.Unknown with { Approach = Approach.Of(ApproachPreset.MouthpieceFirst) }, sheet[1]),
            asked
        );
    }

    [Theory]
    [InlineData("trumpet-bb", "pair", 3)]
    [InlineData("trumpet-bb", "five-note", 3)]
    [InlineData("horn-f", "pair", 4)]
    [InlineData("trombone", "pair", 3)]
    [InlineData("euphonium-3v", "five-note", 3)]
    [InlineData("tuba-bb-3v", "pair", 3)]
    public void A_clean_slur_is_clean(string id, string shape, int first)
    {
        var (heard, verdict, asked) = Hear(id, shape, first);
        Assert.Equal(asked.Slur.Notes.Count - 1, heard.Changes.Count);
        Assert.True(verdict.Outcome == Outcome.Passed, verdict.Summary + string.Join("; ", heard.Changes));
        Assert.Equal(
            asked.Slur.Notes.Zip(asked.Slur.Notes.Skip(1)).Select(pair => pair.Second.Partial > pair.First.Partial),
            heard.Changes.Select(change => change.Up)
        );
        Assert.All(heard.Changes, change => Assert.False(change.Tongued));
        Assert.Equal(SlurJudge.Place, verdict.Next.Place);
        Assert.Contains("Go on", verdict.Next.Cue, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("trumpet-bb", 3)]
    [InlineData("trombone", 3)]
    [InlineData("horn-f", 4)]
    public void The_tongue_in_a_slur_is_heard(string id, int first)
    {
        var (heard, verdict, _) = Hear(id, "pair", first, tongued: true);
        Assert.All(heard.Changes, change => Assert.True(change.Tongued, $"{change}"));
        Assert.Contains("tongue", verdict.Summary, StringComparison.Ordinal);
        Assert.Contains("Tongue the first note only", verdict.Next.Cue, StringComparison.Ordinal);
    }

    [Fact]
    public void A_dip_is_told_in_decibels_and_a_silence_in_milliseconds()
    {
        var (heard, _, asked) = Hear("trumpet-bb", "pair", 3);
        string Unit(Func<SlurChange, SlurChange> change) =>
            SlurJudge
                .Judge(heard with { Changes = [.. heard.Changes.Select(change)] }, asked, SoundingPupil.Unknown, null)
                .Findings.Single(finding => finding.Symptom.Id == "slurHole")
                .Unit;

        Assert.Equal("dB", Unit(change => change with { DipDb = asked.Bands.DipDb + 2 }));
        Assert.Equal("ms", Unit(change => change with { GapMs = asked.Bands.GapMs + 20 }));
    }

    [Fact]
    public void A_partial_missed_is_named_with_its_cue()
    {
        var (heard, verdict, _) = Hear("trumpet-bb", "pair", 3, ["partial=1@2"]);
        Assert.False(heard.Changes[0].Came);
        Assert.Contains("one note too high, E5 came", verdict.Summary, StringComparison.Ordinal);
        Assert.Contains(verdict.Findings, finding => finding.Symptom.Id == "oneHigh");
    }

    [Theory]
    [InlineData("trumpet-bb", 3)]
    [InlineData("trombone", 3)]
    public void A_slur_that_never_leaves_its_note_kept_sounding_and_was_not_silent(string id, int first)
    {
        var (heard, verdict, _) = Hear(id, "pair", first, ["partial=-1@2"]);
        Assert.Equal([NoteOutcome.Right, NoteOutcome.PreviousNote, NoteOutcome.Right], heard.Row.Notes.Select(note => note.Judged.Outcome));
        Assert.Contains($": partial {first} kept sounding", verdict.Summary, StringComparison.Ordinal);
        Assert.Contains(verdict.Findings, finding => finding.Symptom.Id == "slurStays");
    }

    [Fact]
    public void A_take_of_another_exercise_says_so_and_is_not_judged_as_this_one()
    {
        // Asked: to and fro between the third and fourth partial. Played: a scale-like row of tongued notes a good way off.
        var instrument = Catalogue.Get("trumpet-bb");
        var player = new PlayerSituation(instrument, instrument.Readings[0], Tuning.Standard);
        var slurs = SlurPlayer.Of(instrument, instrument.Readings[0], LearningStage.Pieces, Approach.Of(ApproachPreset.MouthpieceFirst));
        var asked = new AskedSlur(SlurWriter.Sheet(slurs, SlurShape.Get("pair"), 3).Slurs[0], 80, 1, player, LearningStage.FirstNotes);
        var other = RowPlan.Even(MeantNote.Row(instrument, instrument.Readings[0], "C4 D4 E4 D4 C4 D4 E4"), 80, 1);
        var sound = SimulatedPlayer.PlayRow(instrument, PlayedNote.Row(other, player, new RowCharacter("x", "x", [], [])), 80, [], 3).Sound;
        var heard = HeardSlur.Hear(new Core.Sound.MonoSound(sound.Samples, sound.SampleRate), asked);
        var verdict = SlurJudge.Judge(
            heard,
            asked,
            SoundingPupil.Unknown with
            {
                Approach = Approach.Of(ApproachPreset.MouthpieceFirst),
            },
            null
        );
        Assert.Equal(Outcome.CannotTell, verdict.Outcome);
        Assert.Contains("another", verdict.Summary, StringComparison.OrdinalIgnoreCase);
    }

    [Fact]
    public void A_tube_that_was_not_changed_is_found_by_its_tuning()
    {
        var (_, verdict, _) = Hear("trumpet-bb", "pair", 3, ["setting=0"], tube: 1);
        Assert.Contains(verdict.Findings, finding => finding.Symptom.Id == "wrongSetting");
    }

    [Fact]
    public void Silence_cannot_be_judged()
    {
        var instrument = Catalogue.Get("trumpet-bb");
        var player = SlurPlayer.Of(instrument, instrument.Readings[0], LearningStage.Second, Approach.Of(ApproachPreset.MouthpieceFirst));
        var asked = new AskedSlur(
            SlurWriter.Sheet(player, SlurShape.Get("pair"), 3).Slurs[0],
            80,
            1,
            new PlayerSituation(instrument, instrument.Readings[0], Tuning.Standard),
            LearningStage.Second
        );
        var heard = HeardSlur.Hear(
            new Core.Sound.MonoSound([.. Enumerable.Range(0, 44100 * 4).Select(i => 0.001f * (float)Math.Sin(i * 12.9898))], 44100),
            asked,
            0
        );
        Assert.Equal(Outcome.CannotTell, SlurJudge.Judge(heard, asked, SoundingPupil.Unknown, null).Outcome);
    }

    /// <summary>A slur is broken by the tongue or by the air: not the depth of the hole but how the tone comes back tells which.</summary>
    [Theory]
    [InlineData("trumpet-bb", 3)]
    [InlineData("horn-f", 4)]
    [InlineData("trombone", 3)]
    [InlineData("euphonium-3v", 3)]
    [InlineData("tuba-bb-3v", 3)]
    public void What_the_air_broke_is_not_laid_to_the_tongue(string id, int first)
    {
        foreach (var (character, symptom) in new[] { ("breaks", "slurHole"), ("tongues", "tonguedSlur") })
        {
            var instrument = Catalogue.Get(id);
            var approach = Approach.Of(ApproachPreset.MouthpieceFirst);
            var player = SlurPlayer.Of(instrument, instrument.Readings[0], LearningStage.Pieces, approach);
            var slur = SlurWriter.Sheet(player, SlurShape.Get("pair"), first).Slurs[0];
            var situation = new PlayerSituation(instrument, instrument.Readings[0], Tuning.Standard);
            var asked = new AskedSlur(slur, 80, 1, situation, LearningStage.FirstNotes);
            for (var seed = 1; seed <= 3; seed++)
            {
                var how = SlurCharacter.Get(character);
                var sound = SimulatedPlayer.PlayRow(instrument, how.Play(asked), 80, how.Faults, seed).Sound;
                var heard = HeardSlur.Hear(sound, asked);
                var verdict = SlurJudge.Judge(heard, asked, SoundingPupil.Unknown with { Approach = approach }, null);
                Assert.True(
                    verdict.Findings.Any(finding => finding.Symptom.Id == symptom),
                    $"{id} {character} {seed}: {verdict.Summary} {string.Join("; ", heard.Changes)}"
                );
                var other = symptom == "slurHole" ? "tonguedSlur" : "slurHole";
                Assert.DoesNotContain(verdict.Findings, finding => finding.Symptom.Id == other);
            }
        }
    }
}
