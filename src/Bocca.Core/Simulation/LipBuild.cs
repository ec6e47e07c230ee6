namespace Bocca.Core.Simulation;

/// <summary>The lips and the air column of a family of instruments, as the lip model needs them (<c>lips.json</c>).</summary>
/// <param name="Family">The instruments.</param>
/// <param name="FirstHz">The pitch that the mass of these lips is given for: a beginner's first, hertz.</param>
/// <param name="RestMm">Height of the opening at rest, mm.</param>
/// <param name="WidthMm">Width of the opening, mm.</param>
/// <param name="CupHz">Resonance of the mouthpiece alone, hertz.</param>
/// <param name="CupOhm">Height of that resonance, pascal seconds per cubic metre.</param>
/// <param name="TubePeakHz">Where the resonances of the whole instrument stand highest, hertz.</param>
/// <param name="TubeOhm">Their height there.</param>
/// <param name="Basis">Where the numbers come from.</param>
internal sealed record LipBuild(
    string Family,
    double FirstHz,
    double RestMm,
    double WidthMm,
    double CupHz,
    double CupOhm,
    double TubePeakHz,
    double TubeOhm,
    string Basis
)
{
    private static readonly Lazy<IReadOnlyList<LipBuild>> Shipped = new(() => EmbeddedData.Read<List<LipBuild>>("lips.json"));

    /// <summary>The lips of a family's players.</summary>
    public static LipBuild Of(string family) => Shipped.Value.First(build => build.Family == family);
}
