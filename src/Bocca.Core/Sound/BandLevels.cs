namespace Bocca.Core.Sound;

/// <summary>
/// Levels of a sound in bands of frequency, in short windows: fine enough in time to tell a clap from a consonant. Windows of about 6 ms,
/// a quarter of that from one to the next.
/// </summary>
public sealed class BandLevels
{
    private const double WindowSeconds = 0.0058;

    private const int Steps = 4;

    private readonly int _window;
    private readonly int _rate;

    /// <summary>Measures a sound.</summary>
    /// <param name="sound">The sound.</param>
    /// <param name="asked">The bands, hertz; one that reaches beyond half the sample rate stays silent.</param>
    public BandLevels(MonoSound sound, IReadOnlyList<(double From, double To)> asked)
    {
        _rate = sound.SampleRate;
        _window = 1 << (int)Math.Max(4, Math.Round(Math.Log2(_rate * WindowSeconds)));
        var frames = Math.Max(0, ((sound.Samples.Length - _window) / (_window / Steps)) + 1);
        int Bin(double hertz) => (int)Math.Round(Math.Min(hertz, 0.5 * _rate) / _rate * _window);
        var bands = asked.Select(band => (First: Bin(band.From), End: band.To <= 0.5 * _rate ? Bin(band.To) : 0)).ToArray();
        Db = [.. bands.Select(_ => new double[frames])];
        var spectrum = new PowerSpectrum(_window);
        for (var frame = 0; frame < frames; frame++)
        {
            var power = spectrum.Of(sound.Samples, frame * (_window / Steps));
            for (var band = 0; band < bands.Length; band++)
            {
                var sum = 1e-12;
                for (var bin = bands[band].First; bin < bands[band].End; bin++)
                    sum += power[bin];
                Db[band][frame] = 10 * Math.Log10(sum);
            }
        }
    }

    private BandLevels(BandLevels of, Range bands) => (_window, _rate, Db) = (of._window, of._rate, [.. of.Db.Take(bands)]);

    /// <summary>Bands between edges that follow each other, hertz, ascending.</summary>
    public static IReadOnlyList<(double From, double To)> Between(params IReadOnlyList<double> edges) => [.. edges.Zip(edges.Skip(1))];

    /// <summary>Some of the bands, measured already.</summary>
    public BandLevels Only(Range bands) => new(this, bands);

    /// <summary>The level of each band in each window, decibels against a height of no meaning.</summary>
    public IReadOnlyList<double[]> Db { get; }

    /// <summary>How many windows.</summary>
    public int Count => Db.Count == 0 ? 0 : Db[0].Length;

    /// <summary>Seconds from one window to the next.</summary>
    public double HopSeconds => (double)(_window / Steps) / _rate;

    /// <summary>The middle of a window, seconds.</summary>
    public double TimeOf(double frame) => ((frame * (_window / Steps)) + (0.5 * _window)) / _rate;

    /// <summary>The window whose middle lies nearest to a moment.</summary>
    public int FrameAt(double seconds) =>
        Math.Clamp((int)Math.Round(((seconds * _rate) - (0.5 * _window)) / (_window / Steps)), 0, Math.Max(0, Count - 1));
}
