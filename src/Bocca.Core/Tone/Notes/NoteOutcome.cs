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
