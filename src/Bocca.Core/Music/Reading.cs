namespace Bocca.Core.Music;

/// <summary>
/// How a player of an instrument reads: the clef, and how far the written note lies above the sounding one.
/// A B-flat trumpet in treble clef reads a major second above what sounds.
/// </summary>
/// <param name="Id">The name used on the command line: <c>treble</c>, <c>bass</c>, <c>tenor</c>, <c>treble-bb</c>, <c>treble-eb</c>; on
/// horns <c>bass-new</c>, a fifth above what sounds, and <c>bass-old</c>, a fourth below it (common practice).</param>
/// <param name="Clef">The clef of the part.</param>
/// <param name="WrittenAboveSounding">Interval from the sounding pitch up to the written one.</param>
public sealed record Reading(string Id, Clef Clef, Interval WrittenAboveSounding)
{
    /// <summary>The concert pitch that sounds when a written pitch is played.</summary>
    public Pitch ToSounding(Pitch written) => written.Transpose(WrittenAboveSounding.Inverse);

    /// <summary>The note to write so that a concert pitch sounds.</summary>
    public Pitch ToWritten(Pitch sounding) => sounding.Transpose(WrittenAboveSounding);
}
