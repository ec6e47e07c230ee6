using Bocca.Core.Fingering;
using Bocca.Core.Instruments;

namespace Bocca.Core.Tone.Notes;

/// <summary>What came of a note that was meant.</summary>
public enum NoteOutcome
{
    /// <summary>It came.</summary>
    Right,

    /// <summary>A lower partial of the same tube.</summary>
    PartialLow,

    /// <summary>A higher partial of the same tube.</summary>
    PartialHigh,

    /// <summary>The right partial on another tube.</summary>
    OtherSetting,

    /// <summary>The right partial with the slide out or in.</summary>
    SlideOff,

    /// <summary>The note before, once more.</summary>
    PreviousNote,

    /// <summary>An octave or two away, and no partial of the tube.</summary>
    Octave,

    /// <summary>Air without a tone.</summary>
    AirOnly,

    /// <summary>Nothing.</summary>
    NoTone,

    /// <summary>A sound that settles on no pitch, or flips between two partials.</summary>
    NoClearTone,

    /// <summary>Two things that sound alike and are both likely.</summary>
    TwoReadings,

    /// <summary>The recording does not say.</summary>
    CannotTell,
}

/// <summary>One way a sound can have come about: a setting and a partial.</summary>
/// <param name="Outcome">What it would be.</param>
/// <param name="Setting">The setting of the hand.</param>
/// <param name="Partial">The partial that sounded.</param>
/// <param name="By">Partials above the one meant; negative below, 0 for the right one.</param>
/// <param name="OffCents">Cents from where that partial of that tube lies to what was heard.</param>
/// <param name="Probability">How likely it is among the ways considered, 0 to 1.</param>
public sealed record NoteReading(NoteOutcome Outcome, Setting Setting, int Partial, int By, double OffCents, double Probability);

/// <summary>What was heard of one note, held against what was meant.</summary>
public sealed record JudgedNote
{
    /// <summary>What was meant.</summary>
    public required MeantNote Meant { get; init; }

    /// <summary>What came of it.</summary>
    public required NoteOutcome Outcome { get; init; }

    /// <summary>The pitch heard, hertz; null where no tone was.</summary>
    public double? HeardHz { get; init; }

    /// <summary>The written note nearest to what was heard, in equal temperament; null where no tone was.</summary>
    public Music.Pitch? HeardWritten { get; init; }

    /// <summary>Cents above <see cref="HeardWritten"/>, or above the note meant where that came or the slide was off.</summary>
    public double? Cents { get; init; }

    /// <summary>The partial heard; null where it cannot be said.</summary>
    public int? Partial { get; init; }

    /// <summary>Partials above the one meant; negative below.</summary>
    public int By { get; init; }

    /// <summary>Centimetres to move the slide; outwards positive. Null where the slide is not the matter.</summary>
    public double? Cm { get; init; }

    /// <summary>What the hand can do about it; null where it can do nothing or nothing is the matter.</summary>
    public Correction? Remedy { get; init; }

    /// <summary>The setting that was heard instead; null where the one meant fits.</summary>
    public Setting? OtherSetting { get; init; }

    /// <summary>Whether it is the note before once more, beside what it else is.</summary>
    public bool IsPrevious { get; init; }

    /// <summary>Every way considered, the likeliest first.</summary>
    public IReadOnlyList<NoteReading> Readings { get; init; } = [];

    /// <summary>What was heard against what was meant, in one sentence.</summary>
    public required string Sentence { get; init; }
}
