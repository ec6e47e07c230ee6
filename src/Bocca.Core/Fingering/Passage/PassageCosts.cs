namespace Bocca.Core.Fingering.Passage;

/// <summary>
/// What makes one way through a line better than another, in the points of <see cref="FingeringWeights"/>; fewer is better. Ours and
/// editable: they are data (<c>passage-costs.json</c>).
/// </summary>
public sealed record PassageCosts
{
    private static readonly Lazy<PassageCosts> Loaded = new(() => EmbeddedData.Read<PassageCosts>("passage-costs.json"));

    /// <summary>The costs that ship.</summary>
    public static PassageCosts Shipped => Loaded.Value;

    /// <summary>Seconds of a note on which the tuning counts as it does on the chart; shorter ones in proportion.</summary>
    public required double SecondsOfFullTuning { get; init; }

    /// <summary>The least and the most that tuning counts, times the chart's.</summary>
    public required double LeastTuning { get; init; }

    /// <inheritdoc cref="LeastTuning"/>
    public required double MostTuning { get; init; }

    /// <summary>How much more it counts on a note that stands out, times.</summary>
    public required double ExposedTuning { get; init; }

    /// <summary>Points for each finger that moves, where there is a second for it; in half of that twice as many.</summary>
    public required double PerFinger { get; init; }

    /// <summary>Points for each two neighbouring fingers of which one goes down and the other up, at a second.</summary>
    public required double PerContraryPair { get; init; }

    /// <summary>Points for a thumb or trigger that moves, at a second.</summary>
    public required double PerThumb { get; init; }

    /// <summary>The shortest time between two notes that makes a change harder, s: grace notes apart, nothing is quicker.</summary>
    public required double QuickestChange { get; init; }

    /// <summary>Points for each second by which this pupil's own change is slower than the pupil's usual one.</summary>
    public required double PerOwnSlowSecond { get; init; }

    /// <summary>Points for another setting on a note that is only played again.</summary>
    public required double SettingOnOneNote { get; init; }

    /// <summary>Points for each centimetre of slide, at a second.</summary>
    public required double PerSlideCm { get; init; }

    /// <summary>Share of the time between two notes in which the slide moves.</summary>
    public required double SlideShareOfTime { get; init; }

    /// <summary>How fast a slide is moved without strain, cm/s.</summary>
    public required double SlideLimitCmPerSecond { get; init; }

    /// <summary>Points for a slide that has to go twice as fast as that; grows with the square.</summary>
    public required double PerSlideOverLimit { get; init; }

    /// <summary>Points for a turn of the slide, at a second.</summary>
    public required double PerTurn { get; init; }

    /// <summary>Points for a slide moved within a slur on one partial, where a soft tongue must hide the smear.</summary>
    public required double Smear { get; init; }

    /// <summary>Points more for each centimetre of it.</summary>
    public required double PerSmearCm { get; init; }

    /// <summary>Points for the other side of a double horn near its line; further off, the chart's.</summary>
    public required double OtherSideNearTheLine { get; init; }

    /// <summary>How near that is, semitones.</summary>
    public required int NearTheLineSemitones { get; init; }

    /// <summary>Points for valve 3 alone where the approach takes it as the equal of 1-2.</summary>
    public required double ThirdAsEqual { get; init; }

    /// <summary>Points more for partials 7, 11, 13 and 14 on valves: no chart has them, for nothing but the lips mends them.</summary>
    public required double NaturalPartial { get; init; }

    /// <summary>Points for a passage that returns and is fingered otherwise.</summary>
    public required double PerDeviatingRepeat { get; init; }

    /// <summary>Two ways that lie no further apart are both shown, points.</summary>
    public required double Whisker { get; init; }
}
