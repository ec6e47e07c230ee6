namespace Bocca.Core.Sound;

/// <summary>What a <see cref="PitchTracker"/> listens for.</summary>
public sealed record PitchTrackerSettings
{
    /// <summary>Lowest pitch in hertz; the window and the delay follow it. From 20.</summary>
    public double LowestHz { get; init; } = 28;

    /// <summary>Highest pitch in hertz. Up to 2000.</summary>
    public double HighestHz { get; init; } = 1200;

    /// <summary>Clarity from which a frame counts as voiced, 0 to 1 (ours, editable).</summary>
    public double VoicedClarity { get; init; } = 0.5;

    /// <summary>Level in decibels below full scale under which nothing counts as voiced (ours, editable).</summary>
    public double SilenceDb { get; init; } = -65;

    /// <summary>
    /// Points of clarity that an octave higher is worth, so that a period is not taken for two (published: Boersma 1993).
    /// </summary>
    public double OctaveCost { get; init; } = 0.03;

    /// <summary>Points of clarity that a leap of an octave from one frame to the next costs (published: Boersma 1993).</summary>
    public double OctaveJumpCost { get; init; } = 0.35;

    /// <summary>Points of clarity that a change between voiced and unvoiced costs (published: Boersma 1993).</summary>
    public double VoicingChangeCost { get; init; } = 0.14;

    /// <summary>How many frames the path may look ahead before it decides.</summary>
    public int LookAheadFrames { get; init; } = 10;
}
