using System.Collections.Concurrent;
using Bocca.Core.Buzz.Measures;
using Bocca.Core.Instruments;
using Bocca.Core.Judging;
using Bocca.Core.Music;
using Bocca.Core.Simulation;
using Bocca.Core.Slurs;
using Bocca.Core.Teaching;
using Bocca.Core.Tone;
using Bocca.Core.Tone.Drills;
using Bocca.Core.Tone.Listening;
using Bocca.Core.Tone.Notes;

namespace Bocca.Core.Tests.Sound;

/// <summary>How notes begin and end in rooms that ring: measured from the take, and not told where the room hides it.</summary>
public sealed class RoomDecayTests
{
    public static TheoryData<double> Reverberations => [0.3, 0.6, 1.2];

    [Theory]
    [MemberData(nameof(Reverberations))]
    public void The_room_is_known_from_the_take(double seconds)
    {
        foreach (var drill in (string[])["tongue-four", "short-notes"])
            Assert.InRange(Played(drill, [], seconds).RoomDecaySeconds!.Value, 0.65 * seconds, 1.6 * seconds);
    }

    [Fact]
    public void A_dry_take_has_no_room()
    {
        Assert.InRange(Played("tongue-four", [], 0).RoomDecaySeconds!.Value, 0, 0.12);
        Assert.InRange(Played("short-notes", ["closed-end=1"], 0).RoomDecaySeconds!.Value, 0, 0.12);
    }

    [Theory]
    [MemberData(nameof(Reverberations))]
    public void Endings_that_the_room_hides_are_told_neither_way(double seconds)
    {
        Assert.Equal(1, RowArticulation.Of(Played("short-notes", ["closed-end=1"], 0)).ClosedShare);
        foreach (
            var faults in (string[][])
                [
                    [],
                    ["closed-end=1"],
                ]
        )
        {
            var row = Played("short-notes", faults, seconds);
            var articulation = RowArticulation.Of(row);
            Assert.True(articulation.EndingsHidden);
            Assert.Null(articulation.ClosedShare);
        }

        Assert.Contains(
            "cannot tell in this room: it rings for",
            Judged("tongue-four", seconds).Asked.Single(aim => aim.What == "endings").Heard
        );
    }

    /// <summary>A room fills as it empties: what rises with it is no slow start, and a slow start is one in a room too.</summary>
    [Theory]
    [MemberData(nameof(Reverberations))]
    public void Starts_are_not_blamed_for_the_room(double seconds)
    {
        Assert.DoesNotContain(Judged("tongue-four", seconds).Findings, finding => finding.Symptom.Id == "unclearStart");
        if (seconds < 1)
            Assert.False(Judged("with-the-tongue", seconds, "slow-start=400").Asked.Single(aim => aim.What == "begun by the tongue").Met);
    }

    [Theory]
    [MemberData(nameof(Reverberations))]
    public void Joined_notes_stay_joined_and_are_all_found(double seconds)
    {
        var (dry, row) = (Played("tongue-four", [], 0), Played("tongue-four", [], seconds));
        Assert.Equal(RowArticulation.Of(dry).Duty!.Value, RowArticulation.Of(row).Duty!.Value, 0.06);
        Assert.InRange(row.Notes.Count(note => note.Judged.Outcome == NoteOutcome.Right), row.Notes.Count - 1, row.Notes.Count);
    }

    /// <summary>Where a silence of 60 ms leaves less than 9 dB, a slur may have had one: from 0.4 s on (computed).</summary>
    [Theory]
    [InlineData(0, false)]
    [InlineData(0.6, true)]
    [InlineData(1.2, true)]
    public void A_slur_is_called_clean_as_far_as_the_room_tells(double seconds, bool hidden)
    {
        var player = Trumpet();
        var slurs = SlurPlayer.Of(player.Instrument, player.Reading, LearningStage.Pieces, Approach.Of(ApproachPreset.MouthpieceFirst));
        var asked = new AskedSlur(SlurWriter.Sheet(slurs, SlurShape.Get("pair"), 3).Slurs[0], 80, 2, player, LearningStage.FirstNotes);
        var played = PlayedNote.Row(asked.Plan, player, new RowCharacter("x", "x", [], []));
        var dry = SimulatedPlayer.PlayRow(player.Instrument, played, asked.Tempo, [], 4).Sound;
        var heard = HeardSlur.Hear(seconds == 0 ? dry : LiveRoom.On(dry, seconds), asked, dry.CueSeconds![0]);
        var summary = SlurJudge.Judge(heard, asked, SoundingPupil.Unknown, null).Summary;
        Assert.True(
            hidden == summary.Contains("as far as this room tells", StringComparison.Ordinal),
            $"{summary} {heard.Row.RoomDecaySeconds:0.00} s"
        );
    }

    private static Verdict Judged(string id, double seconds, params string[] faults)
    {
        var row = Played(id, faults, seconds);
        var asked = new AskedRow(PlanOf(id), Trumpet(), LearningStage.Second) { Drill = ToneDrill.Get(id) };
        return RowJudge.Judge(row, asked, SoundingPupil.Unknown);
    }

    private static RowPlan PlanOf(string id) =>
        ToneDrill.Get(id).Plan(Trumpet(), Approach.Of(ApproachPreset.MouthpieceFirst), ToneDrill.Get(id).Tempo);

    private static readonly ConcurrentDictionary<(string Id, string Faults, double Seconds), HeardRow> Takes = new();

    private static HeardRow Played(string id, string[] faults, double seconds) =>
        Takes.GetOrAdd((id, string.Join(' ', faults), seconds), _ => Play(id, faults, seconds));

    private static HeardRow Play(string id, string[] faults, double seconds)
    {
        var (player, plan) = (Trumpet(), PlanOf(id));
        var how = new RowCharacter(id, id, [], [.. faults.Select(Fault.Parse)], 1);
        var dry = SimulatedPlayer.PlayRow(player.Instrument, PlayedNote.Row(plan, player, how), plan.Tempo, how.Faults, 4).Sound;
        var sound = seconds == 0 ? dry : LiveRoom.On(dry, seconds);
        return RowListener.Hear(sound, new AskedRow(plan, player, LearningStage.Second) { FirstCueSeconds = dry.CueSeconds![0] });
    }

    private static PlayerSituation Trumpet() => new(Catalogue.Get("trumpet-bb"), Catalogue.Get("trumpet-bb").Readings[0], Tuning.Standard);
}
