using Bocca.Core.Buzz.Aims;
using Bocca.Core.Buzz.Measures;
using Bocca.Core.Music;

namespace Bocca.Core.Buzz;

/// <summary>One try of a take as a line of pitch.</summary>
/// <param name="Number">Its place in the take, from 1.</param>
/// <param name="Cents">
/// Cents from the middle of the gate every 10 ms from the tone's start; null where nothing with a pitch sounds.
/// </param>
/// <param name="Unsure">Places in <paramref name="Cents"/> at which the pitch is no more than a guess.</param>
public sealed record TakeThread(int Number, IReadOnlyList<double?> Cents, IReadOnlyList<int> Unsure)
{
    /// <summary>How long it is.</summary>
    public double Seconds => Cents.Count * Sound.PitchTrack.HopSeconds;
}

/// <summary>The tries of a take laid over each other from their starts, against the gate.</summary>
/// <param name="GateCents">Half-height of the gate: the steadiness that counts for this pupil.</param>
/// <param name="MiddleHz">Pitch of the gate's middle: the median of the take; 0 if nothing spoke.</param>
/// <param name="AskedSeconds">How long each try should have sounded.</param>
/// <param name="Threads">The tries that spoke.</param>
public sealed record TakeThreads(double GateCents, double MiddleHz, double AskedSeconds, IReadOnlyList<TakeThread> Threads)
{
    /// <summary>Where on the threads the measures were found.</summary>
    public IReadOnlyList<ThreadMark> Marks { get; init; } = [];

    /// <summary>The whole take on one line; null where threads alone tell it: tries all alike, or no cues.</summary>
    public TakeStrip? Strip { get; init; }

    /// <summary>Below this clarity the pitch of a voiced frame is drawn as unsure (ours, editable).</summary>
    private const double SureClarity = 0.8;

    /// <summary>
    /// So far under the try's own level (dB), while a tone comes and goes, its pitch is drawn as unsure too (ours, editable).
    /// </summary>
    private const double SureWithinDb = 15;

    /// <summary>The threads of a take.</summary>
    public static TakeThreads Of(HeardTake heard, double askedSeconds)
    {
        var middle = heard.Measures.Median(attempt => attempt.MedianHz) ?? 0;
        var threads = middle > 0 ? heard.Measures.Spoken.Select(attempt => Thread(heard, attempt, middle)).ToList() : [];
        return new TakeThreads(heard.Bands.SteadyCents, middle, askedSeconds, threads)
        {
            Marks = ThreadMark.Of(heard.Measures, heard.Bands),
            Strip = heard.Strip,
        };
    }

    private static TakeThread Thread(HeardTake heard, AttemptMeasures attempt, double middle)
    {
        var frames = heard
            .Track.Frames.Where(frame => frame.TimeSeconds >= attempt.StartSeconds && frame.TimeSeconds <= attempt.EndSeconds)
            .ToList();
        return new TakeThread(
            attempt.Number,
            [.. frames.Select(frame => frame.Voiced ? Math.Round(Tuning.Cents(middle, frame.FrequencyHz), 1) : (double?)null)],
            [
                .. frames
                    .Select((frame, i) => (frame, i))
                    .Where(item =>
                        item.frame.Voiced && (item.frame.Clarity < SureClarity || item.frame.LevelDb < attempt.LevelDb - SureWithinDb)
                    )
                    .Select(item => item.i),
            ]
        );
    }
}
