using Bocca.Core.Teaching;

namespace Bocca.Core.Buzz.Measures;

/// <summary>One of the bands, as a teacher may set it otherwise.</summary>
/// <param name="Setting">The number.</param>
/// <param name="On">What it holds for.</param>
/// <param name="IsInside">Whether a try lies inside a band, null where it has no such measure; null itself for a band that is held against
/// all tries together.</param>
public sealed record BandSetting(NumberSetting Setting, SoundStage On, Func<AttemptMeasures, double, bool?>? IsInside)
{
    /// <summary>How many of some tries lie inside, of those that have the measure; null for a band that no single try has.</summary>
    /// <param name="tries">The tries.</param>
    /// <param name="own">The settings that hold.</param>
    public (int Inside, int Of)? Inside(IEnumerable<AttemptMeasures> tries, OwnSettings own)
    {
        if (IsInside is null)
            return null;
        var inside = tries.Select(attempt => IsInside(attempt, Setting.In(own))).OfType<bool>().ToList();
        return (inside.Count(each => each), inside.Count);
    }
}

/// <summary>All bands that a teacher may set otherwise, in words.</summary>
public static class BandSettings
{
    /// <summary>A band may be so many times tighter or wider than it ships (ours).</summary>
    private const double Factor = 4;

    /// <summary>The bands, by what they hold for.</summary>
    public static IReadOnlyList<BandSetting> All { get; } =
    [
        .. Of("lips", "lips alone", SoundStage.Lips, BandTable.Shipped.Lips),
        .. Of("mouthpiece", "mouthpiece", SoundStage.Mouthpiece, BandTable.Shipped.Mouthpiece),
        .. Of("firstNotes", "instrument, first notes", SoundStage.Instrument, BandTable.Shipped.FirstNotes),
        .. Of("second", "instrument, later", SoundStage.Instrument, BandTable.Shipped.Second),
    ];

    private static IEnumerable<BandSetting> Of(string stage, string group, SoundStage on, StageBands shipped)
    {
        BandSetting Band(
            string id,
            string name,
            string unit,
            string means,
            double value,
            Func<AttemptMeasures, double?>? measured = null,
            double? most = null
        ) =>
            new(
                new NumberSetting(
                    $"{BandTable.Path}.{stage}.{id}",
                    group,
                    name,
                    unit,
                    means,
                    value,
                    value / Factor,
                    most ?? Math.Max(1, Factor * value),
                    id == "breaks"
                ),
                on,
                measured is null ? null : (attempt, band) => measured(attempt) is { } value ? value <= band : null
            );
        yield return Band("holdSeconds", "hold", "s", "held so long, or nearly as long as asked", shipped.HoldSeconds) with
        {
            IsInside = SymptomFinder.IsHeld,
        };
        yield return Band("steadyCents", "gate", "cents", "steadiness, at most", shipped.SteadyCents, each => each.SteadinessCents);
        yield return Band(
            "driftCentsPerSecond",
            "drift of the pitch",
            "cents a second",
            "either way, at most",
            shipped.DriftCentsPerSecond,
            each => Math.Abs(each.DriftCentsPerSecond ?? double.NaN) is var drift && double.IsNaN(drift) ? null : drift
        );
        yield return Band("driftDbPerSecond", "drift of the level", "dB a second", "fading, at most", shipped.DriftDbPerSecond);
        yield return Band("wobbleCents", "wobble", "cents", "a regular swing, at most", shipped.WobbleCents, each => each.WobbleCents);
        yield return Band("onsetDelayMs", "start", "ms", "after the beat, at most", shipped.OnsetDelayMs, each => each.OnsetDelayMs);
        yield return Band(
            "airBeforeToneMs",
            "air first",
            "ms",
            "before the tone, at most",
            shipped.AirBeforeToneMs,
            each => each.AirBeforeToneMs
        );
        yield return Band("riseMs", "rise", "ms", "of a start without the tongue, at most", shipped.RiseMs, each => each.RiseMs);
        yield return Band("tonguedRiseMs", "tongued rise", "ms", "of a start with the tongue, at most", shipped.TonguedRiseMs);
        yield return Band(
            "scoopCents",
            "scoop",
            "cents",
            "from below, at most",
            shipped.ScoopCents,
            each => each.ScoopCents is { } scoop ? Math.Max(0, -scoop) : null
        );
        yield return Band("breaks", "breaks", "", "in a try, at most", shipped.Breaks, each => each.Breaks, most: 5);
        yield return Band("breathinessDb", "air in the tone", "dB", "below the pupil's own usual, at most", shipped.BreathinessDb);
        yield return Band("pitchCents", "a model's pitch", "cents", "off it, at most", shipped.PitchCents);
        yield return Band("sameCents", "alike in pitch", "cents", "spread over the tries", shipped.SameCents);
        yield return Band("sameDb", "alike in level", "dB", "spread over the tries", shipped.SameDb);
        yield return Band("dutyShare", "joined", "", "share that sounds between joined notes, at least", shipped.DutyShare, most: 1);
        yield return Band("closedShare", "closed endings", "", "share that the tongue may close", shipped.ClosedShare, most: 1);
    }
}
