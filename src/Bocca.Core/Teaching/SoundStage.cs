namespace Bocca.Core.Teaching;

/// <summary>What a sound is made on.</summary>
public enum SoundStage
{
    /// <summary>The lips alone.</summary>
    Lips,

    /// <summary>The mouthpiece alone.</summary>
    Mouthpiece,

    /// <summary>The whole instrument.</summary>
    Instrument,
}
