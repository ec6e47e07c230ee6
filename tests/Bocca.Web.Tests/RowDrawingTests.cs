using Bocca.Core.Instruments;
using Bocca.Core.Judging;
using Bocca.Core.Music;
using Bocca.Core.Tone.Drills;
using Bocca.Core.Tone.Listening;
using Bocca.Core.Tone.Notes;
using Bocca.Web.Drawings;

namespace Bocca.Web.Tests;

/// <summary>A row as it is drawn: on the rungs of its tube, alike before and after it was played.</summary>
public sealed class RowDrawingTests
{
    private static readonly Instrument Trumpet = Catalogue.Get("trumpet-bb");

    private static RowDrawing Draw(string notes, double tempo, Func<TracedNote, TracedNote>? heard = null)
    {
        var meant = RowTrace.Meant(RowPlan.Even(MeantNote.Row(Trumpet, Trumpet.Readings[0], notes), tempo, 2));
        var trace = heard is null ? meant : meant with { Notes = [.. meant.Notes.Select(heard)] };
        return new RowDrawing(trace, Trumpet, Trumpet.Readings[0], tempo, Tuning.Standard, heard is not null);
    }

    /// <summary>Two days on which nothing came: the dots lie at the bottom of the whole scale.</summary>
    [Fact]
    public void Shares_over_weeks_stand_between_nothing_and_all()
    {
        FigurePoint[] never = [new(new DateTime(2026, 11, 3), 0, 0, 4), new(new DateTime(2026, 11, 10), 0, 0, 4)];
        var drawing = new HistoryDrawing(FigureHistory.Of(new FigureKind("first try", "%", "less", "more", IsShare: true), never)!);
        Assert.Equal((0, 100), (drawing.Bottom, drawing.Top));
        Assert.All(drawing.Dots, dot => Assert.True(dot.Y > HistoryDrawing.Height / 2));
    }

    [Fact]
    public void The_wire_lies_on_the_rungs_meant_and_the_neighbours_are_there_too()
    {
        var drawing = Draw("G4 C5", 80);
        // Common practice: open, G4 is partial 3 and C5 partial 4; slack gives C4, tight E5.
        Assert.Equal(["C4", "G4", "C5", "E5"], drawing.LeftRungs.Select(rung => rung.Name));
        Assert.Equal([3, 4], drawing.LeftRungs.Where(rung => rung.Meant).Select(rung => rung.Partial));
        Assert.All(drawing.Notes, note => Assert.Equal(drawing.LeftRungs.Single(rung => rung.Name == note.Written).Y, note.Y, 3.0));
    }

    [Theory]
    [InlineData("G4~C5~G4", 1)]
    [InlineData("G4 C5 G4", 3)]
    [InlineData("G4~C5 G4", 2)]
    public void A_slur_is_one_stroke_and_the_tongue_begins_another(string notes, int strokes) =>
        Assert.Equal(strokes, Draw(notes, 80).Wires.Count);

    [Theory]
    [InlineData(1, false, 0)]
    [InlineData(2, true, 1)]
    [InlineData(4, true, 3)]
    public void A_head_is_open_from_a_half_note_on_and_each_further_beat_has_a_bead(int beats, bool open, int beads)
    {
        var trace = RowTrace.Meant(RowPlan.Even(MeantNote.Row(Trumpet, Trumpet.Readings[0], "G4 C5"), 80, beats));
        var notes = new RowDrawing(trace, Trumpet, Trumpet.Readings[0], 80, Tuning.Standard, false).Notes;
        Assert.All(notes, note => Assert.Equal((open, beads), (note.Head.Open, note.Beads.Count)));
        Assert.All(notes, note => Assert.All(note.Beads, bead => Assert.Equal(note.Y, bead.Y)));
        Assert.Equal(
            Enumerable.Range(0, 2 * beats).Select(beat => (double)beat).Where(beat => beat % beats != 0),
            notes.SelectMany(note => note.Beads).Select(bead => Math.Round(bead.Beat, 6))
        );
    }

    [Fact]
    public void The_axes_follow_from_what_is_written_whatever_was_heard_and_at_every_tempo()
    {
        var before = Draw("G4~C5", 80);
        var after = Draw(
            "G4~C5",
            80,
            note => note with { Outcome = NoteOutcome.Octave, HeardHz = 2000, StartSeconds = note.DueSeconds + 0.7, EndSeconds = 99 }
        );
        Assert.Equal((before.From, before.Seconds, before.Low, before.High), (after.From, after.Seconds, after.Low, after.High));
        Assert.Equal(before.Wires, after.Wires);
        Assert.Equal(before.Beats, Draw("G4~C5", 120).Beats, 1e-9);
        Assert.All(after.Misses, miss => Assert.InRange(miss.MissY, RowDrawing.Top, RowDrawing.Bottom));
    }
}
