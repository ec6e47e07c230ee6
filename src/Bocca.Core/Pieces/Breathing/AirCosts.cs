namespace Bocca.Core.Pieces.Breathing;

/// <summary>What notes spend of a breath and what a place to breathe costs; data (<c>piece-breaths.json</c>), ours and editable.</summary>
public sealed record AirCosts
{
    private static readonly Lazy<AirCosts> Loaded = new(() => EmbeddedData.Read<AirCosts>("piece-breaths.json"));

    /// <summary>The costs that ship.</summary>
    public static AirCosts Shipped => Loaded.Value;

    /// <summary>How much air a level spends, times a medium one.</summary>
    public required IReadOnlyDictionary<string, double> Levels { get; init; }

    /// <summary>How much air notes below the open second partial spend, times the middle register.</summary>
    public required double BelowSecondPartial { get; init; }

    /// <summary>The quickest full breath of a pupil of whom none is known, s.</summary>
    public required double QuickestSeconds { get; init; }

    /// <summary>What is shorter is no breath at all, s.</summary>
    public required double LeastSeconds { get; init; }

    /// <summary>How long it takes to let a full breath of old air go, s.</summary>
    public required double EmptySeconds { get; init; }

    /// <summary>Points of a breath where a section ends.</summary>
    public required double SectionEnd { get; init; }

    /// <summary>
    /// Points of a printed comma: where commas are skipped if able; where only rests are breathed in; where they are welcome.
    /// </summary>
    public required double CommaSkipped { get; init; }

    /// <inheritdoc cref="CommaSkipped"/>
    public required double CommaNever { get; init; }

    /// <inheritdoc cref="CommaSkipped"/>
    public required double CommaAlways { get; init; }

    /// <summary>Points of the end of a phrase.</summary>
    public required double PhraseEnd { get; init; }

    /// <summary>Points of the end of a long note.</summary>
    public required double LongNote { get; init; }

    /// <summary>From how many beats on a note is long.</summary>
    public required double LongNoteBeats { get; init; }

    /// <summary>Points of any other place.</summary>
    public required double AnyNote { get; init; }

    /// <summary>Points of a short note left out.</summary>
    public required double Drop { get; init; }

    /// <summary>Points of a note that is lost whole; of a part of it in proportion.</summary>
    public required double PerShareLost { get; init; }

    /// <summary>Points of a breath that has no time at all; of one that has nearly enough in proportion.</summary>
    public required double Hurried { get; init; }

    /// <summary>Points where what comes next does not begin on a beat.</summary>
    public required double OffTheBeat { get; init; }

    /// <summary>Points where what comes next does not begin a bar.</summary>
    public required double InsideTheBar { get; init; }

    /// <summary>Points of a breath used up to its end; none below <see cref="ThinFrom"/>, in between by the square.</summary>
    public required double ThinSpare { get; init; }

    /// <summary>The share of a breath from which on its end is felt.</summary>
    public required double ThinFrom { get; init; }

    /// <summary>Points of a breath within a high passage.</summary>
    public required double InHighPassage { get; init; }

    /// <summary>Points for no breath before a high passage, where the teacher wants one there.</summary>
    public required double HighSkipped { get; init; }

    /// <summary>High is what lies above this share of the line's range.</summary>
    public required double HighShare { get; init; }

    /// <summary>Before a leap of so many semitones up no breath is taken but in a rest or at a comma.</summary>
    public required int LeapUpSemitones { get; init; }

    /// <summary>Points of a breath that is asked for where there is no place for one.</summary>
    public required double AskedWhereNone { get; init; }

    /// <summary>Points for each passage that returns and is breathed otherwise.</summary>
    public required double PerDeviatingReturn { get; init; }
}
