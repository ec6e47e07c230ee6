using Bocca.Core.Score;

namespace Bocca.Core.Pieces.Lines;

/// <summary>When a moment of a piece comes, by the tempi that its score marks.</summary>
internal sealed class TempoLine
{
    private readonly List<(Rational At, double Quarters, double Seconds)> _changes = [];

    /// <summary>The tempi of a score: those of the part, or of the uppermost part that has any.</summary>
    public TempoLine(MusicScore score, int part, IReadOnlyList<LineBar> bars)
    {
        var marked = new[] { score.Parts[part] }
            .Concat(score.Parts)
            .Select(each => Marks(each, bars).ToList())
            .FirstOrDefault(marks => marks.Count > 0, []);
        var (at, quarters, seconds) = (Rational.Zero, score.Tempo, 0.0);
        _changes.Add((at, quarters, seconds));
        foreach (var (when, tempo) in marked)
        {
            seconds += (when - at).Value * 60 / quarters;
            (at, quarters) = (when, tempo);
            if (_changes[^1].At == at)
                _changes[^1] = (at, quarters, seconds);
            else
                _changes.Add((at, quarters, seconds));
        }
    }

    /// <summary>Quarters a minute at a moment.</summary>
    public double QuartersAt(Rational at) => _changes[Find(at)].Quarters;

    /// <summary>When a moment comes, seconds from the beginning.</summary>
    public double SecondsAt(Rational at)
    {
        var change = _changes[Find(at)];
        return change.Seconds + ((at - change.At).Value * 60 / change.Quarters);
    }

    private int Find(Rational at)
    {
        var (low, high) = (0, _changes.Count - 1);
        while (low < high)
        {
            var middle = (low + high + 1) / 2;
            (low, high) = _changes[middle].At <= at ? (middle, high) : (low, middle - 1);
        }

        return low;
    }

    private static IEnumerable<(Rational At, double Tempo)> Marks(ScorePart part, IReadOnlyList<LineBar> bars) =>
        part
            .Measures.Take(bars.Count)
            .SelectMany(
                (measure, i) => measure.Marks.Where(mark => mark.Kind == MarkKind.Tempo).Select(mark => (bars[i].At + mark.At, mark.Value))
            )
            .OrderBy(mark => mark.Item1);
}
