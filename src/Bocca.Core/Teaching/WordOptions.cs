namespace Bocca.Core.Teaching;

/// <summary>Names of notes (<c>words.notes</c>).</summary>
public enum NoteNames
{
    /// <summary>Letters, C to B.</summary>
    Letters,

    /// <summary>German: H for B, B for B flat.</summary>
    German,

    /// <summary>Do is C.</summary>
    FixedDo,

    /// <summary>Do is the concert B flat as read.</summary>
    MovableDo,
}

/// <summary>Names of note values (<c>words.values</c>).</summary>
public enum NoteValueNames
{
    /// <summary>Whole, half, quarter, eighth, sixteenth.</summary>
    Fractions,

    /// <summary>Semibreve, minim, crotchet, quaver, semiquaver.</summary>
    British,
}
