using Bocca.Core.Music;
using MathNet.Numerics.Statistics;

namespace Bocca.Core.Buzz;

/// <summary>A glide: its range from the 2nd to the 98th percentile of pitch, its turns, and its jumps of over 100 cents a frame.</summary>
internal static class SirenAim
{
    private const double JumpCents = 100;
    private const double EdgeSeconds = 0.1;

    /// <summary>One jump may be the tracker's; more are the pupil's (ours, editable).</summary>
    private const int MostJumps = 1;

    /// <summary>The pitch must go back by this many semitones for a turn to count (ours, editable).</summary>
    private const double TurnSemitones = 1.5;

    public static IReadOnlyList<AskedHeard> Of(AimedTake take) => [.. take.Measures.Attempts.Where(attempt => attempt is { Spoke: true, Asked: not null }).SelectMany(attempt => Of(take, attempt))];

    private static IEnumerable<AskedHeard> Of(AimedTake take, AttemptMeasures attempt)
    {
        var frames = take.Frames(attempt);
        // The first and the last tenth of a second are the start and the end, not the curve.
        var curve = frames.Where(frame => frame.TimeSeconds > attempt.StartSeconds + EdgeSeconds && frame.TimeSeconds < attempt.EndSeconds - EdgeSeconds).ToList();
        if (curve.Count < 20)
            yield break;
        var all = frames.Select(frame => Tuning.Cents(frames[0].FrequencyHz, frame.FrequencyHz) / 100).ToList();
        var line = curve.ConvertAll(frame => Tuning.Cents(frames[0].FrequencyHz, frame.FrequencyHz) / 100);
        var range = all.Percentile(98) - all.Percentile(2);
        if (attempt.Asked!.Voice)
        {
            yield return new AskedHeard("voice", "a model", $"{range:0.0} semitones", null);
            yield break;
        }

        var (least, askedTurns, turns) = (take.Bands.SirenSemitones, attempt.Asked.Heights.Count - 2, Turns(line));
        var jumps = Enumerable.Range(1, curve.Count - 1).Count(i => curve[i].TimeSeconds - curve[i - 1].TimeSeconds < 0.015 && Math.Abs(line[i] - line[i - 1]) * 100 > JumpCents);
        yield return new AskedHeard(
            attempt.Asked.Label,
            $"{least:0} semitones or more, {Counted(askedTurns, "turn")}, no jump",
            $"{range:0.0} semitones, {Counted(turns, "turn")}, {Counted(jumps, "jump")}",
            range >= least && turns == askedTurns && jumps <= MostJumps,
            range < least ? "Sing it once more, wider, then buzz the same curve."
                : turns != askedTurns ? "Count the turns aloud first, then buzz them."
                : "Slower through the place where it jumps, with the air kept moving.");
    }

    private static string Counted(int count, string what) => $"{(count == 0 ? "no" : $"{count}")} {what}{(count > 1 ? "s" : "")}";

    /// <summary>How often a line turns round, swings of less than <see cref="TurnSemitones"/> not counted.</summary>
    internal static int Turns(IReadOnlyList<double> line)
    {
        var (turns, direction, extreme) = (0, 0, line[0]);
        foreach (var height in line)
        {
            if (direction >= 0 && height > extreme || direction <= 0 && height < extreme)
            {
                if (direction == 0 && Math.Abs(height - line[0]) >= TurnSemitones)
                    direction = Math.Sign(height - line[0]);
                extreme = direction == 0 ? extreme : height;
            }
            else if (direction != 0 && Math.Abs(height - extreme) >= TurnSemitones)
            {
                turns++;
                direction = -direction;
                extreme = height;
            }
        }

        return turns;
    }
}
