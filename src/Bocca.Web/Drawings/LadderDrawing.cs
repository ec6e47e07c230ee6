using Bocca.Core.Instruments;
using Bocca.Core.Music;

namespace Bocca.Web.Drawings;

/// <summary>The lower partials of a tube as rungs at true pitch height, with room for what was heard.</summary>
public sealed class LadderDrawing
{
    public const double Width = 300;
    public const double Height = 430;
    private const int Highest = 9;
    private const double Margin = 16;
    private readonly double _low;
    private readonly double _high;

    public LadderDrawing(Instrument instrument, Reading reading, Tube tube, Tuning tuning)
    {
        var rungs = Rung.Of(instrument, tube, Highest, tuning).ToList();
        _low = Math.Log2(rungs[0].Hertz) - 0.1;
        _high = Math.Log2(rungs[^1].Hertz) + 0.1;
        Rungs =
        [
            .. rungs.Select(rung => new DrawnRung(
                rung.Partial,
                Y(rung.Hertz),
                Frame.Wording.Pitch(rung.Written(reading)),
                Frame.Wording.SignedCents(rung.Cents),
                false,
                ""
            )),
        ];
    }

    public IReadOnlyList<DrawnRung> Rungs { get; }

    /// <summary>How high a frequency stands.</summary>
    public double Y(double hertz) =>
        Height - Margin - ((Math.Clamp(Math.Log2(hertz), _low, _high) - _low) / (_high - _low) * (Height - (2 * Margin)));
}
