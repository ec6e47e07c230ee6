using Bocca.Core.Buzz.Aims;
using Bocca.Core.Buzz.Measures;
using Bocca.Core.Judging;
using MathNet.Numerics.Statistics;

namespace Bocca.Core.Buzz;

/// <summary>What a take of buzzes says of the figures that are followed over weeks.</summary>
public static class BuzzFigures
{
    /// <summary>How steady a level tone is.</summary>
    public static FigureKind Steadiness { get; } = new("steadiness", "cents", "steadier", "less steady");

    /// <summary>How long air is heard before a tone.</summary>
    public static FigureKind AirBeforeTone { get; } = new("air before tone", "ms", "speaks sooner", "more air first");

    /// <summary>How far a tone drifts, either way.</summary>
    public static FigureKind Drift { get; } = new("drift", "cents a second", "straighter", "drifts more");

    /// <summary>How long a try sounds.</summary>
    public static FigureKind Length { get; } = new("length", "s", "shorter", "longer");

    /// <summary>How far the tone stands out of the breath.</summary>
    public static FigureKind Clearness { get; } = new("clear of breath", "dB", "breathier", "clearer");

    /// <summary>How wide a siren goes.</summary>
    public static FigureKind SirenRange { get; } = new("siren", "semitones", "narrower", "wider");

    /// <summary>Where a take lies between the pupil's own tight (-1) and open (1) sound.</summary>
    public static FigureKind OwnPlace { get; } = new("on the own scale", "", "tighter", "more open");

    /// <summary>What is shown over weeks beside the takes of a drill.</summary>
    public static IReadOnlyList<FigureKind> Followed { get; } = [Steadiness, AirBeforeTone, Drift, Length, Clearness];

    /// <summary>The figures of a take, for those that it tells anything of.</summary>
    /// <param name="measures">What was measured.</param>
    /// <param name="onOwnScale">Where it lies on the own scale; null where there is none.</param>
    /// <param name="strip">The whole of it on one line; null where threads alone tell it.</param>
    public static IEnumerable<Figure> Of(TakeMeasures measures, double? onOwnScale, TakeStrip? strip)
    {
        var level = measures.Spoken.Where(attempt => attempt.IsLevel).ToList();
        (FigureKind Kind, Func<AttemptMeasures, double?> Of)[] measured =
        [
            (Steadiness, attempt => attempt.SteadinessCents),
            (AirBeforeTone, attempt => attempt.AirBeforeToneMs),
            (Drift, attempt => attempt.DriftCentsPerSecond is { } drift ? Math.Abs(drift) : null),
            (Length, attempt => attempt.SoundingSeconds),
            (Clearness, attempt => attempt.HarmonicToNoiseDb),
        ];
        foreach (var (kind, of) in measured)
            if (level.Select(of).OfType<double>().ToList() is { Count: > 0 } values)
                yield return new Figure(kind, values.Median(), values.Count < 2 ? 0 : values.StandardDeviation(), values.Count);
        if (onOwnScale is { } place)
            yield return new Figure(OwnPlace, place);
        if (strip is not null && WidestGlide(strip) is { } semitones)
            yield return new Figure(SirenRange, semitones);
    }

    /// <summary>The widest glide, from the 2nd to the 98th percentile of its pitch, semitones; null where nothing glides.</summary>
    private static double? WidestGlide(TakeStrip strip) =>
        strip
            .Asked.Where(span => span.Glides)
            .Select(span =>
                strip
                    .Heard.Skip((int)(span.Seconds / TakeStrip.StepSeconds))
                    .Take((int)(span.Length / TakeStrip.StepSeconds))
                    .OfType<double>()
                    .ToList()
            )
            .Where(heard => heard.Count > 0)
            .Select(heard => (double?)(heard.Percentile(98) - heard.Percentile(2)))
            .Max();
}
