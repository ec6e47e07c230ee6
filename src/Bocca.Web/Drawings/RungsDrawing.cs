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

    /// <summary>The rungs about a note, on the way it is played.</summary>
    public RungsDrawing(Instrument instrument, Reading reading, Core.Fingering.Fingering way, Tuning tuning)
        : this(instrument, reading, way.Tube, way.Partial, null, instrument.Slide is null ? FullHeight : ShortHeight, tuning) { }

    /// <summary>The rungs about a note that was meant, with what was heard at its height.</summary>
    public RungsDrawing(Instrument instrument, Reading reading, Tube tube, int partial, double? heardHz, double height, Tuning tuning)
    {
        Height = height;
        // Three rungs above the one wanted and three below tell what the lips could get instead.
        var rungs = Rung.Of(instrument, tube, HarmonicSeries.Highest, tuning)
            .Where(rung =>
                Math.Abs(rung.Partial - partial) <= 3 || (heardHz is { } hertz && Math.Abs(Tuning.Cents(rung.Hertz, hertz)) < 250)
            )
            .ToList();
        var shown = rungs.Select(rung => Math.Log2(rung.Hertz)).Concat(heardHz is { } also ? [Math.Log2(also)] : []).ToList();
        var (low, high) = (shown.Min(), shown.Max());
        double At(double hertz) => Height - Margin - ((Math.Log2(hertz) - low) / (high - low) * (Height - (2 * Margin)));
        Rungs =
        [
            .. rungs.Select(rung => new DrawnRung(
                rung.Partial,
                At(rung.Hertz),
                Frame.Wording.Pitch(reading.ToWritten(rung.Nearest)),
                rung.Cents,
                rung.Partial == partial,
                (rung.Partial - partial) switch
                {
                    -1 => "lips slack",
                    1 => "lips tight",
                    _ => "",
                }
            )),
        ];
        if (heardHz is { } heard)
            (HeardY, WantedY) = (At(heard), Rungs.FirstOrDefault(rung => rung.Wanted)?.Y);
    }

    public double Height { get; }

    /// <summary>Where what was heard lies; null for nothing.</summary>
    public double? HeardY { get; }

    /// <summary>Where what was wanted lies, when something was heard.</summary>
    public double? WantedY { get; }

    public IReadOnlyList<DrawnRung> Rungs { get; }
}
