using Bocca.Core.Score;
using Bocca.Core.Teaching;
using MathNet.Numerics;
using MathNet.Numerics.Distributions;
using MathNet.Numerics.Statistics;

namespace Bocca.Core.Counting;

/// <summary>A beginning of a card, and what came of it.</summary>
/// <param name="At">When it is due, in quarters from the card's first beat.</param>
/// <param name="Place">Where that is, in words: <c>3</c>, <c>the &amp; of 2</c>.</param>
/// <param name="ErrorMs">How late it came, early below 0, milliseconds; null for not at all.</param>
public sealed record CardBeat(Rational At, string Place, double? ErrorMs);

/// <summary>One track, said, clapped or tapped, laid on the grid of a card.</summary>
/// <param name="Beats">What was due, in order.</param>
/// <param name="ExtraSeconds">What came and was not due, seconds from the card's first beat.</param>
/// <param name="EvennessMs">Standard deviation of the errors about their own line, milliseconds; null for fewer than three.</param>
/// <param name="DriftPercent">How much faster the tempo got over the card than it was meant, per cent; null for fewer than three.</param>
/// <param name="Passed">Whether all came inside the tolerance and nothing besides.</param>
/// <param name="Sentence">The same in words, with one thing to mend at most.</param>
public sealed record CountedTrack(
    IReadOnlyList<CardBeat> Beats,
    IReadOnlyList<double> ExtraSeconds,
    double? EvennessMs,
    double? DriftPercent,
    bool Passed,
    string Sentence
)
{
    /// <summary>What it is a track of: <c>clap</c>, <c>count</c>, <c>tap</c>, <c>note</c>.</summary>
    public string What { get; init; } = "clap";

    /// <summary>Whether the tempo moved: by as much as is told, and by more than one beat astray would feign.</summary>
    public bool Drifts { get; init; }

    /// <summary>What was counted on lines of the grid where nothing begins, seconds: it is no fault, a voice may count them all.</summary>
    public IReadOnlyList<double> BetweenSeconds { get; init; } = [];
}

/// <summary>Lays what began in one track on the grid of a card.</summary>
public static class CountJudge
{
    /// <summary>Nothing further away is taken for a beginning, seconds; nor what is nearer to the next (ours).</summary>
    private const double FurthestSeconds = 0.3;

    private const double Nearer = 0.6;

    /// <summary>What is counted between may lie further off than what is judged, milliseconds.</summary>
    private const double Kept = 40;

    /// <summary>A drift is told from so many per cent on (ours, editable).</summary>
    public const double ToldDrift = 3;

    private static readonly NumberSetting First = Of("first", "first notes", 100),
        Second = Of("second", "from the second stage on", 60);

    /// <summary>What a teacher may set otherwise: how close is close enough.</summary>
    public static IReadOnlyList<NumberSetting> Settings { get; } = [First, Second];

    /// <summary>The tolerance of a stage, milliseconds either way (ours, editable).</summary>
    /// <param name="stage">How far the pupil has come.</param>
    /// <param name="own">What the teacher has set otherwise; null for what ships.</param>
    public static double ToleranceMs(LearningStage stage, OwnSettings? own = null) =>
        (stage >= LearningStage.Second ? Second : First).In(own ?? OwnSettings.None);

    private static NumberSetting Of(string id, string name, double shipped) =>
        new(
            $"counting.{id}Ms",
            "counting",
            name,
            "ms",
            "so far from its beat a count, a clap or a tap may come, either way",
            shipped,
            20,
            250
        );

    /// <summary>Judges a track.</summary>
    /// <param name="card">The card.</param>
    /// <param name="tempo">Beats of its metre a minute.</param>
    /// <param name="onsets">When something began, seconds from the card's first beat, in order.</param>
    /// <param name="toleranceMs">What is close enough, milliseconds either way.</param>
    /// <param name="what">What it is called: <c>clap</c>, <c>count</c>, <c>tap</c>.</param>
    /// <exception cref="ArgumentException">There is no such tempo.</exception>
    public static CountedTrack Of(RhythmCard card, double tempo, IReadOnlyList<double> onsets, double toleranceMs, string what = "clap")
    {
        if (!(tempo is >= 20 and <= 400))
            throw new ArgumentException("A tempo is 20 to 400 beats a minute.");
        var second = 60 / (tempo * card.Metre.Beat.Value);
        var due = card.Onsets.ToList();
        var (matched, extras) = Pair([.. due.Select(at => at.Value * second)], onsets);
        // A voice may count what is held, too.
        var between = what == "count" ? Between(card, second, extras, toleranceMs) : [];
        extras = [.. extras.Except(between)];
        var beats = due.Select((at, i) => new CardBeat(at, PlaceOf(at, card.Metre), matched[i])).ToList();
        var came = beats.Where(beat => beat.ErrorMs is not null).ToList();
        double? evenness = null,
            drift = null;
        var drifts = false;
        if (came.Count >= 3)
        {
            double[] times = [.. came.Select(beat => beat.At.Value * second)],
                errors = [.. came.Select(beat => beat.ErrorMs!.Value)];
            var (start, slope) = Fit.Line(times, errors);
            evenness = times.Zip(errors, (time, error) => error - start - (slope * time)).PopulationStandardDeviation();
            // Errors that shrink by so many milliseconds a second: the beats come that much sooner.
            drift = -slope / 10;
            drifts = Math.Abs(drift.Value) >= ToldDrift && Moves(times, evenness.Value, slope);
        }

        var passed = extras.Count == 0 && beats.TrueForAll(beat => Math.Abs(beat.ErrorMs ?? double.PositiveInfinity) <= toleranceMs);
        var sentence = Sentence(beats, extras, drifts ? drift : null, passed, toleranceMs, what);
        return new CountedTrack(beats, extras, evenness, drift, passed, sentence)
        {
            What = what,
            BetweenSeconds = between,
            Drifts = drifts,
        };
    }

