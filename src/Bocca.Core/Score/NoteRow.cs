using Bocca.Core.Music;

namespace Bocca.Core.Score;

/// <summary>Notes in a row on one staff, without metre: what a pupil is shown to read.</summary>
/// <param name="Clef">The clef.</param>
/// <param name="Written">The notes as written, in order.</param>
public sealed record NoteRow(Clef Clef, IReadOnlyList<Pitch> Written)
{
    /// <summary>A row as a reading has it, which sounds at concert pitch when it is played back.</summary>
    public NoteRow(Reading reading, IReadOnlyList<Pitch> written)
        : this(reading.Clef, written) => ToSounding = reading.WrittenAboveSounding.Inverse;

    /// <summary>The interval from a written note to the one that sounds.</summary>
    public Interval ToSounding { get; init; }

    /// <summary>Sharps (positive) or flats of its key signature, -7 to 7; 0 for none.</summary>
    public int Fifths { get; init; }

    /// <summary>A text under each note, such as its fingering; empty for none.</summary>
    public IReadOnlyList<string> Under { get; init; } = [];

    /// <summary>Which notes, by their place from 0, are left out: a rest stands there.</summary>
    public IReadOnlySet<int> Rests { get; init; } = new HashSet<int>();

    /// <summary>The name of the part; empty for none.</summary>
    public string Part { get; init; } = "";

    /// <summary>How many notes stand in a line before the staff breaks; 0 for one line.</summary>
    public int NotesInLine { get; init; }
}
