using Bocca.Core.Music;
using Bocca.Core.Sound;
using Bocca.Core.Teaching;
using MathNet.Numerics.Statistics;

namespace Bocca.Core.Buzz.Measures;

/// <summary>How far apart the tries of a take are in one respect.</summary>
/// <param name="Item"><c>pitch</c>, <c>start pitch</c>, <c>level</c>, <c>rise</c>, <c>start</c> or <c>brightness</c>.</param>
/// <param name="Spread">Standard deviation over the tries, in <paramref name="Unit"/>.</param>
/// <param name="Band">The spread that still counts as the same.</param>
/// <param name="Unit">The unit of both.</param>
public sealed record SamenessItem(string Item, double Spread, double Band, string Unit);

/// <summary>How alike the tries of a take are.</summary>
/// <param name="Score">100 with no spread at all, 50 at the band of the worst item: 100 / (1 + spread / band).</param>
/// <param name="Items">All items, the worst first.</param>
public sealed record Sameness(double Score, IReadOnlyList<SamenessItem> Items)
{
    /// <summary>The item that is furthest from its band.</summary>
    public SamenessItem Worst => Items[0];
}

/// <summary>What a whole take says.</summary>
public sealed record TakeMeasures
{
    /// <summary>The tries that were asked for, or, without cues, those found.</summary>
    public required IReadOnlyList<AttemptMeasures> Attempts { get; init; }

    /// <summary>Length of the take in seconds.</summary>
    public required double DurationSeconds { get; init; }

    /// <summary>Level of the room, decibels below full scale.</summary>
    public required double RoomDb { get; init; }

    /// <summary>The largest sample of the take, decibels below full scale.</summary>
    public required double PeakDb { get; init; }

    /// <summary>Share of samples cut off at full scale, 0 to 1.</summary>
    public required double ClippedShare { get; init; }

    /// <summary>Seconds of the recording that did not arrive: silence stands in their place.</summary>
    public double MissingSeconds { get; init; }

    /// <summary>How alike the tries are; null for fewer than two that spoke.</summary>
    public Sameness? Sameness { get; init; }

    /// <summary>The tries that count and that spoke.</summary>
    public IEnumerable<AttemptMeasures> Spoken => Asked.Where(attempt => attempt.Spoke);

    /// <summary>The tries that count: what was sung as a model is left out.</summary>
    public IEnumerable<AttemptMeasures> Asked => Attempts.Where(attempt => attempt.Counts);

    /// <summary>Median over the tries that have a measure; null where none has.</summary>
    public double? Median(Func<AttemptMeasures, double?> measure)
    {
        var values = Spoken.Select(measure).OfType<double>().ToList();
        return values.Count == 0 ? null : values.Median();
    }

    /// <summary>Measures a take.</summary>
    /// <param name="sound">The sound.</param>
    /// <param name="track">Its pitch.</param>
    /// <param name="bands">What counts as the same.</param>
    /// <param name="plan">What was asked; null if nobody said.</param>
    /// <param name="cues">When each try was due, seconds into the take; null to take the tries as they come.</param>
    public static TakeMeasures Of(
        MonoSound sound,
        PitchTrack track,
        StageBands bands,
        CuePlan? plan = null,
        IReadOnlyList<double>? cues = null
    )
    {
        var found = AttemptFinder.Find(track, ApartSeconds(plan));
        var measurer = new AttemptMeasurer(sound, track);
        var attempts = cues is { Count: > 0 } ? OnCues(found, cues, sound.Seconds, measurer, plan) : AsTheyCome(found, measurer, plan);
        return new TakeMeasures
        {
            Attempts = attempts,
            DurationSeconds = sound.Seconds,
            RoomDb = AttemptFinder.RoomDb(track),
            PeakDb = 20 * Math.Log10(Math.Max(sound.Peak, 1e-6)),
            ClippedShare = sound.ClippedShare(),
            Sameness = SamenessOf(Alike(attempts), bands),
        };
    }

    /// <summary>How far apart two tones must be to be two tries: half of the shortest rest asked for, where that is short.</summary>
    private static double ApartSeconds(CuePlan? plan) =>
        plan is null
            ? AttemptFinder.SameTrySeconds
            : Math.Min(AttemptFinder.SameTrySeconds, plan.Tries.Min(cue => cue.RestBeats) * plan.BeatSeconds / 2);

