using Bocca.Core.Buzz.Measures;
using Bocca.Core.Judging;
using Bocca.Core.Music;
using Bocca.Core.Teaching;
using MathNet.Numerics.Statistics;

namespace Bocca.Core.Buzz.Aims;

/// <summary>A glide: its range from the 2nd to the 98th percentile of pitch, its turns, and its jumps of over 100 cents a frame.</summary>
internal static class SirenAim
{
    private const double JumpCents = 100;
    private const double EdgeSeconds = 0.1;

    /// <summary>One jump may be the tracker's; more are the pupil's (ours, editable).</summary>
    private const int MostJumps = 1;

    /// <summary>The pitch must go back by this many semitones for a turn to count (ours, editable).</summary>
    private const double TurnSemitones = 1.5;

    /// <summary>
    /// A curve follows another from this likeness on (correlation; ours, editable); on an instrument it can only climb in steps from
    /// partial to partial.
    /// </summary>
    private const double LeastLikeness = 0.8,
        LeastInSteps = 0.6;

    public static IReadOnlyList<AskedHeard> Of(AimedTake take) =>
        [
            .. take
                .Measures.Attempts.Where(attempt => attempt is { Spoke: true, Asked: not null })
                .SelectMany(attempt => Of(take, attempt)),
            .. Followed(take),
        ];

    /// <summary>Whether each means went the way that the first one, the voice, had gone.</summary>
    private static IEnumerable<AskedHeard> Followed(AimedTake take)
    {
        var first = take.Measures.Attempts.FirstOrDefault(attempt => attempt is { Spoke: true, Asked.Voice: true })?.Asked;
        if (first is null)
            yield break;
        var laid = new LaidCurves([
            .. take
                .Measures.Attempts.Where(attempt =>
                    attempt is { Spoke: true, Asked: { Glides: true } asked } && asked.Heights.SequenceEqual(first.Heights)
                )
                .Select(attempt =>
                    LaidCurves.Curve(
                        attempt.Asked!.Label,
                        [.. take.Frames(attempt).Select(frame => (double?)(Tuning.Cents(take.MiddleHz, frame.FrequencyHz) / 100))]
                    )
                )
                .OfType<LaidCurve>(),
        ]);
        foreach (var label in laid.Labels.Skip(1))
        {
            var alike = laid.Likeness(label, laid.Labels[0]);
            yield return new AskedHeard(
                $"{label} after the voice",
                "the same curve",
                $"{Math.Max(0, alike) * 100:0} % alike, {laid.WidthRatio(label, laid.Labels[0]):0.0} times as wide",
                alike
                    >= (take.Asked.Plan.Tries.First(cue => cue.Label == label).On == SoundStage.Instrument ? LeastInSteps : LeastLikeness),
                "Sing the curve once more, then play it."
            )
            {
                Unsung = "Draw the curve in the air, then play it.",
            };
        }
    }

    private static IEnumerable<AskedHeard> Of(AimedTake take, AttemptMeasures attempt)
    {
        var frames = take.Frames(attempt);
        // The first and the last tenth of a second are the start and the end, not the curve.
        var curve = frames
            .Where(frame => frame.TimeSeconds > attempt.StartSeconds + EdgeSeconds && frame.TimeSeconds < attempt.EndSeconds - EdgeSeconds)
            .ToList();
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

        // On an instrument a siren climbs from partial to partial: only its way counts.
        if (attempt.Asked.On == SoundStage.Instrument)
        {
            yield return new AskedHeard(
                attempt.Asked.Label,
                Counted(attempt.Asked.Heights.Count - 2, "turn"),
                $"{range:0.0} semitones, {Counted(Turns(line), "turn")}",
                Turns(line) == attempt.Asked.Heights.Count - 2,
                "Count the turns aloud first, then play them."
            );
            yield break;
        }

        var (least, askedTurns, turns) = (
            attempt.Asked.On is { } own && own != take.Asked.On
                ? take.Table.For(own, take.Asked.Pupil).SirenSemitones
                : take.Bands.SirenSemitones,
            attempt.Asked.Heights.Count - 2,
            Turns(line)
        );
        var jumps = Enumerable
            .Range(1, curve.Count - 1)
            .Count(i => curve[i].TimeSeconds - curve[i - 1].TimeSeconds < 0.015 && Math.Abs(line[i] - line[i - 1]) * 100 > JumpCents);
        yield return new AskedHeard(
            attempt.Asked.Label,
            $"{least:0} semitones or more, {Counted(askedTurns, "turn")}, no jump",
            $"{range:0.0} semitones, {Counted(turns, "turn")}, {Counted(jumps, "jump")}",
            range >= least && turns == askedTurns && jumps <= MostJumps,
            range < least ? "Sing it wider, then buzz the same curve."
                : turns != askedTurns ? "Count the turns aloud first, then buzz them."
                : "Slower through the place where it jumps."
        )
        {
            Unsung = range < least ? "Draw it wider in the air, then buzz that." : null,
        };
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
