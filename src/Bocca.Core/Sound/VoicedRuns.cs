namespace Bocca.Core.Sound;

/// <summary>Stretches of voiced frames.</summary>
internal static class VoicedRuns
{
    /// <summary>The stretches of a track, in order: index of the first frame, and one past the last.</summary>
    /// <param name="frames">The frames.</param>
    /// <param name="withinCents">A run ends where the pitch jumps by as much from frame to frame; never by default.</param>
    public static List<(int First, int End)> Of(IReadOnlyList<PitchFrame> frames, double withinCents = double.PositiveInfinity)
    {
        var runs = new List<(int First, int End)>();
        for (var first = 0; first < frames.Count; first++)
        {
            if (!frames[first].Voiced)
                continue;
            runs.Add((first, EndOf(frames, first, withinCents)));
            first = runs[^1].End - 1;
        }

        return runs;
    }

    /// <summary>One past the last frame that goes on from a voiced frame without a gap or a jump.</summary>
    public static int EndOf(IReadOnlyList<PitchFrame> frames, int first, double withinCents)
    {
        var end = first + 1;
        while (
            end < frames.Count
            && frames[end].Voiced
            && Math.Abs(1200 * Math.Log2(frames[end].FrequencyHz / frames[end - 1].FrequencyHz)) < withinCents
        )
            end++;
        return end;
    }
}
