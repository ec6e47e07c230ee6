namespace Bocca.Core.Sound;

/// <summary>
/// Takes what was struck for no tone: a valve's click, a tap on a slide or a stand rings at a pitch of its own, and is over as soon as it
/// has begun. The shortest tongued note holds its level longer. Measured, as frames see them: notes of 75 ms of sampled brass lie within
/// 12 dB of their loudest for 90 ms or more, clicks and taps for 80 ms or less, most of it within 6 dB (limits ours, editable).
/// </summary>
public static class StruckSounds
{
    private const double HeldDb = 6,
        FallenDb = 12,
        RungDb = 18;

    /// <summary>
    /// What rings after a blow (a mute that falls, a stand that is kicked) falls evenly from its first moment on: to the third part of its
    /// height takes about three times as long as to the first. A note stays, if only for a moment, and then lets go, whatever its room
    /// does: one of 75 ms that is as short comes to 1.8 times, sampled ones of 80 ms in a room to under 2.7. So many frames are the slowest
    /// ring that is told from a note.
    /// </summary>
    private const double EvenFall = 2.7;

    /// <summary>A frame sees 40 ms: so many frames of the top are its own doing.</summary>
    private const int SmearedFrames = 2;

    private const int MostRingingFrames = 14,
        BlowFrames = 4;

    /// <summary>
    /// What rings goes on falling: by so much in as many frames as the slowest takes for its first part. A note that is begun with a strong
    /// accent falls as far, and then is held.
    /// </summary>
    private const double LeastFallDb = 3;

    private const int MostHeldFrames = 7,
        MostFallenFrames = 8;

    /// <summary>A sound's level is looked at from so many frames before it is heard as a pitch, to so many after.</summary>
    private const int Before = 3,
        After = 2;

    /// <summary>The track with what was struck taken for unvoiced.</summary>
    public static PitchTrack Without(PitchTrack track)
    {
        PitchFrame[]? frames = null;
        var struck = new List<double>();
        foreach (var (first, end) in VoicedRuns.Of(track.Frames))
        {
            if (!IsStruck(track.Frames, first, end))
                continue;
            struck.Add(track.Frames[first].TimeSeconds);
            frames ??= [.. track.Frames];
            for (var at = first; at < end; at++)
                frames[at] = frames[at] with { Voiced = false };
        }

        return frames is null ? track : new PitchTrack(frames) { StruckSeconds = struck };
    }

    private static bool IsStruck(IReadOnlyList<PitchFrame> frames, int first, int end)
    {
        // What a recording begins with may have begun long before.
        if (first < Before)
            return false;
        var (from, to) = (first - Before, Math.Min(frames.Count, end + After));
        var loudest = from;
        for (var at = from; at < to; at++)
            loudest = frames[at].LevelDb > frames[loudest].LevelDb ? at : loudest;
        int Within(double db)
        {
            var count = 0;
            for (var at = from; at < to; at++)
                count += frames[at].LevelDb > frames[loudest].LevelDb - db ? 1 : 0;
            return count;
        }

        var held = Within(HeldDb);
        return (held <= MostHeldFrames && Within(FallenDb) <= MostFallenFrames)
            || (
                held <= MostRingingFrames
                && loudest <= first + BlowFrames
                && frames[to - 1].LevelDb < frames[loudest].LevelDb - RungDb
                && Within(RungDb) - SmearedFrames >= EvenFall * (held - SmearedFrames)
                && KeepsFalling(frames, loudest, to)
            );
    }

    private static bool KeepsFalling(IReadOnlyList<PitchFrame> frames, int loudest, int to)
    {
        for (var at = loudest + MostRingingFrames; at < to && frames[at].LevelDb > frames[loudest].LevelDb - RungDb; at++)
            if (frames[at].LevelDb > frames[at - MostRingingFrames].LevelDb - LeastFallDb)
                return false;
        return true;
    }
}