    /// <summary>Without cues the first try found is the first asked, as long as there are no more than were asked.</summary>
    private static List<AttemptMeasures> AsTheyCome(IReadOnlyList<Attempt> found, AttemptMeasurer measurer, CuePlan? plan) =>
        [
            .. found.Select(
                (attempt, i) =>
                {
                    var asked = plan is not null && i < plan.Times ? plan.Tries[i] : null;
                    return measurer.Measure(attempt, i + 1, null, asked, asked is null ? plan?.SoundSeconds : plan!.SecondsOf(asked));
                }
            ),
        ];

    /// <summary>A try belongs to the cue it starts at: from half a second before (or half the way from the last cue) on.</summary>
    private static List<AttemptMeasures> OnCues(
        IReadOnlyList<Attempt> found,
        IReadOnlyList<double> cues,
        double seconds,
        AttemptMeasurer measurer,
        CuePlan? plan
    )
    {
        var measured = new List<AttemptMeasures>();
        for (var i = 0; i < cues.Count; i++)
        {
            double Opening(int cue) =>
                cue == 0 ? double.NegativeInfinity
                : cue >= cues.Count ? double.PositiveInfinity
                : cues[cue] - Math.Min(0.5, (cues[cue] - cues[cue - 1]) / 2);
            var asked = plan is not null && i < plan.Times ? plan.Tries[i] : null;
            var parts = found
                .Where(attempt => attempt.StartSeconds >= Opening(i) && attempt.StartSeconds < Opening(i + 1))
                .SelectMany(attempt => attempt.Tones)
                .ToList();
            measured.Add(
                parts.Count > 0
                    ? measurer.Measure(
                        new Attempt(parts),
                        i + 1,
                        cues[i],
                        asked,
                        asked is null ? plan?.SoundSeconds : plan!.SecondsOf(asked)
                    )
                    : measurer.Missing(i + 1, cues[i], Math.Min(seconds, Opening(i + 1)), asked)
            );
        }

        return measured;
    }

    /// <summary>The largest group of tries that were asked to be the same.</summary>
    private static List<AttemptMeasures> Alike(List<AttemptMeasures> attempts) =>
        attempts
            .Where(attempt => attempt is { Spoke: true, Counts: true, IsLevel: true })
            .GroupBy(attempt => (attempt.Asked?.Label, attempt.Asked?.Heights[0], attempt.AskedSeconds))
            .OrderByDescending(group => group.Count())
            .FirstOrDefault()
            ?.ToList()
        ?? [];

    private static Sameness? SamenessOf(List<AttemptMeasures> spoken, StageBands bands)
    {
        var items = new List<SamenessItem>();
        void Add(string item, Func<AttemptMeasures, double?> measure, double band, string unit)
        {
            var values = spoken.Select(measure).OfType<double>().ToList();
            if (values.Count >= 2)
                items.Add(new SamenessItem(item, values.StandardDeviation(), band, unit));
        }

        var middle = spoken.Select(attempt => attempt.MedianHz).OfType<double>().DefaultIfEmpty(1).Median();
        Add("pitch", attempt => attempt.MedianHz is { } hertz ? Tuning.Cents(middle, hertz) : null, bands.SameCents, "cents");
        Add(
            "start pitch",
            attempt => attempt is { MedianHz: { } hertz, ScoopCents: { } scoop } ? Tuning.Cents(middle, hertz) + scoop : null,
            bands.ScoopCents,
            "cents"
        );
        Add("level", attempt => attempt.LevelDb, bands.SameDb, "dB");
        Add("rise", attempt => attempt.RiseMs, bands.SameRiseMs, "ms");
        Add("start", attempt => attempt.OnsetDelayMs, bands.OnsetDelayMs, "ms");
        Add("brightness", attempt => attempt.CentroidOverPitch, bands.SameCentroid, "harmonics");
        if (items.Count == 0)
            return null;
        items.Sort((a, b) => (b.Spread / b.Band).CompareTo(a.Spread / a.Band));
        return new Sameness(100 / (1 + (items[0].Spread / items[0].Band)), items);
    }
}
