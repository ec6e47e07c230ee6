using Bocca.Core.Buzz.Measures;
using Bocca.Core.Judging;
using Bocca.Core.Sound;
using Bocca.Core.Tone.Listening;
using MathNet.Numerics.Statistics;

namespace Bocca.Core.Tone.Aims;

/// <summary>Air begun by the tongue: each stream there at once, with silence before it.</summary>
internal static class AirAim
{
    /// <summary>Air counts from this far over the room, and is there when this far under its own level (dB; ours, editable).</summary>
    private const double OverRoomDb = 6,
        ThereDb = 3;

    public static IReadOnlyList<AskedHeard> Of(HeardRow row, StageBands bands)
    {
        var room = AttemptFinder.RoomDb(row.Track);
        var rises = Streams(row.Track.Frames, room + OverRoomDb).Select(Rise).ToList();
        if (rises.Count == 0)
            return
            [
                new AskedHeard("starts", $"{row.Notes.Count}", "none heard", false, "The tongue lets go of air that is already waiting."),
            ];
        return
        [
            new AskedHeard(
                "starts",
                $"{row.Notes.Count}, each there within {bands.TonguedRiseMs:0} ms",
                $"{rises.Count}, {rises.Median():0} ms",
                rises.Count >= 0.8 * row.Notes.Count && rises.Median() <= bands.TonguedRiseMs,
                "Say the syllable on air that is already waiting."
            ),
        ];
    }

    /// <summary>Runs of frames over a level, at least a tenth of a second long.</summary>
    private static IEnumerable<List<PitchFrame>> Streams(IReadOnlyList<PitchFrame> frames, double db)
    {
        var run = new List<PitchFrame>();
        foreach (var frame in frames.Append(default(PitchFrame) with { LevelDb = -120 }))
        {
            if (frame.LevelDb >= db)
            {
                run.Add(frame);
                continue;
            }

            if (run.Count >= 10)
                yield return run;
            run = [];
        }
    }

    /// <summary>Milliseconds until a stream is there.</summary>
    private static double Rise(List<PitchFrame> stream)
    {
        var level = stream.Select(frame => frame.LevelDb).Median();
        return 1000 * PitchTrack.HopSeconds * stream.FindIndex(frame => frame.LevelDb >= level - ThereDb);
    }
}
