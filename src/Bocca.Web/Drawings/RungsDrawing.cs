using Bocca.Core.Instruments;
using Bocca.Core.Music;

namespace Bocca.Web.Drawings;

/// <summary>A drawn rung.</summary>
public sealed record DrawnRung(int Partial, double Y, string Note, double Cents, bool Wanted, string Hint);

/// <summary>The partials of the tube in use as rungs at true pitch height; the one wanted stands out.</summary>
public sealed class RungsDrawing
{
    public const double Width = 300;
    /// <summary>Beside a slide, which takes the lower half of the stage, the ladder is shorter.</summary>
    private const double FullHeight = 460;
    private const double ShortHeight = 290;
    private const double Margin = 18;

    public RungsDrawing(Instrument instrument, Reading reading, Core.Fingering.Fingering way)
    {
        Height = instrument.Slide is null ? FullHeight : ShortHeight;
        // Three rungs above the one wanted and three below tell what the lips could get instead.
        var rungs = Rung.Of(instrument, way.Tube, HarmonicSeries.Highest, Tuning.Standard)
            .Where(rung => Math.Abs(rung.Partial - way.Partial) <= 3).ToList();
        var (low, high) = (Math.Log2(rungs[0].Hertz), Math.Log2(rungs[^1].Hertz));
        Rungs = [.. rungs.Select(rung => new DrawnRung(
            rung.Partial,
            Height - Margin - ((Math.Log2(rung.Hertz) - low) / (high - low) * (Height - (2 * Margin))),
            Frame.Say.Pitch(reading.ToWritten(rung.Nearest)),
            rung.Cents,
            rung.Partial == way.Partial,
            (rung.Partial - way.Partial) switch { -1 => "lips slack", 1 => "lips tight", _ => "" }))];
    }

    public double Height { get; }

    public IReadOnlyList<DrawnRung> Rungs { get; }
}