    /// <summary>
    /// Whether errors that scatter so about their line would have it lie so steeply less than once in twenty times, were there no drift
    /// (Student's t of a slope).
    /// </summary>
    private static bool Moves(double[] times, double scatter, double slope)
    {
        var free = times.Length - 2;
        var error = scatter / Math.Sqrt(free * times.PopulationVariance());
        return Math.Abs(slope) > StudentT.InvCDF(0, 1, free, 0.975) * error;
    }

    private static List<double> Between(RhythmCard card, double second, IReadOnlyList<double> extras, double toleranceMs)
    {
        var lines = Counts.Grid(card).Where(line => !line.Begins).Select(line => line.At.Value * second).ToList();
        return [.. extras.Where(at => lines.Exists(line => Math.Abs(line - at) * 1000 <= toleranceMs + Kept))];
    }

    /// <summary>Where a moment lies, in words.</summary>
    public static string PlaceOf(Rational at, Metre metre)
    {
        var inBar = at - (metre.Bar * new Rational((at / metre.Bar).Floor));
        var bar = (at / metre.Bar).Floor;
        var syllable = Counts.Syllable(inBar, metre) ?? "a place between";
        var place = char.IsDigit(syllable[0]) ? syllable : $"the {syllable} of {(inBar / metre.Beat).Floor + 1}";
        return bar == 0 ? place : $"{place} in bar {bar + 1}";
    }

    /// <summary>Pairs in order what is due with what came, at the least cost; milliseconds late, and what is left over.</summary>
    private static (double?[] Matched, List<double> Extras) Pair(double[] due, IReadOnlyList<double> came)
    {
        var cost = new double[due.Length + 1, came.Count + 1];
        for (var i = due.Length; i >= 0; i--)
        for (var j = came.Count; j >= 0; j--)
            cost[i, j] =
                i == due.Length ? came.Count - j
                : j == came.Count ? due.Length - i
                : Math.Min(1 + Math.Min(cost[i + 1, j], cost[i, j + 1]), Off(due, i, came[j]) + cost[i + 1, j + 1]);
        var (matched, extras) = (new double?[due.Length], new List<double>());
        for (var (i, j) = (0, 0); i < due.Length || j < came.Count; )
            if (i < due.Length && j < came.Count && cost[i, j] == Off(due, i, came[j]) + cost[i + 1, j + 1])
                matched[i] = 1000 * (came[j++] - due[i++]);
            else if (j < came.Count && (i == due.Length || cost[i, j] == 1 + cost[i, j + 1]))
                extras.Add(came[j++]);
            else
                i++;
        return (matched, extras);
    }

    /// <summary>How far off, as a share of the furthest that can be meant; endless beyond it.</summary>
    private static double Off(double[] due, int at, double came)
    {
        var before = at > 0 ? due[at] - due[at - 1] : double.MaxValue;
        var after = at + 1 < due.Length ? due[at + 1] - due[at] : double.MaxValue;
        var furthest = Math.Min(FurthestSeconds, Nearer * Math.Min(before, after));
        var off = Math.Abs(came - due[at]) / furthest;
        return off <= 1 ? off : double.PositiveInfinity;
    }

    private static string Sentence(List<CardBeat> beats, List<double> extras, double? drift, bool passed, double toleranceMs, string what)
    {
        var missing = beats.Where(beat => beat.ErrorMs is null).ToList();
        if (missing.Count == beats.Count)
            return $"No {what} was heard.";
        if (missing.Count > 0)
            return $"A {what} is missing on {missing[0].Place}{(missing.Count > 1 ? $", and {missing.Count - 1} more" : "")}.";
        if (extras.Count > 0)
            return $"{extras.Count} {what}{(extras.Count == 1 ? "" : "s")} more than the card has.";
        if (passed)
            return $"Every {what} came in its place.";
        if (drift is { } faster)
            return $"It gets {(faster > 0 ? "faster" : "slower")}: {Math.Abs(faster):0} per cent over the card.";
        var worst = beats.MaxBy(beat => Math.Abs(beat.ErrorMs!.Value))!;
        var outside = beats.Count(beat => Math.Abs(beat.ErrorMs!.Value) > toleranceMs);
        return $"{outside} of {beats.Count} {(outside == 1 ? "lies" : "lie")} outside; most on {worst.Place}, "
            + $"{Math.Abs(worst.ErrorMs!.Value):0} ms {(worst.ErrorMs > 0 ? "late" : "early")}.";
    }
}
