using MathNet.Numerics.Statistics;

namespace Bocca.Core.Buzz.Measures;

/// <summary>What is usual for this pupil on this device, from takes that passed; null where there is none yet.</summary>
/// <param name="HarmonicToNoiseDb">Usual harmonic-to-noise ratio.</param>
/// <param name="CentroidOverPitch">Usual brightness.</param>
/// <param name="LevelDb">Usual level.</param>
public sealed record OwnSound(double? HarmonicToNoiseDb, double? CentroidOverPitch, double? LevelDb)
{
    /// <summary>Tries from which on something counts as usual (ours, editable).</summary>
    public const int FewestTries = 4;

    /// <summary>Nothing known yet: what needs a comparison is not judged.</summary>
    public static OwnSound Unknown { get; } = new(null, null, null);

    /// <summary>The median over takes that passed on the same thing; fewer than <see cref="FewestTries"/> tries say nothing.</summary>
    public static OwnSound From(IEnumerable<TakeMeasures> passed)
    {
        var tries = passed.SelectMany(take => take.Spoken).ToList();
        if (tries.Count < FewestTries)
            return Unknown;
        double? Median(Func<AttemptMeasures, double?> measure)
        {
            var values = tries.Select(measure).OfType<double>().ToList();
            return values.Count < FewestTries ? null : values.Median();
        }

        return new OwnSound(
            Median(attempt => attempt.HarmonicToNoiseDb),
            Median(attempt => attempt.CentroidOverPitch),
            Median(attempt => attempt.LevelDb)
        );
    }
}
