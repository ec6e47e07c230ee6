using Bocca.Core.Music;
using Bocca.Core.Teaching;
using MathNet.Numerics.Statistics;

namespace Bocca.Core.Buzz.Measures;

/// <summary>One of a pupil's samples: the mean over its repeats, and how far these lie apart.</summary>
/// <param name="HarmonicToNoiseDb">Harmonic-to-noise ratio: low is breathy.</param>
/// <param name="CentroidOverPitch">Brightness, in harmonics.</param>
/// <param name="SteadinessCents">Steadiness.</param>
/// <param name="LevelDb">Level.</param>
/// <param name="MedianHz">Pitch.</param>
/// <param name="SpreadDb">Standard deviation of the ratio over the repeats.</param>
/// <param name="SpreadBrightness">Standard deviation of the natural logarithm of the brightness.</param>
public sealed record OwnSample(
    double HarmonicToNoiseDb,
    double CentroidOverPitch,
    double SteadinessCents,
    double LevelDb,
    double MedianHz,
    double SpreadDb,
    double SpreadBrightness
)
{
    /// <summary>How it differs from another sample, in words.</summary>
    public string Against(OwnSample other) =>
        $"{Math.Abs(HarmonicToNoiseDb - other.HarmonicToNoiseDb):0.0} dB "
        + $"{(HarmonicToNoiseDb < other.HarmonicToNoiseDb ? "breathier" : "clearer")}, "
        + $"{(CentroidOverPitch > other.CentroidOverPitch ? "brighter" : "duller")} by "
        + $"{100 * Math.Abs((CentroidOverPitch / other.CentroidOverPitch) - 1):0} %";

    /// <inheritdoc/>
    public override string ToString() =>
        $"{HarmonicToNoiseDb:0.0} dB clear, brightness {CentroidOverPitch:0.0}, steady within {SteadinessCents:0} cents";
}

/// <summary>
/// A pupil's own scale from too tight over centred to too open, from samples made on purpose on one device. Later
/// sounds are placed on it; there is no absolute one.
/// </summary>
/// <param name="Tight">Too tight.</param>
/// <param name="Centred">As good as it gets.</param>
/// <param name="Open">Too open.</param>
public sealed record OwnScale(OwnSample Tight, OwnSample Centred, OwnSample Open)
{
    /// <summary>From here on a sound counts as near the pupil's own tight or open one (ours, editable).</summary>
    public const double Near = 0.6;

    /// <summary>Samples that differ by less than this many times their spread are not told apart (ours, editable).</summary>
    private const double LeastApart = 2;

    /// <summary>The least spread that is believed: two repeats may be alike by chance (ours, editable).</summary>
    private const double LeastSpreadDb = 1,
        LeastSpreadBrightness = 0.05;

    /// <summary>
    /// Brightness rises with loudness, so it is compared only at levels within this (dB; published: Campbell, Gilbert and Myers 2021).
    /// </summary>
    private const double ComparableDb = 3;

    /// <summary>
    /// So far from the samples' pitch (cents) a sound is another note, and its breath and brightness say nothing (ours, editable).
    /// </summary>
    private const double ComparableCents = 200;

    /// <summary>Whether too tight can be told from centred.</summary>
    public bool TellsTight => Length(Arrow(Tight, Centred)) >= LeastApart;

    /// <summary>Whether too open can be told from centred.</summary>
    public bool TellsOpen => Length(Arrow(Open, Centred)) >= LeastApart;

    /// <summary>The scale that a take of the three samples gives; null where one of them did not sound.</summary>
    public static OwnScale? From(TakeMeasures take)
    {
        OwnSample? Sample(DrillPart part)
        {
            var tries = take
                .Spoken.Where(attempt =>
                    attempt.Asked?.Part == part && attempt is { HarmonicToNoiseDb: not null, CentroidOverPitch: not null }
                )
                .ToList();
            if (tries.Count == 0)
                return null;
            double Spread(Func<AttemptMeasures, double> of) => tries.Count < 2 ? 0 : tries.Select(of).StandardDeviation();
            return new OwnSample(
                tries.Average(attempt => attempt.HarmonicToNoiseDb!.Value),
                Math.Exp(tries.Average(attempt => Math.Log(attempt.CentroidOverPitch!.Value))),
                tries.Average(attempt => attempt.SteadinessCents ?? 0),
                tries.Average(attempt => attempt.LevelDb!.Value),
                tries.Average(attempt => attempt.MedianHz!.Value),
                Spread(attempt => attempt.HarmonicToNoiseDb!.Value),
                Spread(attempt => Math.Log(attempt.CentroidOverPitch!.Value))
            );
        }

        return Sample(DrillPart.TooTight) is { } tight && Sample(DrillPart.Centred) is { } centred && Sample(DrillPart.TooOpen) is { } open
            ? new OwnScale(tight, centred, open)
            : null;
    }

    /// <summary>
    /// Where a sound lies: 0 centred, -1 like the pupil's own tight sample, 1 like the own open one; null where the
    /// sound says nothing or the samples do not differ.
    /// </summary>
    public double? Place(AttemptMeasures attempt)
    {
        if (
            attempt is not { HarmonicToNoiseDb: { } clear, CentroidOverPitch: { } bright, LevelDb: { } level, MedianHz: { } hertz }
            || Math.Abs(Tuning.Cents(Centred.MedianHz, hertz)) > ComparableCents
        )
            return null;
        var comparable = Math.Abs(level - Centred.LevelDb) <= ComparableDb;
        var sound = Arrow(
            Centred with
            {
                HarmonicToNoiseDb = clear,
                CentroidOverPitch = comparable ? bright : Centred.CentroidOverPitch,
            },
            Centred
        );
        var (tight, open) = (Along(sound, Tight, TellsTight, comparable), Along(sound, Open, TellsOpen, comparable));
        if (tight is null || open is null)
            return -tight?.Share ?? open?.Share;
        return tight.Value.Off < open.Value.Off ? -tight.Value.Share : open.Value.Share;
    }

    private (double Share, double Off)? Along((double Clear, double Bright) sound, OwnSample end, bool tells, bool comparable)
    {
        if (!tells)
            return null;
        var arrow = Arrow(end, Centred);
        if (!comparable)
            arrow.Bright = 0;
        var length = Length(arrow);
        if (length < 1)
            return null;
        var share = Math.Clamp(((sound.Clear * arrow.Clear) + (sound.Bright * arrow.Bright)) / (length * length), 0, 1.5);
        return (share, Length((sound.Clear - (share * arrow.Clear), sound.Bright - (share * arrow.Bright))));
    }

    private (double Clear, double Bright) Arrow(OwnSample to, OwnSample from) =>
        (
            (to.HarmonicToNoiseDb - from.HarmonicToNoiseDb)
                / Math.Max(LeastSpreadDb, Math.Max(Tight.SpreadDb, Math.Max(Centred.SpreadDb, Open.SpreadDb))),
            Math.Log(to.CentroidOverPitch / from.CentroidOverPitch)
                / Math.Max(
                    LeastSpreadBrightness,
                    Math.Max(Tight.SpreadBrightness, Math.Max(Centred.SpreadBrightness, Open.SpreadBrightness))
                )
        );

    private static double Length((double Clear, double Bright) arrow) =>
        Math.Sqrt((arrow.Clear * arrow.Clear) + (arrow.Bright * arrow.Bright));
}
