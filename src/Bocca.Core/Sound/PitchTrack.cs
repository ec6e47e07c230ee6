namespace Bocca.Core.Sound;

/// <summary>The pitch of a sound over time, in frames of 10 ms.</summary>
/// <param name="Frames">The frames, evenly spaced, the first centred on 5 ms.</param>
public sealed record PitchTrack(IReadOnlyList<PitchFrame> Frames)
{
    /// <summary>Seconds from one frame to the next.</summary>
    public const double HopSeconds = 0.01;

    /// <summary>A whole sound is heard in pieces of so many samples, so that a long one costs no more room than a short one.</summary>
    private const int PieceSamples = 1 << 16;

    /// <summary>When something was struck, such as a valve's click, that is no tone (seconds).</summary>
    public IReadOnlyList<double> StruckSeconds { get; init; } = [];

    /// <summary>
    /// The track of a whole sound: the frames as if it had been streamed, what was struck taken for no tone, and where frames lie in noise
    /// settled by the whole tone.
    /// </summary>
    public static PitchTrack Of(MonoSound sound, PitchTrackerSettings? settings = null)
    {
        var frames = new List<PitchFrame>((int)(sound.Seconds / HopSeconds) + 2);
        var tracker = new PitchTracker(sound.SampleRate, settings);
        for (var at = 0; at < sound.Samples.Length; at += PieceSamples)
            tracker.Push(sound.Samples.AsSpan(at, Math.Min(PieceSamples, sound.Samples.Length - at)), frames);
        tracker.Finish(frames);
        return WholeTones.Settled(sound, StruckSounds.Without(new PitchTrack(frames)));
    }
}
