using Bocca.Core.Fingering.Passage;
using Bocca.Core.Pieces.Lines;

namespace Bocca.Core.Pieces.Study;

/// <summary>A step from note to note on which the partial changes: it looks easy and is none for the lips.</summary>
/// <param name="To">The note it leads to.</param>
/// <param name="FromPartial">The partial before.</param>
/// <param name="ToPartial">The partial after.</param>
public sealed record HiddenChange(int To, int FromPartial, int ToPartial)
{
    /// <summary>A step is at most a whole tone.</summary>
    private const int MostSemitones = 2;

    /// <summary>The hidden changes of a line as it is fingered.</summary>
    public static IReadOnlyList<HiddenChange> Of(PieceLine line, PassagePlan plan) =>
        [
            .. line
                .Notes.Skip(1)
                .Select(note => note.Index)
                .Where(i =>
                    Math.Abs(line.Notes[i].Sounding.Midi - line.Notes[i - 1].Sounding.Midi) is > 0 and <= MostSemitones
                    && plan.Notes[i].Fingering.Partial != plan.Notes[i - 1].Fingering.Partial
                )
                .Select(i => new HiddenChange(i, plan.Notes[i - 1].Fingering.Partial, plan.Notes[i].Fingering.Partial)),
        ];
}
