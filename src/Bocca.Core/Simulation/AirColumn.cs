using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Teaching;

namespace Bocca.Core.Simulation;

/// <summary>One resonance of an air column.</summary>
/// <param name="Hertz">Where it lies.</param>
/// <param name="Sharpness">Its quality factor.</param>
/// <param name="Ohm">Its height, pascal seconds per cubic metre.</param>
internal readonly record struct Resonance(double Hertz, double Sharpness, double Ohm);

/// <summary>
/// What the lips blow into, as a sum of resonances: nothing, the mouthpiece alone, or the mouthpiece on a tube whose
/// partials from the second up lie on the harmonic series, the first well below it (published: Campbell, Gilbert and
/// Myers 2021).
/// </summary>
/// <param name="Resonances">The resonances, lowest first; none for the lips alone.</param>
/// <param name="RadiatesFromHz">Below this the outside hears ever less of it: a small or flared mouth radiates high tones best.</param>
internal sealed record AirColumn(IReadOnlyList<Resonance> Resonances, double RadiatesFromHz)
{
    private const double CupSharpness = 3;
    private const double TubeSharpness = 20;
    private const int Partials = 16;

    /// <summary>The first resonance of a brass tube lies about a quarter below its place in the series (from memory).</summary>
    private const double PedalShare = 0.75;

    /// <summary>Width of the hump over the tube's resonances, natural logarithm of frequency (ours).</summary>
    private const double HumpWidth = 0.9;

    /// <summary>What a stage blows into.</summary>
    /// <param name="on">Lips, mouthpiece or instrument.</param>
    /// <param name="instrument">The instrument.</param>
    /// <param name="tube">The tube in use; null for the open one.</param>
    public static AirColumn Of(SoundStage on, Instrument instrument, Tube? tube = null)
    {
        var build = LipBuild.Of(instrument.Family);
        return on switch
        {
            SoundStage.Lips => new AirColumn([], 2 * build.FirstHz),
            SoundStage.Mouthpiece => new AirColumn([new Resonance(build.CupHz, CupSharpness, build.CupOhm)], 2 * build.FirstHz),
            _ => OfTube(build, instrument.Frequency(tube ?? instrument.Tubes[0], 1, Tuning.Built)),
        };
    }

    /// <summary>The same column with every resonance moved by a ratio.</summary>
    public AirColumn Scaled(double ratio) =>
        this with
        {
            Resonances = [.. Resonances.Select(resonance => resonance with { Hertz = resonance.Hertz * ratio })],
        };

    private static AirColumn OfTube(LipBuild build, double partialOne)
    {
        Resonance Partial(int number)
        {
            var hertz = partialOne * (number == 1 ? PedalShare : number);
            var octaves = Math.Log(hertz / build.TubePeakHz) / HumpWidth;
            return new Resonance(hertz, TubeSharpness, build.TubeOhm * Math.Exp(-0.5 * octaves * octaves));
        }

        return new AirColumn([.. Enumerable.Range(1, Partials).Select(Partial)], 4 * build.FirstHz);
    }
}
