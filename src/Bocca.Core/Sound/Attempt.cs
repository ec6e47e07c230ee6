namespace Bocca.Core.Sound;

/// <summary>A run of voiced frames that sounds as one tone.</summary>
/// <param name="First">Index of its first frame.</param>
/// <param name="End">Index one past its last frame.</param>
public readonly record struct ToneRun(int First, int End)
{
    /// <summary>Seconds from its start to its end.</summary>
    public double Seconds => (End - First) * PitchTrack.HopSeconds;

    /// <summary>When it starts.</summary>
    public double StartSeconds => First * PitchTrack.HopSeconds;

    /// <summary>When it ends.</summary>
    public double EndSeconds => End * PitchTrack.HopSeconds;
}

/// <summary>One try at a sound: a tone, or several with short holes between them.</summary>
/// <param name="Tones">Its tones, at least one, in order.</param>
public sealed record Attempt(IReadOnlyList<ToneRun> Tones)
{
    /// <summary>When the first tone starts.</summary>
    public double StartSeconds => Tones[0].StartSeconds;

    /// <summary>When the last tone ends.</summary>
    public double EndSeconds => Tones[^1].EndSeconds;
}
