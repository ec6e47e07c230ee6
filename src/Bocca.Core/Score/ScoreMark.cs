namespace Bocca.Core.Score;

/// <summary>What a sign over or under the staff says.</summary>
public enum MarkKind
{
    /// <summary>A tempo: <see cref="ScoreMark.Value"/> quarters a minute; the text is what stands beside it.</summary>
    Tempo,

    /// <summary>A level, such as <c>mf</c>.</summary>
    Dynamic,

    /// <summary>A hairpin that opens begins.</summary>
    Crescendo,

    /// <summary>A hairpin that closes begins.</summary>
    Diminuendo,

    /// <summary>A hairpin ends.</summary>
    HairpinEnd,

    /// <summary>Words.</summary>
    Words,

    /// <summary>A chord symbol, such as <c>Bb7</c>.</summary>
    Chord,

    /// <summary>A letter or figure in a box.</summary>
    Rehearsal,

    /// <summary>The sign to which <see cref="DalSegno"/> leads.</summary>
    Segno,

    /// <summary>The coda begins.</summary>
    Coda,

    /// <summary>From here to the coda, when it is played the last time.</summary>
    ToCoda,

    /// <summary>From here to the beginning.</summary>
    DaCapo,

    /// <summary>From here to the sign.</summary>
    DalSegno,

    /// <summary>Here it ends, when it is played the last time.</summary>
    Fine,
}

/// <summary>A sign over or under the staff.</summary>
/// <param name="At">Where, quarters after its measure begins.</param>
/// <param name="Kind">What it says.</param>
/// <param name="Text">What is written; empty for nothing.</param>
/// <param name="Value">Quarters a minute of a tempo; 0 otherwise.</param>
public sealed record ScoreMark(Rational At, MarkKind Kind, string Text = "", double Value = 0);
