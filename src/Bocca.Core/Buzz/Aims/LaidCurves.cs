using MathNet.Numerics.Statistics;

namespace Bocca.Core.Buzz.Aims;

/// <summary>One glide from its first to its last pitch.</summary>
/// <param name="Label">What it was made with.</param>
/// <param name="Semitones">Its pitch at <see cref="LaidCurves.Points"/> even places, in semitones from its own mean.</param>
public sealed record LaidCurve(string Label, IReadOnlyList<double> Semitones)
{
    /// <summary>From its lowest to its highest place, semitones.</summary>
    public double Width => Semitones.Max() - Semitones.Min();
}

/// <summary>
/// Glides that were asked to be the same, laid over each other: each stretched to the same length and about its own mean, so
/// that only the way they go is compared. Voice, mouthpiece and instrument have their own heights.
/// </summary>
/// <param name="Curves">The curves, in the order in which they were made.</param>
public sealed record LaidCurves(IReadOnlyList<LaidCurve> Curves)
{
    /// <summary>Places along a curve.</summary>
    public const int Points = 48;

    /// <summary>Fewer pitches are no curve.</summary>
    private const int FewestPitches = 12;

    /// <summary>What they were made with, in order.</summary>
    public IReadOnlyList<string> Labels => [.. Curves.Select(curve => curve.Label).Distinct()];

    /// <summary>A curve of pitches at even steps, in semitones from anywhere; gaps are bridged. Null for too few.</summary>
    public static LaidCurve? Curve(string label, IReadOnlyList<double?> semitones)
    {
        var known = Enumerable.Range(0, semitones.Count).Where(i => semitones[i] is not null).ToList();
        if (known.Count < FewestPitches)
            return null;
        var line = MathNet.Numerics.Interpolate.Linear(known.Select(i => (double)i), known.Select(i => semitones[i]!.Value));
        var heights = Enumerable
            .Range(0, Points)
            .Select(point => line.Interpolate(known[0] + ((double)point / (Points - 1) * (known[^1] - known[0]))))
            .ToList();
        var mean = heights.Average();
        return new LaidCurve(label, [.. heights.Select(height => Math.Round(height - mean, 2))]);
    }

    /// <summary>The glides of a strip that were asked to be the same with different means; null where there are none such.</summary>
    public static LaidCurves? Of(TakeStrip strip)
    {
        var alike = strip
            .Asked.Where(span => span.Glides)
            .GroupBy(span => string.Join(' ', span.Heights))
            .FirstOrDefault(group => group.Select(span => span.Label).Distinct().Count() > 1);
        if (alike is null)
            return null;
        var curves = alike
            .Select(span =>
                Curve(
                    span.Label,
                    [.. strip.Heard.Skip((int)(span.Seconds / TakeStrip.StepSeconds)).Take((int)(span.Length / TakeStrip.StepSeconds))]
                )
            )
            .OfType<LaidCurve>()
            .ToList();
        return curves.Select(curve => curve.Label).Distinct().Count() > 1 ? new LaidCurves(curves) : null;
    }

    /// <summary>
    /// How alike the ways are that two means went: correlation of their mean curves, 1 the same way, 0 unrelated (published: Pearson
    /// 1895).
    /// </summary>
    public double Likeness(string one, string other) => Correlation.Pearson(Mean(one), Mean(other));

    /// <summary>How wide one went beside another.</summary>
    public double WidthRatio(string one, string other) =>
        Mean(one) is var first && Mean(other) is var second && second.Max() > second.Min()
            ? (first.Max() - first.Min()) / (second.Max() - second.Min())
            : 0;

    private double[] Mean(string label)
    {
        var curves = Curves.Where(curve => curve.Label == label).ToList();
        return [.. Enumerable.Range(0, Points).Select(point => curves.Average(curve => curve.Semitones[point]))];
    }
}
