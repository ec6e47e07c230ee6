namespace Bocca.Core.Simulation;

/// <summary>A vowel by its first three formants, hertz (published: Peterson and Barney 1952, children's means, rounded).</summary>
/// <param name="Name">As it is written.</param>
/// <param name="Formants">The formants.</param>
public sealed record Vowel(string Name, IReadOnlyList<double> Formants);

/// <summary>A sung tone.</summary>
/// <param name="Hertz">Its pitch.</param>
/// <param name="Seconds">How long.</param>
/// <param name="Vowel">On which vowel.</param>
public sealed record SungTone(double Hertz, double Seconds, Vowel Vowel)
{
    /// <summary>Cents from its pitch at which it begins; it glides up, or down, to it in <see cref="GlideSeconds"/>.</summary>
    public double FromCents { get; init; }

    /// <summary>How long the glide takes, seconds.</summary>
    public double GlideSeconds { get; init; } = 0.12;

    /// <summary>Rest after it, seconds.</summary>
    public double RestSeconds { get; init; }

    /// <summary>How much of it is breath, 0 to 1.</summary>
    public double Breath { get; init; } = 0.05;
}

/// <summary>
/// A voice that sings: glottal pulses (published: Rosenberg 1971, doi:10.1121/1.1912389, the polynomial pulse) through three resonances,
/// one for each formant (published: Klatt 1980, doi:10.1121/1.383940), with vibrato left to whoever wants it.
/// </summary>
public static class SungVoice
{
    private const double OpenShare = 0.4,
        ClosingShare = 0.16;

    /// <summary>Vowels, from dark to bright.</summary>
    public static IReadOnlyList<Vowel> Vowels { get; } =
    [new("oo", [430, 1170, 3260]), new("oh", [680, 1060, 3180]), new("ah", [1030, 1370, 3170]), new("ee", [370, 3200, 3730])];

    /// <summary>Sings tones one after the other.</summary>
    /// <param name="tones">The tones.</param>
    /// <param name="rate">Samples a second.</param>
    /// <param name="random">Where breath comes from.</param>
    public static float[] Sing(IReadOnlyList<SungTone> tones, int rate, Random random)
    {
        var samples = new List<float>();
        foreach (var tone in tones)
        {
            samples.AddRange(One(tone, rate, random));
            samples.AddRange(new float[(int)(tone.RestSeconds * rate)]);
        }

        return [.. samples];
    }

    private static float[] One(SungTone tone, int rate, Random random)
    {
        const double Rise = 0.03,
            Fall = 0.05;
        var count = (int)(tone.Seconds * rate);
        var voice = new double[count];
        double phase = 0,
            before = 0;
        for (var i = 0; i < count; i++)
        {
            var glide = Math.Max(0, 1 - (i / (tone.GlideSeconds * rate)));
            phase += tone.Hertz * Math.Pow(2, tone.FromCents * glide / 1200) / rate;
            phase -= Math.Floor(phase);
            var flow = Pulse(phase);
            // Lips radiate the change of the flow.
            voice[i] = flow - before + (tone.Breath * 0.02 * flow * ((2 * random.NextDouble()) - 1));
            before = flow;
        }

        foreach (var formant in tone.Vowel.Formants)
            Resonate(voice, formant, 60 + (0.06 * formant), rate);
        var peak = voice.Max(Math.Abs);
        return
        [
            .. voice.Select(
                (value, i) =>
                {
                    var edge = Math.Min(1, Math.Min(i / (Rise * rate), (count - i) / (Fall * rate)));
                    return (float)(0.5 * value / peak * edge);
                }
            ),
        ];
    }

    private static double Pulse(double phase) =>
        phase < OpenShare ? (3 * Math.Pow(phase / OpenShare, 2)) - (2 * Math.Pow(phase / OpenShare, 3))
        : phase < OpenShare + ClosingShare ? 1 - Math.Pow((phase - OpenShare) / ClosingShare, 2)
        : 0;

    /// <summary>A resonance of second order, in place.</summary>
    private static void Resonate(double[] sound, double hertz, double bandwidth, int rate)
    {
        var radius = Math.Exp(-Math.PI * bandwidth / rate);
        var (b, c) = (2 * radius * Math.Cos(2 * Math.PI * hertz / rate), -radius * radius);
        var a = 1 - b - c;
        double one = 0,
            two = 0;
        for (var i = 0; i < sound.Length; i++)
        {
            var value = (a * sound[i]) + (b * one) + (c * two);
            (one, two) = (value, one);
            sound[i] = value;
        }
    }
}
