using Bocca.Core.Fingering.Passage;
using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Pieces.Lines;

namespace Bocca.Core.Pieces.Study;

/// <summary>How far a line goes, and what it uses most.</summary>
/// <param name="Lowest">Its lowest note, as written.</param>
/// <param name="Highest">Its highest note, as written.</param>
/// <param name="Frequent">The notes that sound longest in all, the first of them first, as written.</param>
/// <param name="Settings">How many notes each setting plays, the most used first.</param>
public sealed record NoteUse(
    Pitch Lowest,
    Pitch Highest,
    IReadOnlyList<Pitch> Frequent,
    IReadOnlyList<(Setting Setting, int Notes)> Settings
)
{
    private const int MostFrequent = 3;

    /// <summary>The use that a line makes of notes and settings as it is fingered.</summary>
    public static NoteUse Of(PieceLine line, PassagePlan plan) =>
        new(
            line.Notes.MinBy(note => note.Sounding.Midi)!.Written,
            line.Notes.MaxBy(note => note.Sounding.Midi)!.Written,
            [
                .. line
                    .Notes.GroupBy(note => note.Sounding.Midi)
                    .OrderByDescending(group => group.Sum(note => note.Held))
                    .Take(MostFrequent)
                    .Select(group => group.First().Written),
            ],
            [
                .. plan
                    .Notes.GroupBy(note => note.Fingering.Setting)
                    .OrderByDescending(group => group.Count())
                    .ThenBy(group => group.Key.ToString(), StringComparer.Ordinal)
                    .Select(group => (group.Key, group.Count())),
            ]
        );

    /// <summary>How far it goes against what a pupil reaches, in words.</summary>
    /// <param name="line">The line.</param>
    /// <param name="range">How far the pupil's notes reach; null where that is not known.</param>
    public string Words(PieceLine line, PlayingRange? range)
    {
        if (range is not { } reach)
            return $"From {Lowest} to {Highest}.";
        var above = line.Notes.Count(note => note.Sounding.Midi > reach.Highest.Midi);
        var below = line.Notes.Count(note => note.Sounding.Midi < reach.Lowest.Midi);
        return $"From {Lowest} to {Highest}"
            + (
                above + below == 0
                    ? ", all within the range so far."
                    : $"; {above + below} of {line.Notes.Count} notes lie outside the range so far."
            );
    }
}
