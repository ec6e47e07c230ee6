using Bocca.Core.Pieces.Lines;

namespace Bocca.Core.Pieces.Study;

/// <summary>What a run is made of.</summary>
public enum RunKind
{
    /// <summary>Semitones.</summary>
    Chromatic,

    /// <summary>Steps of a scale.</summary>
    Scale,

    /// <summary>Notes of a chord.</summary>
    Arpeggio,
}

/// <summary>A run in one direction.</summary>
/// <param name="From">Its first note.</param>
/// <param name="To">Its last note.</param>
/// <param name="Kind">What it is made of.</param>
public sealed record ScaleRun(int From, int To, RunKind Kind)
{
    /// <summary>How many notes make a run: chromatic, scale, arpeggio (ours, editable).</summary>
    private const int LeastChromatic = 4,
        LeastScale = 5,
        LeastArpeggio = 4;

    /// <summary>The runs of a line in its order.</summary>
    public static IReadOnlyList<ScaleRun> Of(PieceLine line)
    {
        var runs = Of(line, RunKind.Chromatic, LeastChromatic, step => step == 1).ToList();
        bool IsFree(ScaleRun run) => !runs.Exists(other => other.From <= run.From && other.To >= run.To);
        runs.AddRange([.. Of(line, RunKind.Scale, LeastScale, step => step is 1 or 2).Where(IsFree)]);
        runs.AddRange(Of(line, RunKind.Arpeggio, LeastArpeggio, step => step is >= 3 and <= 5));
        return [.. runs.OrderBy(run => run.From)];
    }

    private static IEnumerable<ScaleRun> Of(PieceLine line, RunKind kind, int least, Func<int, bool> isStep)
    {
        for (var from = 0; from + 1 < line.Notes.Count; )
        {
            var to = from;
            var direction = Math.Sign(Step(line, from));
            while (to + 1 < line.Notes.Count && line.Notes[to].RestAfter.Value < 1 && isStep(direction * Step(line, to)))
                to++;
            if (to - from + 1 >= least)
                yield return new ScaleRun(from, to, kind);
            from = Math.Max(from + 1, to);
        }
    }

    private static int Step(PieceLine line, int from) => line.Notes[from + 1].Sounding.Midi - line.Notes[from].Sounding.Midi;
}
