using Bocca.Core.Instruments;
using Bocca.Core.Music;

namespace Bocca.Web.Drawings;

/// <summary>A drawn rung.</summary>
public sealed record DrawnRung(int Partial, double Y, string Note, string Cents, bool Wanted, string Hint);

/// <summary>The partials of the tube in use as rungs at true pitch height; the one wanted stands out.</summary>
public sealed class RungsDrawing
{
    public const double Width = 300;

    /// <summary>Beside a slide, which takes the lower half of the stage, the ladder is shorter.</summary>
    private const double FullHeight = 460;
    private const double ShortHeight = 290;
    private const double Margin = 18;

    /// <summary>The rungs about a written note, on the way it is played.</summary>
    public RungsDrawing(Instrument instrument, Reading reading, Pitch written, Core.Fingering.Fingering way, Tuning tuning)
    {
        var (tube, partial) = (way.Tube, way.Partial);
        Height = instrument.Slide is null ? FullHeight : ShortHeight;
        // Three rungs above the one wanted and three below tell what the lips could get instead.
        var rungs = Rung.Of(instrument, tube, HarmonicSeries.Highest, tuning).Where(rung => Math.Abs(rung.Partial - partial) <= 3).ToList();
        var shown = rungs.ConvertAll(rung => Math.Log2(rung.Hertz));
        var (low, high) = (shown.Min(), shown.Max());
        double At(double hertz) => Height - Margin - ((Math.Log2(hertz) - low) / (high - low) * (Height - (2 * Margin)));
        Rungs =
        [
            .. rungs.Select(rung => new DrawnRung(
                rung.Partial,
                At(rung.Hertz),
                Frame.Wording.Pitch(rung.Written(reading, written)),
                Frame.Wording.SignedCents(rung.Cents),
                rung.Partial == partial,
                (rung.Partial - partial) switch
                {
                    -1 => "lips slack",
                    1 => "lips tight",
                    _ => "",
                }
            )),
        ];
    }

    public double Height { get; }

    public IReadOnlyList<DrawnRung> Rungs { get; }
}
