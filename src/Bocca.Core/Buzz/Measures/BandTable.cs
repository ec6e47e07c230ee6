using Bocca.Core.Teaching;

namespace Bocca.Core.Buzz.Measures;

/// <summary>
/// What is good enough at each stage: the bands that ship (<c>bands.json</c>), or a teacher's own. It does not change: who is judged by
/// one is judged by it to the end.
/// </summary>
/// <param name="Lips">On the lips alone.</param>
/// <param name="Mouthpiece">On the mouthpiece.</param>
/// <param name="FirstNotes">On the instrument, while first notes are learnt.</param>
/// <param name="Second">On the instrument, later.</param>
public sealed record BandTable(StageBands Lips, StageBands Mouthpiece, StageBands FirstNotes, StageBands Second)
{
    private static readonly Lazy<BandTable> Read = new(() => EmbeddedData.Read<BandTable>("bands.json"));

    /// <summary>The bands that ship.</summary>
    public static BandTable Shipped => Read.Value;

    /// <summary>The path of the bands among a teacher's own settings.</summary>
    internal const string Path = "bands";

    /// <summary>The same bands with a teacher's own numbers.</summary>
    public BandTable With(OwnSettings own) => BandSettings.Of(this, own);

    /// <summary>The same bands wider, and half as long: for lips or teeth that ask for care.</summary>
    public BandTable Wider => new(Lips.Wider, Mouthpiece.Wider, FirstNotes.Wider, Second.Wider);

    /// <summary>
    /// The bands for a sound made on something by a pupil of a stage: lips and mouthpiece have their own, the instrument the pupil's.
    /// </summary>
    public StageBands For(SoundStage on, LearningStage pupil) =>
        on switch
        {
            SoundStage.Lips => Lips,
            SoundStage.Mouthpiece => Mouthpiece,
            _ => pupil >= LearningStage.Second ? Second : FirstNotes,
        };
}
