using Bocca.Core.Music;

namespace Bocca.Core.Score;

/// <summary>A note or a rest of a part.</summary>
/// <param name="Written">What is read; null for a rest.</param>
/// <param name="Ticks">How long it lasts; <see cref="MusicScore.TicksPerQuarter"/> a quarter.</param>
public sealed record ScoreNote(Pitch? Written, int Ticks)
{
    /// <summary>Whether a slur begins on it.</summary>
    public bool SlurBegins { get; init; }

    /// <summary>Whether a slur ends on it.</summary>
    public bool SlurEnds { get; init; }

    /// <summary>Whether it is tied to the next, which has the same pitch and is not begun anew.</summary>
    public bool TiedToNext { get; init; }

    /// <summary>Whether a breath is taken after it.</summary>
    public bool BreathAfter { get; init; }

    /// <summary>Texts under it, the upper line first, such as a fingering and a vowel; an empty one is left out.</summary>
    public IReadOnlyList<string> Lines { get; init; } = [];
}

/// <summary>A measure; it lasts as long as its notes together.</summary>
/// <param name="Notes">Its notes in order.</param>
/// <param name="NewLine">Whether it begins a line.</param>
public sealed record ScoreMeasure(IReadOnlyList<ScoreNote> Notes, bool NewLine = false)
{
    /// <summary>Its length.</summary>
    public int Ticks => Notes.Sum(note => note.Ticks);
}

/// <summary>A part with one line of notes.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Clef">Its clef.</param>
/// <param name="ToSounding">The interval from what is read to what sounds.</param>
/// <param name="Measures">Its measures.</param>
public sealed record ScorePart(string Name, Clef Clef, Interval ToSounding, IReadOnlyList<ScoreMeasure> Measures)
{
    /// <summary>Sharps of its key, flats negative, -7 to 7.</summary>
    public int Fifths { get; init; }

    /// <summary>The voice it has where it is played back, 0 to 127 as General MIDI numbers them (published: MIDI Association).</summary>
    public int Program { get; init; } = 56;
}

/// <summary>A score.</summary>
/// <param name="Title">Its title; empty for none.</param>
/// <param name="Tempo">Quarters a minute.</param>
/// <param name="Parts">Its parts from the top.</param>
public sealed record MusicScore(string Title, double Tempo, IReadOnlyList<ScorePart> Parts)
{
    /// <summary>Whether the tempo is printed.</summary>
    public bool ShowsTempo { get; init; } = true;

    /// <summary>Ticks of a quarter: divides into 32nds and triplets without a rest.</summary>
    public const int TicksPerQuarter = 480;
}
