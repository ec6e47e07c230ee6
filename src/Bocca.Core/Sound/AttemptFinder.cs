using MathNet.Numerics.Statistics;

namespace Bocca.Core.Sound;

/// <summary>
/// Finds the tries of a take. A tone is a voiced run of at least 150 ms with gaps under 40 ms closed; tones less than
/// 400 ms apart are one try with a hole in it (ours, editable).
/// </summary>
public static class AttemptFinder
{
    /// <summary>Tones less than this apart are one try, unless closer ones were asked for (seconds).</summary>
    public const double SameTrySeconds = 0.4;

    /// <summary>Under this a frame holds nothing but zeros.</summary>
    private const double NothingDb = -115;

    private const double ShortestToneSeconds = 0.15;
    private const double ClosedGapSeconds = 0.04;

    /// <summary>A tone this much softer than the loudest of the take is an echo or somebody next door (dB).</summary>
    private const double FaintBelowLoudestDb = 30;

    /// <summary>A tone is at least this far above the room (dB).</summary>
    private const double AboveRoomDb = 6;

    /// <summary>The tries of a take, in order.</summary>
    /// <param name="track">Its pitch.</param>
    /// <param name="sameTrySeconds">Tones less than this apart are one try.</param>
    /// <param name="shortestSeconds">What is shorter is no tone.</param>
    public static IReadOnlyList<Attempt> Find(
        PitchTrack track,
        double sameTrySeconds = SameTrySeconds,
        double shortestSeconds = ShortestToneSeconds
    )
    {
        var tones = Tones(track.Frames, shortestSeconds);
        var tries = new List<List<ToneRun>>();
        foreach (var tone in tones)
        {
            if (tries.Count > 0 && tone.StartSeconds - tries[^1][^1].EndSeconds < sameTrySeconds)
                tries[^1].Add(tone);
            else
                tries.Add([tone]);
        }

        return [.. tries.Select(parts => new Attempt(parts))];
    }

    /// <summary>
    /// Level of the room in decibels: the lowest tenth of the take's frames, and no higher than 25 dB under its loudest,
    /// for takes that sound throughout. Frames without a single sample over zero are no room: nothing was recorded there.
    /// </summary>
    public static double RoomDb(PitchTrack track)
    {
        var levels = track.Frames.Select(frame => frame.LevelDb).Where(level => level > NothingDb).ToArray();
        if (levels.Length == 0)
            return -120;
        return Math.Min(Statistics.Percentile(levels, 10), Statistics.Percentile(levels, 99) - 25);
    }

    private static List<ToneRun> Tones(IReadOnlyList<PitchFrame> frames, double shortestSeconds)
    {
        var runs = new List<ToneRun>();
        for (var i = 0; i < frames.Count; i++)
        {
            if (!frames[i].Voiced)
                continue;
            var end = i + 1;
            while (end < frames.Count && frames[end].Voiced)
                end++;
            if (runs.Count > 0 && (i - runs[^1].End) * PitchTrack.HopSeconds < ClosedGapSeconds - 1e-9)
                runs[^1] = runs[^1] with { End = end };
            else
                runs.Add(new ToneRun(i, end));
            i = end;
        }

        runs.RemoveAll(run => run.Seconds < shortestSeconds - 1e-9);
        if (runs.Count == 0)
            return runs;
        var levels = runs.ConvertAll(run => Level(frames, run));
        var floor = Math.Max(levels.Max() - FaintBelowLoudestDb, RoomDb(new PitchTrack(frames)) + AboveRoomDb);
        return [.. runs.Where((_, i) => levels[i] >= floor)];
    }

    private static double Level(IReadOnlyList<PitchFrame> frames, ToneRun tone) =>
        Enumerable.Range(tone.First, tone.End - tone.First).Select(i => frames[i].LevelDb).Median();
}
