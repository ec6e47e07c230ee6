using MathNet.Numerics.Statistics;

namespace Bocca.Core.Buzz;

/// <summary>A take in a history: when, and what it measured.</summary>
/// <param name="Day">When.</param>
/// <param name="Measures">What it says.</param>
public sealed record DatedTake(DateTime Day, TakeMeasures Measures);

/// <summary>A measure in one take: its middle over the tries.</summary>
/// <param name="Day">When.</param>
/// <param name="Value">The median over the tries.</param>
public sealed record HistoryPoint(DateTime Day, double Value);

/// <summary>
/// A measure over weeks beside the pupil's own spread. It has changed only when the newest takes lie further from the
/// earlier ones than the repeats within a take lie from each other.
/// </summary>
/// <param name="Name">What is measured.</param>
/// <param name="Unit">Its unit.</param>
/// <param name="Points">The takes, oldest first.</param>
/// <param name="Spread">The pupil's own spread: the standard deviation of repeats within a take, pooled.</param>
/// <param name="Earlier">Median of the takes before.</param>
/// <param name="Now">Median of the newest.</param>
/// <param name="Changed">Whether that is a change.</param>
/// <param name="Sentence">The same in words.</param>
public sealed record MeasureHistory(
    string Name,
    string Unit,
    IReadOnlyList<HistoryPoint> Points,
    double Spread,
    double Earlier,
    double Now,
    bool Changed,
    string Sentence
)
{
    /// <summary>The newest takes that count as now, and the fewest earlier ones to compare with (ours, editable).</summary>
    private const int Newest = 3,
        FewestEarlier = 2;

    private static readonly (string Name, string Unit, string Less, string More, Func<AttemptMeasures, double?> Of)[] Measured =
    [
        ("steadiness", "cents", "steadier", "less steady", attempt => attempt.SteadinessCents),
        ("air before tone", "ms", "speaks sooner", "more air first", attempt => attempt.AirBeforeToneMs),
        (
            "drift",
            "cents a second",
            "straighter",
            "drifts more",
            attempt => attempt.DriftCentsPerSecond is { } drift ? Math.Abs(drift) : null
        ),
        ("length", "s", "shorter", "longer", attempt => attempt.SoundingSeconds),
        ("clear of breath", "dB", "breathier", "clearer", attempt => attempt.HarmonicToNoiseDb),
    ];

    /// <summary>The histories of takes of one kind on one thing, oldest first; a measure without two takes is left out.</summary>
    public static IReadOnlyList<MeasureHistory> Of(IReadOnlyList<DatedTake> takes) =>
        [.. Measured.Select(measure => Of(takes, measure)).OfType<MeasureHistory>()];

    private static MeasureHistory? Of(
        IReadOnlyList<DatedTake> takes,
        (string Name, string Unit, string Less, string More, Func<AttemptMeasures, double?> Of) measure
    )
    {
        var points = new List<HistoryPoint>();
        double squares = 0;
        var freedom = 0;
        foreach (var take in takes)
        {
            var values = take.Measures.Spoken.Where(attempt => attempt.IsLevel).Select(measure.Of).OfType<double>().ToList();
            if (values.Count == 0)
                continue;
            points.Add(new HistoryPoint(take.Day, values.Median()));
            if (values.Count < 2)
                continue;
            squares += values.Variance() * (values.Count - 1);
            freedom += values.Count - 1;
        }

        if (points.Count < 2)
            return null;
        var spread = freedom == 0 ? 0 : Math.Sqrt(squares / freedom);
        var newest = Math.Min(Newest, Math.Max(1, points.Count - FewestEarlier));
        var now = points.TakeLast(newest).Select(point => point.Value).Median();
        var earlier = points.SkipLast(newest).Select(point => point.Value).Median();
        var enough = points.Count - newest >= FewestEarlier && freedom > 0;
        var changed = enough && Math.Abs(now - earlier) > spread;
        return new MeasureHistory(
            measure.Name,
            measure.Unit,
            points,
            spread,
            earlier,
            now,
            changed,
            Words(measure, earlier, now, spread, enough, changed)
        );
    }

    private static string Words(
        (string Name, string Unit, string Less, string More, Func<AttemptMeasures, double?> Of) measure,
        double earlier,
        double now,
        double spread,
        bool enough,
        bool changed
    )
    {
        if (!enough)
            return $"Now {now:0.#} {measure.Unit}; more takes will show whether it changes.";
        return changed
            ? $"{earlier:0.#} before, {now:0.#} {measure.Unit} now: {(now < earlier ? measure.Less : measure.More)}, beyond the own "
                + $"spread of {spread:0.0#}."
            : $"{earlier:0.#} before, {now:0.#} {measure.Unit} now: no change beyond the own spread of {spread:0.0#}.";
    }
}
