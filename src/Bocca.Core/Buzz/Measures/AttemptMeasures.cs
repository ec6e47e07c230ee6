using Bocca.Core.Teaching;

namespace Bocca.Core.Buzz.Measures;

/// <summary>How a tone ended.</summary>
public enum Ending
{
    /// <summary>Stopped within 30 ms: by the tongue, or cut off.</summary>
    Closed,

    /// <summary>Faded in 60 to 400 ms on its pitch.</summary>
    Tapered,

    /// <summary>Lost level or pitch over its last quarter.</summary>
    TrailingOff,

    /// <summary>None of these.</summary>
    Plain,
}

/// <summary>
/// What one try says. The held part is the tone less 150 ms at either end; what is measured on it is null where the
/// tone is too short. Definitions and bands: METHODS.
/// </summary>
public sealed record AttemptMeasures
{
    /// <summary>Its place in the take, from 1.</summary>
    public required int Number { get; init; }

    /// <summary>What was asked; null where nobody said.</summary>
    public Cue? Asked { get; init; }

    /// <summary>Seconds that were asked; null where nobody said.</summary>
    public double? AskedSeconds { get; init; }

    /// <summary>Whether it counts: what is sung as a model does not, nor what is asked to be silent.</summary>
    public bool Counts => Asked is not ({ Voice: true } or { Silent: true });

    /// <summary>Whether one height was asked from start to end, so that straightness means something.</summary>
    public bool IsLevel => Asked is not { IsLevel: false };

    /// <summary>Whether a tone sounded.</summary>
    public required bool Spoke { get; init; }

    /// <summary>Whether, without a tone, air was heard: over the room by 6 dB for 0.3 s.</summary>
    public bool AirOnly { get; init; }

    /// <summary>When the tone starts, seconds into the take.</summary>
    public double? StartSeconds { get; init; }

    /// <summary>When it ends.</summary>
    public double? EndSeconds { get; init; }

    /// <summary>Seconds that sounded, holes left out.</summary>
    public double? SoundingSeconds { get; init; }

    /// <summary>Median pitch of the held part, hertz.</summary>
    public double? MedianHz { get; init; }

    /// <summary>Tone start less cue, milliseconds, late positive; null without a cue.</summary>
    public double? OnsetDelayMs { get; init; }

    /// <summary>Tone start less first air, milliseconds.</summary>
    public double? AirBeforeToneMs { get; init; }

    /// <summary>Time from 10 to 90 % of the held amplitude, milliseconds.</summary>
    public double? RiseMs { get; init; }

    /// <summary>Pitch 30 to 80 ms after the start less the held median, cents; negative from below.</summary>
    public double? ScoopCents { get; init; }

    /// <summary>Standard deviation of the held pitch about a straight line, cents.</summary>
    public double? SteadinessCents { get; init; }

    /// <summary>Robust slope of the held pitch, cents a second; positive rising.</summary>
    public double? DriftCentsPerSecond { get; init; }

    /// <summary>Robust slope of the held level, decibels a second.</summary>
    public double? DriftDbPerSecond { get; init; }

    /// <summary>Rate of the strongest pitch swing between 2 and 8 Hz.</summary>
    public double? WobbleHz { get; init; }

    /// <summary>Half-range of that swing, cents.</summary>
    public double? WobbleCents { get; init; }

    /// <summary>Half-range of the strongest level swing between 2 and 8 Hz, decibels.</summary>
    public double? WobbleDb { get; init; }

    /// <summary>Holes of 40 ms or more and leaps of 150 cents or more inside the tone.</summary>
    public int Breaks { get; init; }

    /// <summary>Where these are, seconds from the try's start.</summary>
    public IReadOnlyList<double> BreakSeconds { get; init; } = [];

    /// <summary>Pitch of the last quarter of the held part less that of the first, cents; a fall to another partial shows here.</summary>
    public double? EndCents { get; init; }

    /// <summary>How it ended.</summary>
    public Ending? Ending { get; init; }

    /// <summary>Median level of the held part, decibels below full scale.</summary>
    public double? LevelDb { get; init; }

    /// <summary>Harmonic-to-noise ratio of the held part, decibels (published: Boersma 1993).</summary>
    public double? HarmonicToNoiseDb { get; init; }

    /// <summary>Spectral centroid over pitch of the held part: how many harmonics up the middle of the sound lies.</summary>
    public double? CentroidOverPitch { get; init; }
}
