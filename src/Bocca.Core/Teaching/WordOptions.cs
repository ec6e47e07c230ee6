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

/// <summary>How beats are counted aloud (<c>count.names</c>).</summary>
public enum TimeNames
{
    /// <summary>Numbers: 1 &amp; 2 &amp;.</summary>
    Numbers,

    /// <summary>French time names: ta, té, fa, fé.</summary>
    French,

    /// <summary>Sol-fa time names: ta, ti.</summary>
    SolFa,
}
