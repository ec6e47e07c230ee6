using Bocca.Core.Practice;

namespace Bocca.Core.Simulation;

/// <summary>
/// One try of the practice player. The lips open once a cycle; the pulse exp(k (cos phase - 1)) has harmonics that
/// fall off ever faster, so a larger k is a brighter sound and nothing folds back from above half the sample rate.
/// </summary>
internal sealed class SimulatedBuzz
{
    private readonly Random _random;
    private readonly double _hertz;
    private readonly double _brightness;
    private readonly double _level;
    private readonly double _noise;
    private readonly double _jitter;
    private readonly double _shimmer;
    private readonly double _delay;
    private readonly double _rise;
    private readonly Func<FaultKind, double> _amount;

    public SimulatedBuzz(SoundStage stage, double hertz, Func<FaultKind, double> amount, Random random)
    {
        _random = random;
        _amount = amount;
        var (brightness, noiseDb, jitter, spread) = stage switch
        {
            SoundStage.Lips => (3.0, -16.0, 0.012, 25.0),
            SoundStage.Mouthpiece => (6.0, -21.0, 0.006, 10.0),
            _ => (10.0, -32.0, 0.002, 4.0),
        };
        var pinch = amount(FaultKind.Pinched);
        _brightness = brightness * (1 + (3 * pinch));
        _level = 0.16 * Decibels(-6 * pinch);
        _noise = _level * Decibels(noiseDb + amount(FaultKind.Airy));
        _jitter = jitter;
        _shimmer = 4 * jitter;
        _hertz = hertz * Cents((Normal() * (spread + amount(FaultKind.Uneven))) + (30 * pinch));
        _delay = Math.Max(0.01, 0.05 + (0.015 * Normal())) + (amount(FaultKind.Late) / 1000);
        _rise = 0.05 + (amount(FaultKind.SlowStart) / 1000);
    }

    /// <summary>Adds the try to a take; null where no tone sounds.</summary>
    public SimulatedTone? AddTo(float[] samples, double cueSeconds, double soundSeconds)
    {
        var silent = _amount(FaultKind.Silent);
        var airStart = cueSeconds + _delay;
        var end = cueSeconds + (soundSeconds * (1 - _amount(FaultKind.Short)));
        if (silent > 0)
        {
            if (silent < 1)
                AddAir(samples, airStart, end);
            return null;
        }

        var start = airStart + (_amount(FaultKind.AirFirst) / 1000);
        if (start >= end - 0.05)
            return null;
        AddAir(samples, airStart - (start > airStart ? 0 : 0.03), end);
        AddTone(samples, start, end);
        return new SimulatedTone(start, end, _hertz);
    }

    private void AddAir(float[] samples, double from, double to)
    {
        var air = new BreathNoise(_random, Math.Max(_noise, 0.012));
        for (var i = Index(from, samples); i < Index(to, samples); i++)
        {
            var t = (double)i / SimulatedPlayer.SampleRate;
            samples[i] += (float)(air.Next() * Math.Min(1, Math.Min((t - from) / 0.02, (to - t) / 0.05)));
        }
    }

    private void AddTone(float[] samples, double from, double to)
    {
        var length = to - from;
        var pulse = new LipPulse(_brightness);
        var wander = new SlowWander(_random, _amount(FaultKind.Wander) + 2);
        double phase = 0, cycleJitter = 1, cycleLevel = 1;
        for (var i = Index(from, samples); i < Index(to, samples); i++)
        {
            var t = ((double)i / SimulatedPlayer.SampleRate) - from;
            samples[i] += (float)(_level * cycleLevel * Envelope(t, length) * pulse.At(phase));
            phase += 2 * Math.PI * _hertz * cycleJitter * Cents(Bend(t, length) + wander.Next()) / SimulatedPlayer.SampleRate;
            if (phase < 2 * Math.PI)
                continue;
            phase -= 2 * Math.PI;
            cycleJitter = 1 + (_jitter * Normal());
            cycleLevel = 1 + (_shimmer * Normal());
        }
    }

    /// <summary>Cents away from the tone's own pitch at a time.</summary>
    private double Bend(double t, double length)
    {
        var fallAt = _amount(FaultKind.PartialBelow);
        // Lips and mouthpiece have no partials of their own; a fall there is as wide as from the third to the second.
        var fallen = fallAt > 0 && t > fallAt * length ? -702.0 : 0;
        return fallen
            + (_amount(FaultKind.Drift) * t)
            + (_amount(FaultKind.Wobble) * Math.Sin(2 * Math.PI * 5 * t))
            - (_amount(FaultKind.Scoop) * Math.Exp(-t / 0.08));
    }

    private double Envelope(double t, double length)
    {
        var level = Smooth(t / _rise) * Smooth((length - t) / 0.09) * Decibels(-_amount(FaultKind.Fade) * t);
        var hole = _amount(FaultKind.Break) / 1000;
        var fromMiddle = Math.Abs(t - (length / 2));
        return hole > 0 ? level * Smooth((fromMiddle - (hole / 2)) / 0.008) : level;
    }

    private double Normal()
    {
        var distance = Math.Sqrt(-2 * Math.Log(1 - _random.NextDouble()));
        return distance * Math.Cos(2 * Math.PI * _random.NextDouble());
    }

    private static int Index(double seconds, float[] samples) => Math.Clamp((int)(seconds * SimulatedPlayer.SampleRate), 0, samples.Length);

    private static double Cents(double cents) => Math.Exp(cents * (Math.Log(2) / 1200));

    private static double Decibels(double decibels) => decibels == 0 ? 1 : Math.Exp(decibels * (Math.Log(10) / 20));

    private static double Smooth(double share) => share <= 0 ? 0 : share >= 1 ? 1 : 0.5 - (0.5 * Math.Cos(Math.PI * share));
}

/// <summary>One opening of the lips a cycle, with an RMS of 1 and no constant part.</summary>
internal sealed class LipPulse
{
    private readonly double _brightness;
    private readonly double _mean;
    private readonly double _scale;

    public LipPulse(double brightness)
    {
        _brightness = brightness;
        const int Steps = 512;
        double sum = 0, squares = 0;
        for (var i = 0; i < Steps; i++)
        {
            var value = Raw(2 * Math.PI * i / Steps);
            sum += value;
            squares += value * value;
        }

        _mean = sum / Steps;
        _scale = 1 / Math.Sqrt((squares / Steps) - (_mean * _mean));
    }

    /// <summary>The pulse at a phase in radians.</summary>
    public double At(double phase) => (Raw(phase) - _mean) * _scale;

    private double Raw(double phase) => Math.Exp(_brightness * (Math.Cos(phase) - 1));
}

/// <summary>A slow aimless wandering: noise smoothed over about half a second.</summary>
internal sealed class SlowWander
{
    private const double Keep = 0.99993;
    private readonly Random _random;
    private readonly double _step;
    private double _first;
    private double _second;

    /// <param name="random">Where it comes from.</param>
    /// <param name="deviation">Standard deviation, cents.</param>
    public SlowWander(Random random, double deviation)
    {
        _random = random;
        // Two one-pole smoothers in a row leave this share of uniform noise's deviation.
        var left = Math.Sqrt((1 - Keep) / 4 / 3);
        _step = deviation / left;
    }

    /// <summary>The next sample, cents.</summary>
    public double Next()
    {
        _first += (1 - Keep) * (((2 * _random.NextDouble()) - 1) - _first);
        _second += (1 - Keep) * (_first - _second);
        return _step * _second;
    }
}
