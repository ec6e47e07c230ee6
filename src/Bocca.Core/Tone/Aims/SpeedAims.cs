using Bocca.Core.Judging;
using Bocca.Core.Tone.Drills;
using Bocca.Core.Tone.Listening;
using MathNet.Numerics.Statistics;

namespace Bocca.Core.Tone.Aims;

/// <summary>Ever quicker notes under the tongue: the quickest that are even, and what a long stretch leaves of it.</summary>
internal static class SpeedAims
{
    /// <summary>Starts that lie this far apart are even: standard deviation over mean of the time between them (ours, editable).</summary>
    private const double EvenShare = 0.12;

    /// <summary>So many of the starts asked have to be heard for a stretch to count.</summary>
    private const double HeardShare = 0.9;

    /// <summary>Notes from which on a stretch is a long one, whose beginning and end are compared; and the seconds of each.</summary>
    private const int LongNotes = 24;

    private const double EdgeSeconds = 5;

    /// <summary>A tongue that is slower or less even by more than this at the end has fallen off (share; ours, editable).</summary>
    private const double FallShare = 0.1;

    public static List<AskedHeard> Fastest(HeardRow row, RowPlan plan)
    {
        var stretches = row.Phrases.Select(phrase => Stretch.Of(phrase, plan)).ToList();
        var aims = new List<AskedHeard>();
        var rungs = stretches.Where(stretch => stretch.Asked < LongNotes).ToList();
        var even = rungs.TakeWhile(stretch => stretch.IsEven).ToList();
        if (rungs.Count > 0)
            aims.Add(
                new AskedHeard(
                    "quickest even",
                    $"even within {100 * EvenShare:0} %",
                    even.Count == 0 ? "none yet" : $"{even[^1].PerSecond:0.0} notes a second",
                    even.Count > 0,
                    "Slower: one long note under the tongue."
                )
            );
        aims.AddRange(rungs.Select(stretch => new AskedHeard($"{stretch.AskedPerSecond:0.0} a second", "even", stretch.Heard, null)));
        aims.AddRange(stretches.Where(stretch => stretch.Asked >= LongNotes).Select(Fall));
        return aims;
    }

    private static AskedHeard Fall(Stretch stretch)
    {
        var (first, last) = (stretch.Rate(0, EdgeSeconds), stretch.Rate(stretch.Seconds - EdgeSeconds, stretch.Seconds));
        if (first is not { } from || last is not { } to)
            return new AskedHeard(
                $"over {stretch.Seconds:0} s",
                "as quick to the end",
                "too few starts were heard",
                false,
                "The air goes on all the way."
            );
        var fall = 1 - (to / from);
        var how = Math.Abs(fall) < 0.005 ? "" : $": {100 * Math.Abs(fall):0} % {(fall > 0 ? "slower" : "quicker")}";
        return new AskedHeard(
            $"over {stretch.AskedSeconds:0} s",
            "as quick to the end",
            $"{from:0.0} a second, {to:0.0} at the end{how}",
            Math.Abs(fall) <= FallShare && stretch.IsEven,
            "Let the tongue only touch the air."
        );
    }

    private sealed record Stretch(int Asked, double AskedSeconds, IReadOnlyList<double> Starts)
    {
        private readonly List<double> _between = [.. Starts.Zip(Starts.Skip(1), (from, to) => to - from)];

        public double AskedPerSecond => Asked / AskedSeconds;

        public double Seconds => Starts.Count == 0 ? 0 : Starts[^1] - Starts[0];

        public double PerSecond => 1 / _between.Average();

        private double? Spread => _between.Count < 2 ? null : _between.StandardDeviation() / _between.Average();

        public bool IsEven => Starts.Count >= HeardShare * Asked && Spread is <= EvenShare;

        public string Heard =>
            Spread is { } spread ? $"{Starts.Count} of {Asked} starts, {100 * spread:0} % uneven" : $"{Starts.Count} of {Asked} starts";

        /// <summary>Starts a second between two moments of the stretch, seconds from its first; null for fewer than three.</summary>
        public double? Rate(double from, double to)
        {
            var within = Starts.Where(start => start - Starts[0] >= from && start - Starts[0] <= to).ToList();
            return within.Count < 3 ? null : (within.Count - 1) / (within[^1] - within[0]);
        }

        public static Stretch Of(IReadOnlyList<RowNote> phrase, RowPlan plan) =>
            new(
                phrase.Count,
                phrase.Sum(note => note.Asked.Beats) * plan.BeatSeconds,
                [.. phrase.Where(note => note.Sound is not null).Select(note => note.Sound!.StartSeconds)]
            );
    }
}
