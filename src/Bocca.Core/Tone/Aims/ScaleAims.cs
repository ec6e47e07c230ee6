using Bocca.Core.Judging;
using Bocca.Core.Music;
using Bocca.Core.Tone.Listening;
using Bocca.Core.Tone.Notes;
using MathNet.Numerics.Statistics;

namespace Bocca.Core.Tone.Aims;

/// <summary>Holds rows of steps against what they are for: true steps, full values, one tempo, one loudness, a better second try.</summary>
internal static class ScaleAims
{
    /// <summary>How far a semitone down may lie from one, and the return from the note left (cents; ours, editable).</summary>
    private const double StepWithin = 40,
        ReturnWithin = 30;

    /// <summary>A note clipped under this share of its value is short, and a tempo that moves further drifts (ours, editable).</summary>
    private const double FullShare = 0.9,
        DriftShare = 0.05;

    /// <summary>Each semitone down and back: how true the step and the return were.</summary>
    public static List<AskedHeard> Neighbours(HeardRow row)
    {
        var steps = row
            .Phrases.Where(phrase => phrase.Count == 3 && phrase.All(note => note.Sound is not null))
            .Select(phrase =>
                (
                    Step: Tuning.Cents(phrase[0].Sound!.MedianHz, phrase[1].Sound!.MedianHz),
                    Return: Tuning.Cents(phrase[0].Sound!.MedianHz, phrase[2].Sound!.MedianHz)
                )
            )
            .ToList();
        if (steps.Count == 0)
            return [new AskedHeard("steps", "a semitone down", "none heard", false, "Play the note, the one below it, and back.")];
        AskedHeard Counted(string what, string asked, int within, double middle, string cue) =>
            new(what, asked, $"{within} of {row.Phrases.Count}, {middle:+0;-0;0} cents in the middle", within == row.Phrases.Count, cue);
        return
        [
            Counted(
                "down",
                $"a semitone, within {StepWithin:0} cents",
                steps.Count(step => Math.Abs(step.Step + 100) <= StepWithin),
                steps.Select(step => step.Step + 100).Median(),
                "Hear the note below before the hand moves."
            ),
            Counted(
                "and back",
                $"where it was, within {ReturnWithin:0} cents",
                steps.Count(step => Math.Abs(step.Return) <= ReturnWithin),
                steps.Select(step => step.Return).Median(),
                "Come back to the very same note."
            ),
        ];
    }

    /// <summary>A scale: clean passes, full values, and whether the tempo held.</summary>
    public static List<AskedHeard> Scale(HeardRow row, RowArticulation articulation)
    {
        var phrases = row.Phrases;
        var clean = phrases.Count(phrase => phrase.All(note => note.Judged.Outcome == NoteOutcome.Right));
        var aims = new List<AskedHeard>
        {
            new(
                "clean",
                $"{phrases.Count} of {phrases.Count}",
                $"{clean} of {phrases.Count}",
                clean == phrases.Count,
                "Slower, and every note."
            ),
        };
        if (articulation.Duty is { } duty)
            aims.Add(
                new AskedHeard(
                    "full value",
                    $"{100 * FullShare:0} % of each note or more",
                    $"{100 * duty:0} %",
                    duty >= FullShare,
                    "Hold each note until the next one begins."
                )
            );
        if (TempoDrift(row) is { } drift)
            aims.Add(
                new AskedHeard(
                    "tempo",
                    $"the same to the end, within {100 * DriftShare:0} %",
                    Math.Abs(drift) < 0.005 ? "it held" : $"{100 * Math.Abs(drift):0} % {(drift > 0 ? "faster" : "slower")} at the end",
                    Math.Abs(drift) <= DriftShare,
                    drift > 0 ? "Count through the long way down." : "Have the fingers ready early."
                )
            );
        return aims;
    }

    /// <summary>How much faster the last third of a row goes than its first, as a share; null for fewer than nine steps.</summary>
    private static double? TempoDrift(HeardRow row)
    {
        var steps = row
            .Notes.Zip(row.Notes.Skip(1))
            .Where(pair => pair.First.Asked.RestBeats == 0 && pair.First.Sound is not null && pair.Second.Sound is not null)
            .Select(pair => (pair.Second.Sound!.StartSeconds - pair.First.Sound!.StartSeconds) / pair.First.Asked.Beats)
            .ToList();
        var third = steps.Count / 3;
        return third < 3 ? null : (steps.Take(third).Median() / steps.TakeLast(third).Median()) - 1;
    }

    /// <summary>The second try beside the first.</summary>
    public static List<AskedHeard> Better(HeardRow row)
    {
        var tries = row.Notes.GroupBy(note => note.Asked.Label).Select(group => group.ToList()).ToList();
        if (tries.Count < 2 || tries.Any(group => group.TrueForAll(note => note.Sound is null)))
            return
            [
                new AskedHeard(
                    "the second",
                    "beside the first",
                    "one of the two did not sound",
                    false,
                    "Once, and once more on a deeper breath."
                ),
            ];
        var told = new Differences<RowNote>(Sounded(tries[0]), Sounded(tries[1]))
            .In(note => note.Sound!.Seconds, 0.3, "s", "longer", "shorter")
            .In(note => note.Sound!.LevelDb, 1, "dB", "louder", "softer")
            .In(note => note.Measures?.HarmonicToNoiseDb, 1, "dB", "clearer", "airier")
            .In(note => note.Measures?.SteadinessCents, 3, "cents", "less steady", "steadier")
            .Told;
        return [new AskedHeard("the second", "beside the first", told.Count == 0 ? "no difference" : string.Join(", ", told), null)];
    }

    private static List<RowNote> Sounded(List<RowNote> notes) => notes.FindAll(note => note.Sound is not null);
}
