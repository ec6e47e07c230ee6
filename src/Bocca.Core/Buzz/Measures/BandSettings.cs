using Bocca.Core.Teaching;

namespace Bocca.Core.Buzz.Measures;

/// <summary>One of the bands, as a teacher may set it otherwise.</summary>
/// <param name="Number">The number, in the bands of its stage.</param>
/// <param name="On">What it holds for.</param>
/// <param name="IsInside">Whether a try lies inside a band, null where it has no such measure; null itself for a band that is held against
/// all tries together.</param>
public sealed record BandSetting(NumberIn<StageBands> Number, SoundStage On, Func<AttemptMeasures, double, bool?>? IsInside)
{
    /// <summary>The number itself.</summary>
    public NumberSetting Setting => Number.Setting;

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

    private static readonly IReadOnlyList<BandSetting> Lips = [.. Of("lips", "lips alone", SoundStage.Lips, BandTable.Shipped.Lips)],
        Mouthpiece = [.. Of("mouthpiece", "mouthpiece", SoundStage.Mouthpiece, BandTable.Shipped.Mouthpiece)],
        FirstNotes = [.. Of("firstNotes", "instrument, first notes", SoundStage.Instrument, BandTable.Shipped.FirstNotes)],
        Second = [.. Of("second", "instrument, later", SoundStage.Instrument, BandTable.Shipped.Second)];

    /// <summary>The bands, by what they hold for.</summary>
    public static IReadOnlyList<BandSetting> All { get; } = [.. Lips, .. Mouthpiece, .. FirstNotes, .. Second];

    /// <summary>Bands with a teacher's own numbers.</summary>
    public static BandTable Of(BandTable table, OwnSettings own) =>
        new(
            In(table.Lips, Lips, own),
            In(table.Mouthpiece, Mouthpiece, own),
            In(table.FirstNotes, FirstNotes, own),
            In(table.Second, Second, own)
        );

    private static StageBands In(StageBands bands, IReadOnlyList<BandSetting> settings, OwnSettings own) =>
        own.In(bands, settings.Select(band => band.Number));

    private static IEnumerable<BandSetting> Of(string stage, string group, SoundStage on, StageBands shipped)
    {
        BandSetting Band(
            string id,
            string name,
            string unit,
            string means,
            double value,
            Func<StageBands, double, StageBands> put,
            Func<AttemptMeasures, double?>? measured = null,
            double? most = null
        ) =>
            new(
                new NumberIn<StageBands>(
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
                    put
                ),
                on,
                measured is null ? null : (attempt, band) => measured(attempt) is { } value ? value <= band : null
            );
        yield return Band(
            "holdSeconds",
            "hold",
            "s",
            "held so long, or nearly as long as asked",
            shipped.HoldSeconds,
            (bands, value) => bands with { HoldSeconds = value }
        ) with
        {
            IsInside = SymptomFinder.IsHeld,
        };
        yield return Band(
            "steadyCents",
            "gate",
            "cents",
            "steadiness, at most",
            shipped.SteadyCents,
            (bands, value) => bands with { SteadyCents = value },
            each => each.SteadinessCents
        );
        yield return Band(
            "driftCentsPerSecond",
            "drift of the pitch",
            "cents a second",
            "either way, at most",
            shipped.DriftCentsPerSecond,
            (bands, value) => bands with { DriftCentsPerSecond = value },
            each => Math.Abs(each.DriftCentsPerSecond ?? double.NaN) is var drift && double.IsNaN(drift) ? null : drift
        );
        yield return Band(
            "driftDbPerSecond",
            "drift of the level",
            "dB a second",
            "fading, at most",
            shipped.DriftDbPerSecond,
            (bands, value) => bands with { DriftDbPerSecond = value }
        );
        yield return Band(
            "wobbleCents",
            "wobble",
            "cents",
            "a regular swing, at most",
            shipped.WobbleCents,
            (bands, value) => bands with { WobbleCents = value },
            each => each.WobbleCents
        );
        yield return Band(
            "onsetDelayMs",
            "start",
            "ms",
            "after the beat, at most",
            shipped.OnsetDelayMs,
            (bands, value) => bands with { OnsetDelayMs = value },
            each => each.OnsetDelayMs
        );
        yield return Band(
            "airBeforeToneMs",
            "air first",
            "ms",
            "before the tone, at most",
            shipped.AirBeforeToneMs,
            (bands, value) => bands with { AirBeforeToneMs = value },
            each => each.AirBeforeToneMs
        );
        yield return Band(
            "riseMs",
            "rise",
            "ms",
            "of a start without the tongue, at most",
            shipped.RiseMs,
            (bands, value) => bands with { RiseMs = value },
            each => each.RiseMs
        );
        yield return Band(
            "tonguedRiseMs",
            "tongued rise",
            "ms",
            "of a start with the tongue, at most",
            shipped.TonguedRiseMs,
            (bands, value) => bands with { TonguedRiseMs = value }
        );
        yield return Band(
            "scoopCents",
            "scoop",
            "cents",
            "from below, at most",
            shipped.ScoopCents,
            (bands, value) => bands with { ScoopCents = value },
            each => each.ScoopCents is { } scoop ? Math.Max(0, -scoop) : null
        );
        yield return Band(
            "breaks",
            "breaks",
            "",
            "in a try, at most",
            shipped.Breaks,
            (bands, value) => bands with { Breaks = (int)Math.Round(value) },
            each => each.Breaks,
            most: 5
        );
        yield return Band(
            "breathinessDb",
            "air in the tone",
            "dB",
            "below the pupil's own usual, at most",
            shipped.BreathinessDb,
            (bands, value) => bands with { BreathinessDb = value }
        );
        yield return Band(
            "pitchCents",
            "a model's pitch",
            "cents",
            "off it, at most",
            shipped.PitchCents,
            (bands, value) => bands with { PitchCents = value }
        );
        yield return Band(
            "sameCents",
            "alike in pitch",
            "cents",
            "spread over the tries",
            shipped.SameCents,
            (bands, value) => bands with { SameCents = value }
        );
        yield return Band(
            "sameDb",
            "alike in level",
            "dB",
            "spread over the tries",
            shipped.SameDb,
            (bands, value) => bands with { SameDb = value }
        );
        yield return Band(
            "dutyShare",
            "joined",
            "",
            "share that sounds between joined notes, at least",
            shipped.DutyShare,
            (bands, value) => bands with { DutyShare = value },
            most: 1
        );
        yield return Band(
            "closedShare",
            "closed endings",
            "",
            "share that the tongue may close",
            shipped.ClosedShare,
            (bands, value) => bands with { ClosedShare = value },
            most: 1
        );
    }
}
