using Bocca.Core.Judging;
using Bocca.Core.Music;
using Bocca.Core.Sound;
using Bocca.Core.Tone.Listening;
using MathNet.Numerics.Statistics;

namespace Bocca.Core.Tone.Aims;

/// <summary>Tones that leave their height on purpose: bent and brought back, or drawn down with the slide.</summary>
internal static class GlideAims
{
    /// <summary>Back at the start within this (cents; common practice).</summary>
    private const double ReturnCents = 30;

    /// <summary>What sinks by less is not bent (cents; ours, editable).</summary>
    private const double LeastBendCents = 50;

    /// <summary>A stop: over so many frames the pitch moves by less than so many cents (ours, editable).</summary>
    private const int StopFrames = 30;

    private const double StopCents = 8,
        JumpCents = 100;

    /// <summary>Start and end of a glide stand still by nature (seconds).</summary>
    private const double EdgeSeconds = 0.5;

    public static List<AskedHeard> Bend(HeardRow row) =>
        [
            .. Curves(row)
                .Select(
                    (curve, i) =>
                    {
                        var line = Cents(curve);
                        var (start, end) = (line.Skip(10).Take(20).Median(), line.SkipLast(8).TakeLast(20).Median());
                        var lowest = Enumerable.Range(2, Math.Max(1, line.Count - 4)).Min(at => line.Skip(at - 2).Take(5).Median());
                        var (depth, back) = (start - lowest, end - start);
                        return new AskedHeard(
                            $"sink and return {i + 1}",
                            $"down, and back within {ReturnCents:0} cents",
                            $"{depth:0} cents down, {back:+0;-0;0} cents at the end",
                            depth >= LeastBendCents && Math.Abs(back) <= ReturnCents,
                            depth < LeastBendCents
                                ? "Let the lips slacken further on the same air."
                                : "Bring it all the way back before the breath ends."
                        );
                    }
                ),
        ];

    public static List<AskedHeard> Slide(HeardRow row) =>
        [
            .. Curves(row)
                .Select(
                    (curve, i) =>
                    {
                        var line = Cents(curve);
                        var range = (line.Percentile(98) - line.Percentile(2)) / 100;
                        var edge = (int)(EdgeSeconds / PitchTrack.HopSeconds);
                        var stops = 0;
                        for (var at = edge; at + StopFrames < line.Count - edge; at++)
                        {
                            if (Math.Abs(line[at + StopFrames] - line[at]) >= StopCents)
                                continue;
                            stops++;
                            at += StopFrames;
                        }

                        var jumps = Enumerable
                            .Range(1, Math.Max(0, line.Count - 1))
                            .Count(at => Math.Abs(line[at] - line[at - 1]) > JumpCents);
                        return new AskedHeard(
                            $"glide {i + 1}",
                            "no stop, no jump",
                            $"{range:0.0} semitones, to position {1 + range:0.0}; {Counted(stops, "stop")}, {Counted(jumps, "jump")}",
                            stops == 0 && jumps <= 1,
                            stops > 0
                                ? "One slow movement of the arm, wrist loose, without a halt."
                                : "Keep the air going through the place where it jumps."
                        );
                    }
                ),
        ];

    /// <summary>The voiced frames of each try that answered a note.</summary>
    private static IEnumerable<List<PitchFrame>> Curves(HeardRow row)
    {
        var tries = AttemptFinder.Find(row.Track);
        return row
            .Notes.Where(note => note.Sound is not null)
            .Select(note =>
                tries.FirstOrDefault(attempt =>
                    note.Sound!.EndSeconds > attempt.StartSeconds && note.Sound.StartSeconds < attempt.EndSeconds
                )
            )
            .OfType<Attempt>()
            .Distinct()
            .Select(attempt =>
                row.Track.Frames.Where(frame =>
                        frame.Voiced && frame.TimeSeconds >= attempt.StartSeconds && frame.TimeSeconds <= attempt.EndSeconds
                    )
                    .ToList()
            )
            .Where(frames => frames.Count > 60);
    }

    private static List<double> Cents(List<PitchFrame> frames) =>
        frames.ConvertAll(frame => Tuning.Cents(frames[0].FrequencyHz, frame.FrequencyHz));

    private static string Counted(int count, string what) => $"{(count == 0 ? "no" : $"{count}")} {what}{(count > 1 ? "s" : "")}";
}
