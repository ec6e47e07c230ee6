namespace Bocca.Core.Instruments;

/// <summary>The whole tube that a setting leaves in use.</summary>
/// <param name="Setting">What the hand does.</param>
/// <param name="Semitones">Semitones by which it lowers the open instrument; negative on a horn's thumb side.</param>
/// <param name="LengthRatio">Length of the tube in use over that of the open instrument.</param>
/// <param name="CentsSharp">
/// Cents by which the real length lies above the semitones named (computed:
/// 100 x semitones - 1200 log2 ratio). Always 0 on a slide, which can stand anywhere.
/// </param>
/// <param name="SlideOutCm">Centimetres the slide stands out of its closed position; 0 without a slide.</param>
public readonly record struct Tube(Setting Setting, int Semitones, double LengthRatio, double CentsSharp, double SlideOutCm)
{
    /// <summary>Whether a partial of this tube lies near enough to its note to be a way to play it.</summary>
    public bool Gives(int partial) =>
        Math.Abs(CentsSharp + HarmonicSeries.CentsFromEqualTemperament(partial)) <= HarmonicSeries.WithinCents;
}
