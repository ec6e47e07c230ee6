using Bocca.Core.Buzz.Drills;
using Bocca.Core.Buzz.Measures;
using Bocca.Core.Music;
using Bocca.Core.Sound;
using Bocca.Core.Teaching;
using MathNet.Numerics.Statistics;

namespace Bocca.Core.Buzz.Aims;

/// <summary>What a take is held against its drill with.</summary>
internal sealed class AimedTake(AskedTake asked, TakeMeasures measures, PitchTrack track, StageBands bands, BandTable table)
{
    private double? _middleHz;

    /// <summary>What was asked.</summary>
    public AskedTake Asked => asked;

    /// <summary>What was heard of each try.</summary>
    public TakeMeasures Measures => measures;

    /// <summary>The pitch of all of it.</summary>
    public PitchTrack Track => track;

    /// <summary>What is good enough.</summary>
    public StageBands Bands => bands;

    /// <summary>What is good enough on what else a drill is played on.</summary>
    public BandTable Table => table;

    /// <summary>
    /// The pitch of height 0: the median over what was asked there; where nothing was, what brings the tries as a whole
    /// to the heights asked; 0 for silence.
    /// </summary>
    public double MiddleHz => _middleHz ??= FindMiddle();

    /// <summary>The tries that spoke under a label.</summary>
    public IReadOnlyList<AttemptMeasures> Of(DrillPart part) => [.. Measures.Spoken.Where(attempt => attempt.Asked?.Part == part)];

    private double FindMiddle()
    {
        var middle = Measures
            .Spoken.Where(attempt => attempt.IsLevel && (attempt.Asked?.Heights[0] ?? 0) == 0)
            .Select(attempt => attempt.MedianHz)
            .OfType<double>()
            .ToList();
        if (middle.Count > 0)
            return middle.Median();
        var brought = Measures.Spoken.Select(Brought).OfType<double>().ToList();
        return brought.Count > 0 ? Math.Exp(brought.Median()) : 0;
    }

    /// <summary>Natural logarithm of the middle that a try would have if it lay at its heights on average.</summary>
    private double? Brought(AttemptMeasures attempt)
    {
        var frames = Frames(attempt);
        if (frames.Count == 0)
            return null;
        // Over a glide the ends are passed once and the heights between them twice.
        var heights = attempt.Asked?.Heights ?? Teaching.Cue.Level;
        var average = attempt.Asked is { Glides: true }
            ? heights.Zip(heights.Skip(1), (one, next) => (one + next) / 2).Average()
            : heights.Average();
        return frames.Average(frame => Math.Log(frame.FrequencyHz)) - (average * Math.Log(2) / 12);
    }

    /// <summary>The voiced frames of a try.</summary>
    public IReadOnlyList<PitchFrame> Frames(AttemptMeasures attempt) =>
        [
            .. Track.Frames.Where(frame =>
                frame.Voiced && frame.TimeSeconds >= attempt.StartSeconds && frame.TimeSeconds <= attempt.EndSeconds
            ),
        ];

    /// <summary>
    /// The pitch of each height of a try in semitones from the middle: the median of the inner part of its share of the
    /// sound; null where it did not sound. Heights that repeat without a break are one.
    /// </summary>
    public IReadOnlyList<double?> Plateaus(AttemptMeasures attempt)
    {
        if (attempt is not { Asked: { } asked, AskedSeconds: { } seconds, StartSeconds: { } start } || MiddleHz <= 0)
            return [];
        var share = seconds / asked.Heights.Count;
        var plateaus = new List<double?>();
        for (var i = 0; i < asked.Heights.Count; )
        {
            var end = i + 1;
            while (end < asked.Heights.Count && asked.Heights[end] == asked.Heights[i])
                end++;
            var (from, to) = (start + (i * share), start + (end * share));
            var inner = 0.2 * (to - from);
            var heard = Frames(attempt)
                .Where(frame => frame.TimeSeconds >= from + inner && frame.TimeSeconds <= to - inner)
                .Select(frame => frame.FrequencyHz)
                .ToList();
            plateaus.Add(heard.Count < 5 ? null : Tuning.Cents(MiddleHz, heard.Median()) / 100);
            i = end;
        }

        return plateaus;
    }
}
