using Bocca.Core.Instruments;
using Bocca.Core.Score;

namespace Bocca.Core.Slurs;

/// <summary>Slurs as a score: one measure each, a rest as long after it, the setting and the vowels as lines under the notes.</summary>
public static class SlurScore
{
    /// <summary>The score of slurs for one player.</summary>
    /// <param name="title">Its title.</param>
    /// <param name="player">Who plays.</param>
    /// <param name="slurs">The slurs in order.</param>
    /// <param name="tempo">Quarters a minute.</param>
    public static MusicScore Of(string title, SlurPlayer player, IReadOnlyList<Slur> slurs, double tempo) =>
        new(title, tempo, [PartOf(player, slurs)]);

    /// <summary>One slur to be read from the stage: without its rest, its name and its tempo.</summary>
    public static MusicScore OnStage(SlurPlayer player, Slur slur)
    {
        var part = PartOf(player, [slur], "");
        return new MusicScore("", 60, [part with { Measures = [part.Measures[0]] }]) { ShowsTempo = false };
    }

    /// <summary>A part of a score.</summary>
    public static ScorePart PartOf(SlurPlayer player, IReadOnlyList<Slur> slurs, string? name = null) =>
        new(
            name ?? player.Instrument.Name,
            player.Reading.Clef,
            player.Reading.WrittenAboveSounding.Inverse,
            [
                .. slurs.SelectMany(
                    (slur, i) =>
                        new[]
                        {
                            ScoreMeasure.Row(slur.Notes.Select((note, j) => NoteOf(slur, note, j))) with
                            {
                                NewLine = i > 0,
                            },
                            Rest(slur),
                        }
                ),
            ]
        )
        {
            Program = Program(player.Instrument),
        };

    private static ScoreMeasure Rest(Slur slur) => ScoreMeasure.Row(new ScoreNote(null, Quarters(slur.Beats)));

    private static ScoreNote NoteOf(Slur slur, SlurNote note, int index) =>
        new(note.Written, Quarters(note.Beats))
        {
            SlursBegun = index == 0 ? 1 : 0,
            SlursEnded = index == slur.Notes.Count - 1 ? 1 : 0,
            Marks = index == slur.Notes.Count - 1 ? NoteMarks.Breath : NoteMarks.None,
            Lines = [index == 0 || note.Tube.Setting != slur.Notes[index - 1].Tube.Setting ? note.Tube.Setting.ToString() : "", note.Vowel],
        };

    /// <summary>Slurs last whole sixteenths.</summary>
    private static Rational Quarters(double beats) => new((long)Math.Round(beats * 4), 4);

    /// <summary>The General MIDI voice of a family, counted from 0.</summary>
    internal static int Program(Instrument instrument) =>
        instrument.Family switch
        {
            "horn" or "tenor horn" => 60,
            "trombone" or "euphonium" => 57,
            "tuba" => 58,
            _ => 56,
        };
}
