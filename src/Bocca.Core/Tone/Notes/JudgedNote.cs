using Bocca.Core.Fingering;
using Bocca.Core.Instruments;
using Bocca.Core.Music;

namespace Bocca.Core.Tone.Notes;

/// <summary>What was heard of one note, held against what was meant.</summary>
public sealed record JudgedNote
{
    /// <summary>What was meant.</summary>
    public required MeantNote Meant { get; init; }

    /// <summary>What came of it.</summary>
    public required NoteOutcome Outcome { get; init; }

    /// <summary>The pitch heard, hertz; null where no tone was.</summary>
    public double? HeardHz { get; init; }

    /// <summary>
    /// The written note heard: the one that the setting and partial recognised stand for in charts, else the nearest in equal temperament;
    /// null where no tone was.
    /// </summary>
    public Pitch? HeardWritten { get; init; }

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
