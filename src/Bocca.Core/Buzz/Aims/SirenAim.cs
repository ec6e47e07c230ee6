using Bocca.Core.Music;
using MathNet.Numerics.Statistics;

namespace Bocca.Core.Buzz;

/// <summary>A glide: its range from the 2nd to the 98th percentile of pitch, its turns, and its jumps of over 100 cents a frame.</summary>
internal static class SirenAim
{
    private const double JumpCents = 100;
    private const double EdgeSeconds = 0.1;

    /// <summary>The pitch must go back by this many semitones for a turn to count (ours, editable).</summary>
    private const double TurnSemitones = 1.5;

    public static IReadOnlyList<AskedHeard> Of(AimedTake take) => [.. take.Measures.Attempts.Where(attempt => attempt is { Spoke: true, Asked: not null }).SelectMany(attempt => Of(take, attempt))];

    private static IEnumerable<AskedHeard> Of(AimedTake take, AttemptMeasures attempt)
    {
        // The first and the last tenth of a second are the start and the end, not the curve.
        var frames = take.Frames(attempt).Where(frame => frame.TimeSeconds > attempt.StartSeconds + EdgeSeconds && frame.TimeSeconds < attempt.EndSeconds - EdgeSeconds).ToList();
        if (frames.Count < 20)
            yield break;
        var line = frames.Select(frame => Tuning.Cents(frames[0].FrequencyHz, frame.FrequencyHz) / 100).ToList();
        var range = line.Percentile(98) - line.Percentile(2);
        var label = attempt.Asked!.Label;
        if (attempt.Asked.Voice)
        {
            yield return new AskedHeard("voice", "a model", $"{range:0.0} semitones", null);
            yield break;
        }

        var asked = attempt.Asked.Heights.Count - 2;
        var turns = Turns(line);
        var jumps = Enumerable.Range(1, frames.Count - 1).Count(i => frames[i].TimeSeconds - frames[i - 1].TimeSeconds < 0.015 && Math.Abs(line[i] - line[i - 1]) * 100 > JumpCents);
        yield return new AskedHeard($"{label}: width", $"{take.Bands.SirenSemitones:0} semitones or more", $"{range:0.0} semitones", range >= take.Bands.SirenSemitones, "Sing it once more, wider, then buzz the same curve.");
        yield return new AskedHeard($"{label}: turns", $"{asked}", $"{turns}", turns == asked, "Count the turns aloud first, then buzz them.");
        yield return new AskedHeard($"{label}: smooth", "no jump", jumps == 0 ? "no jump" : $"{jumps} jumps", jumps <= 1, "Slower through the place where it jumps, with the air kept moving.");
    }

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
