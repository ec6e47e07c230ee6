namespace Bocca.Core.Music;

/// <summary>Equal temperament hung on a reference A.</summary>
/// <param name="A4Hz">Frequency of A4 in hertz; 440 is standard (published: ISO 16).</param>
public readonly record struct Tuning(double A4Hz)
{
    /// <summary>A4 = 440 Hz (published: ISO 16).</summary>
    public static Tuning Standard { get; } = new(440);

    /// <summary>
    /// What instruments are built for at 20 degrees (common practice): their lengths are those of this pitch, in any room.
    /// </summary>
    public static Tuning Built => Standard;

    /// <summary>Frequency in hertz of a sounding pitch.</summary>
    public double Frequency(Pitch sounding) => Frequency((double)sounding.Midi);

    /// <summary>Frequency in hertz of a MIDI number, which may lie between two notes: 69.5 is 50 cents above A4.</summary>
    public double Frequency(double midi) => A4Hz * Math.Pow(2, (midi - 69) / 12);

    /// <summary>The MIDI number of a frequency, with its fraction. Hertz must be above zero.</summary>
    public double Midi(double hertz) => 69 + (12 * Math.Log2(hertz / A4Hz));

    /// <summary>Cents from a pitch up to a frequency; negative when the frequency is flat.</summary>
    public double CentsFrom(Pitch sounding, double hertz) => Cents(Frequency(sounding), hertz);

    /// <summary>Cents from one frequency up to another: 1200 an octave. Both in hertz and above zero.</summary>
    public static double Cents(double fromHertz, double toHertz) => 1200 * Math.Log2(toHertz / fromHertz);
}
