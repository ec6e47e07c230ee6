using Bocca.Core.Music;
using Bocca.Core.Teaching;

namespace Bocca.Core.Buzz.Aims;

/// <summary>One thing asked, on the line of a whole take.</summary>
/// <param name="Seconds">When it is due, from the first cue.</param>
/// <param name="Length">How long, seconds.</param>
/// <param name="Heights">Semitones from the middle, each for an equal share.</param>
/// <param name="Glides">Whether it glides between them.</param>
/// <param name="Label">What it is called.</param>
public sealed record AskedSpan(double Seconds, double Length, IReadOnlyList<double> Heights, bool Glides, string Label);

/// <summary>A whole take on one line: what was asked, and what was heard over it.</summary>
/// <param name="Seconds">Length from the first cue to the end.</param>
/// <param name="Asked">What was asked.</param>
/// <param name="Heard">Semitones from the middle every 20 ms from the first cue on; null where nothing with a pitch sounds.</param>
public sealed record TakeStrip(double Seconds, IReadOnlyList<AskedSpan> Asked, IReadOnlyList<double?> Heard)
{
    /// <summary>Seconds from one point of <see cref="Heard"/> to the next.</summary>
    public const double StepSeconds = 0.02;

    /// <summary>
    /// Whether tries are of several kinds, so that they cannot be laid over each other: they are drawn one after the other.
    /// </summary>
    public static bool Fits(CuePlan plan) => plan.Tries.Distinct(SameKind).Count() > 1;

    /// <summary>What a plan asks, before anything was heard; null where its tries are all of a kind.</summary>
    public static TakeStrip? Meant(CuePlan plan) => Fits(plan) ? new TakeStrip(plan.TotalSeconds, Spans(plan, plan.Cues), []) : null;

    /// <summary>The strip of a take; null where no cues say when what was due.</summary>
    internal static TakeStrip? Of(AimedTake take, IReadOnlyList<double>? cues)
    {
        var middle = take.MiddleHz;
        if (cues is not { Count: > 0 } || middle <= 0)
            return null;
        var plan = take.Asked.Plan;
        var from = cues[0];
        var step = (int)Math.Round(StepSeconds / Sound.PitchTrack.HopSeconds);
        var heard = take
            .Track.Frames.Where(frame => frame.TimeSeconds >= from)
            .Where((_, i) => i % step == 0)
            .Select(frame => frame.Voiced ? Math.Round(Tuning.Cents(middle, frame.FrequencyHz) / 100, 2) : (double?)null);
        return new TakeStrip(plan.TotalSeconds, Spans(plan, cues), [.. heard]);
    }

    private static readonly IEqualityComparer<Cue> SameKind = EqualityComparer<Cue>.Create(
        (one, other) => one!.Label == other!.Label && one.SoundBeats == other.SoundBeats && one.Heights.SequenceEqual(other.Heights),
        cue => cue.Label.GetHashCode(StringComparison.Ordinal)
    );

    private static IReadOnlyList<AskedSpan> Spans(CuePlan plan, IReadOnlyList<double> cues) =>
        [
            .. plan
                .Tries.Zip(cues)
                .Select(pair => new AskedSpan(
                    pair.Second - cues[0],
                    plan.SecondsOf(pair.First),
                    pair.First.Heights,
                    pair.First.Glides,
                    pair.First.Label
                )),
        ];
}
