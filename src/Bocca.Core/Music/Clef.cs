namespace Bocca.Core.Music;

/// <summary>The clef a part is written in.</summary>
public enum Clef
{
    /// <summary>G clef on the second line.</summary>
    Treble,

    /// <summary>F clef on the fourth line.</summary>
    Bass,

    /// <summary>C clef on the fourth line.</summary>
    Tenor,
}
