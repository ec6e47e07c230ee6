using Bocca.Core.Music;

namespace Bocca.Core.Instruments;

/// <summary>The pitch of the room and its warmth.</summary>
/// <param name="A4Hz">The reference A, hertz.</param>
/// <param name="Celsius">Temperature of the air in the tube, degrees Celsius.</param>
public readonly record struct PlayingConditions(double A4Hz, double Celsius)
{
    /// <summary>The room that instruments are built for (common practice).</summary>
    public const double UsualCelsius = 20;

    /// <summary>Reference pitches that may be asked for, hertz (ours, editable).</summary>
    public static (double Least, double Most) A4Range { get; } = (415, 466);

    /// <summary>Temperatures that may be asked for, degrees Celsius (ours, editable).</summary>
    public static (double Least, double Most) CelsiusRange { get; } = (0, 40);

    /// <summary>A = 440 Hz (published: ISO 16) at 20 degrees.</summary>
    public static PlayingConditions Usual { get; } = new(Tuning.Built.A4Hz, UsualCelsius);

    /// <summary>The conditions, kept inside what may be asked for.</summary>
    public static PlayingConditions Of(double a4Hz, double celsius) =>
        new(Math.Clamp(a4Hz, A4Range.Least, A4Range.Most), Math.Clamp(celsius, CelsiusRange.Least, CelsiusRange.Most));

    /// <summary>The reference A as a tuning.</summary>
    public Tuning Tuning => new(A4Hz);

    /// <summary>
    /// Cents by which an instrument built for 440 Hz at 20 degrees lies above this room's pitch before its main slide is
    /// moved: 1200 log2(speed / speed at 20) - 1200 log2(A / 440) (computed); 2.9 cents a degree.
    /// </summary>
    public double LiesCents =>
        (1200 * Math.Log2(Tubing.SpeedOfSound(Celsius) / Tubing.SpeedOfSound(UsualCelsius))) - Tuning.Cents(Tuning.Built.A4Hz, A4Hz);

    /// <summary>Millimetres to draw an instrument's main slide out for that; inwards negative.</summary>
    public double MainSlideMm(Instrument instrument) => instrument.MainSlideMm(LiesCents);
}
