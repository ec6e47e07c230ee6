using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Tone.Listening;
using Bocca.Core.Tone.Notes;

namespace Bocca.Core.Slurs;

/// <summary>
/// A slur keeps its tube: the hand does not move within it. Where some of its notes came, another one was a partial of the same
/// tube, however well another setting would fit; where none came and all fit one other setting, the tube was not changed.
/// </summary>
internal static class SameTube
{
    private static readonly HashSet<NoteOutcome> Moved = [NoteOutcome.OtherSetting, NoteOutcome.SlideOff, NoteOutcome.TwoReadings];

    /// <param name="row">What was heard.</param>
    /// <param name="player">Who plays what.</param>
    /// <param name="surely">Whether the hand is known to stay: what fits no partial of the tube then lay between two of them.</param>
    public static HeardRow Of(HeardRow row, PlayerSituation player, bool surely)
    {
        var notes = new List<RowNote>();
        foreach (var phrase in row.Phrases)
        {
            var stayed =
                surely
                || (
                    phrase.Select(note => note.Asked.Meant.Setting).Distinct().Count() == 1
                    && phrase.Any(note => note.Judged.Outcome == NoteOutcome.Right)
                );
            notes.AddRange(
                stayed
                    ? phrase.Select(note =>
                        Moved.Contains(note.Judged.Outcome) ? note with { Judged = OnTube(note.Judged, player, surely) } : note
                    )
                    : phrase
            );
        }

        return row with
        {
            Notes = notes,
        };
    }

    private static JudgedNote OnTube(JudgedNote judged, PlayerSituation player, bool surely)
    {
        if (judged.HeardHz is not { } heard)
            return judged;
        var meant = judged.Meant;
        double Off(int partial) => Math.Abs(Tuning.Cents(player.Hertz(meant.Tube, partial), heard));
        var nearest = Enumerable.Range(1, HarmonicSeries.Highest).OrderBy(Off).Take(2).ToList();
        var partial = nearest[0];
        // Too far off is not what was heard, unless every other one is twice as far: lips bend a note, they do not change the tube.
        if (Off(partial) > Math.Max(HarmonicSeries.WithinCents, Off(nearest[1]) / 2))
            return surely ? Between(judged, Math.Min(partial, nearest[1]), Math.Max(partial, nearest[1])) : judged;
        var by = partial - meant.Partial;
        return judged with
        {
            Outcome =
                by == 0 ? NoteOutcome.Right
                : by < 0 ? NoteOutcome.PartialLow
                : NoteOutcome.PartialHigh,
            Partial = partial,
            By = by,
            Cm = null,
            OtherSetting = null,
            Readings = [],
            Sentence = by == 0 ? $"{meant.Written} came." : NoteSentence.OfPartial(meant, judged.HeardWritten!.Value, by),
        };
    }

    private static JudgedNote Between(JudgedNote judged, int low, int high) =>
        judged with
        {
            Outcome = NoteOutcome.NoClearTone,
            Partial = null,
            By = 0,
            Cm = null,
            OtherSetting = null,
            Readings = [],
            Sentence = $"{judged.HeardWritten} came, between partials {low} and {high}.",
        };
}
