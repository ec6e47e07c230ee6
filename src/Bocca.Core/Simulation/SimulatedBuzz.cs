using Bocca.Core.Instruments;
using Bocca.Core.Teaching;

namespace Bocca.Core.Simulation;

/// <summary>
/// One try of the practice player: the lip model, played. Faults of pitch, start and sound are played with the lips and
/// the breath, as a pupil would make them; only a level that should change alone is turned down afterwards.
/// </summary>
internal sealed class SimulatedBuzz
{
    /// <summary>Lips this far apart give air alone.</summary>
    private const double Apart = 6;

    /// <summary>Lips that speak even this much further apart speak surely.</summary>
    private const double Margin = 1.25;

    private const double Unrest = 0.004;
    private const int ControlSamples = 16;
    private const double MeetSeconds = 0.02;
    private const double RiseSeconds = 0.01;

    /// <summary>RMS of a usual tone, full scale 1: low enough for the sharp pulses of low lips.</summary>
    private const double ToneLevel = 0.1;
    private readonly Random _random;
    private readonly SoundStage _stage;
    private readonly LipBuild _build;
    private readonly AirColumn _column;
    private readonly IReadOnlyList<LipTuning> _tunings;
    private readonly bool _glides;
    private readonly double _fallen;
    private readonly IReadOnlyList<double> _gains;
    private readonly double _noise;
    private readonly double _usualFlow;
    private readonly double _apartPressure;
    private readonly double _jitterCents;
    private readonly double _cents;
    private readonly double _delay;
    private readonly double _swell;
    private readonly double _hertz;
    private readonly double[] _amounts;

    /// <param name="stage">What it is played on.</param>
    /// <param name="instrument">Whose lips and tube.</param>
    /// <param name="hertz">The pitch of height 0.</param>
    /// <param name="heights">Semitones from it, each for an equal share of the try.</param>
    /// <param name="glides">Whether the pitch glides from height to height.</param>
    /// <param name="amount">How much of each fault befalls this try.</param>
    /// <param name="random">Where chance comes from.</param>
    public SimulatedBuzz(
        SoundStage stage,
        Instrument instrument,
        double hertz,
        IReadOnlyList<double> heights,
        bool glides,
        Func<FaultKind, double> amount,
        Random random
    )
    {
        (_random, _stage, _glides) = (random, stage, glides);
        _amounts = [.. Enum.GetValues<FaultKind>().Select(amount)];
        var (noiseDb, jitter, spread) = stage switch
        {
            SoundStage.Lips => (-20.0, 12.0, 25.0),
            SoundStage.Mouthpiece => (-24.0, 6.0, 10.0),
            _ => (-32.0, 2.0, 4.0),
        };
        _build = LipBuild.Of(instrument.Family);
        _column = AirColumn.Of(stage, instrument);
        _tunings = [.. heights.Select(height => Speaking(height, hertz, instrument, amount(FaultKind.Pinched), amount(FaultKind.Airy)))];
        var usual = LipTuning.For(instrument, stage, null, hertz * Cents(100 * heights[0]));
        _gains =
        [
            .. heights
                .Zip(_tunings)
                .Select(pair =>
                    ToneLevel
                    / Math.Max(
                        0.3 * usual.Level,
                        Math.Max(pair.Second.Level, LipTuning.For(instrument, stage, null, hertz * Cents(100 * pair.First)).Level)
                    )
                ),
        ];
        _usualFlow = usual.Flow;
        _apartPressure = 1.2 * LipModel.LungOhm(_build, stage == SoundStage.Lips) * _usualFlow;
        // What the wider opening alone does not make, leaks at the corners of the lips.
        var leak = Math.Max(0, (amount(FaultKind.Airy) / 2) - AirierDb(_tunings[0], usual));
        _noise = ToneLevel * Decibels(noiseDb + leak);
        _jitterCents = jitter;
        _hertz = hertz * Cents(100 * heights[0]);
        _cents = (Normal() * (spread + amount(FaultKind.Uneven))) + (30 * amount(FaultKind.Pinched));
        _fallen = stage == SoundStage.Instrument ? PartialBelow(hertz, instrument) : 1 / 1.5;
        _delay = Math.Max(0, 0.03 + (0.012 * Normal())) + (amount(FaultKind.Late) / 1000);
        _swell = amount(FaultKind.SlowStart) / 1000;
    }

    private double Amount(FaultKind kind) => _amounts[(int)kind];

    /// <summary>Adds the try to a take; null where no tone sounds.</summary>
    public SimulatedTone? AddTo(float[] samples, double cueSeconds, double soundSeconds)
    {
        var silent = Amount(FaultKind.Silent);
        if (silent >= 1)
            return null;
        var airStart = cueSeconds + _delay;
        var end = cueSeconds + (soundSeconds * (1 - Amount(FaultKind.Short)));
        var airFirst = Amount(FaultKind.AirFirst) / 1000;
        // Whoever gives air first feels the tone coming and meets it in time.
        var meet =
            silent > 0 ? end
            : airFirst > 0 ? Math.Max(airStart, airStart + airFirst - _tunings[0].SpeakSeconds)
            : airStart;
        return Play(samples, airStart, meet, end);
    }

    /// <summary>
    /// The tuning for a height: pressed together by a share of pinching, or opened as far as gives so many decibels
    /// less tone over its noise, as long as it speaks surely.
    /// </summary>
    private LipTuning Speaking(double height, double hertz, Instrument instrument, double pinched, double airyDb)
    {
        var pitch = hertz * Cents(100 * height);
        LipTuning At(double opening) => LipTuning.For(instrument, _stage, null, pitch, opening) with { Opening = opening };
        if (airyDb <= 0)
            return At(1 - (0.8 * pinched));
        var (usual, chosen) = (At(1), At(1));
        for (var opening = 1.1; opening < 4 && At(Margin * opening).Speaks; opening += 0.1)
        {
            var open = At(opening);
            if (AirierDb(open, usual) > airyDb)
                break;
            chosen = open;
        }

        return chosen;
    }

    /// <summary>How much less the tone stands over its noise than usual, decibels, when it is no louder.</summary>
    private static double AirierDb(LipTuning open, LipTuning usual) =>
        20 * Math.Log10(Math.Max(1, LipModel.Turbulence(open.Flow / usual.Flow)) * Math.Max(1, open.Level / usual.Level));

    /// <summary>How far the lips slacken to fall to the partial below, as a ratio.</summary>
    private static double PartialBelow(double hertz, Instrument instrument)
    {
        var partial = Math.Max(2, Math.Round(hertz / instrument.Frequency(instrument.Tubes[0], 1, Music.Tuning.Built)));
        return partial == 2 ? 0.6 : (partial - 1.1) / partial;
    }

    private SimulatedTone? Play(float[] samples, double from, double meet, double end)
    {
        var model = new LipModel(_build, _column.Scaled(_tunings[0].ColumnRatio));
        var radiation = new Radiation(_column.RadiatesFromHz);
        var air = new BreathNoise(_random, _noise);
        var wander = new SlowWander(_random, Amount(FaultKind.Wander) + 2);
        var sounded = new Sounded(ToneLevel);
        var handles = default(LipHandles);
        double gain = 1,
            loudness = 0,
            jitter = 0;
        var wasOpen = true;
        var (first, last) = (Index(from, samples), Index(end + 0.15, samples));
        for (var i = first; i < last; i++)
        {
            var t = ((double)i / LipModel.Rate) - meet;
            var drift = wander.Next();
            if ((i - first) % ControlSamples == 0)
            {
                handles = Handles(t, end - meet, drift + jitter, model);
                gain = Gain(t, end - meet);
                loudness = Loudness(t, end - meet);
            }

            var tone =
                loudness
                * gain
                * radiation.Next(
                    model.Next(handles with { PressurePa = handles.PressurePa * (1 + (Unrest * ((2 * _random.NextDouble()) - 1))) })
                );
            samples[i] += (float)(tone + (gain * air.Next() * LipModel.Turbulence(model.Flow / _usualFlow)));
            sounded.Add(i, tone);
            if (model.IsOpen && !wasOpen)
                jitter = _jitterCents * Normal();
            wasOpen = model.IsOpen;
        }

        return sounded.Tone(_hertz * Cents(_cents));
    }

    private LipHandles Handles(double t, double length, double drift, LipModel model)
    {
        var (at, after, share) = Place(t, length);
        var (tuning, next) = (_tunings[at], _tunings[after]);
        var tension = tuning.TensionHz * Math.Pow(next.TensionHz / tuning.TensionHz, share);
        var cents = Bend(t) + drift + _cents;
        if (_stage == SoundStage.Instrument)
            model.Tune(_column, tuning.ColumnRatio * Math.Pow(next.ColumnRatio / tuning.ColumnRatio, share) * Cents(cents));
        var fallAt = Amount(FaultKind.PartialBelow);
        if (fallAt > 0 && t > fallAt * length)
            tension *= _fallen;
        var together = Smooth(t / MeetSeconds);
        var opening = Apart * Math.Pow(tuning.Opening / Apart, together);
        var pressure = LipTuning.UsualPressure * Breath(t, length);
        return new LipHandles(
            tension * Cents(cents),
            opening,
            t < 0 ? _apartPressure : Math.Max(pressure, _apartPressure * (1 - together))
        );
    }

    /// <summary>What makes every height equally loud: a player evens them out, and eases off where the lips stand open.</summary>
    private double Loudness(double t, double length)
    {
        var (at, after, share) = Place(t, length);
        return _gains[at] * Math.Pow(_gains[after] / _gains[at], share) * (_swell > 0 ? Smooth((t - MeetSeconds) / _swell) : 1);
    }

    /// <summary>Which heights a moment lies between, and how far.</summary>
    private (int At, int After, double Share) Place(double t, double length)
    {
        var share = Math.Clamp(t / Math.Max(length, 0.01), 0, 0.9999);
        if (!_glides)
            return ((int)(share * _tunings.Count), (int)(share * _tunings.Count), 0);
        var at = share * (_tunings.Count - 1);
        return ((int)at, Math.Min(_tunings.Count - 1, (int)at + 1), at - (int)at);
    }

    /// <summary>Cents away from the tone's own pitch at a time.</summary>
    private double Bend(double t) =>
        (Amount(FaultKind.Drift) * Math.Max(0, t))
        + (Amount(FaultKind.Wobble) * Math.Sin(2 * Math.PI * 5 * t))
        - (Amount(FaultKind.Scoop) * Math.Exp(-Math.Max(0, t) / 0.08));

    /// <summary>The breath's share of its usual pressure.</summary>
    private double Breath(double t, double length)
    {
        var hole = Amount(FaultKind.Break) / 1000;
        var flows = hole == 0 || Math.Abs(t - (length / 2)) > hole / 2;
        // The lips meet before the breath comes.
        return flows ? Smooth((t - MeetSeconds) / RiseSeconds) * LetsGo(t, length) : 0;
    }

    /// <summary>The breath's fading, and the end: the air lets go over some hundredths of a second, the tongue at once.</summary>
    private double Gain(double t, double length) =>
        Decibels(-Amount(FaultKind.Fade) * Math.Max(0, t))
        * (
            Amount(FaultKind.ClosedEnd) > 0 ? Smooth((length - t) / 0.012)
            : _stage == SoundStage.Instrument ? Smooth((length + 0.055 - t) / 0.16)
            : Smooth((length + 0.02 - t) / 0.09)
        );

    /// <summary>
    /// The breath's share at the end: a player of an instrument lets it go more slowly than a buzzer, one who closes with the tongue not
    /// at all.
    /// </summary>
    private double LetsGo(double t, double length) =>
        Amount(FaultKind.ClosedEnd) > 0 ? 1
        : _stage == SoundStage.Instrument ? Smooth((length + 0.025 - t) / 0.1)
        : Smooth((length - t) / 0.05);

    private double Normal()
    {
        var distance = Math.Sqrt(-2 * Math.Log(1 - _random.NextDouble()));
        return distance * Math.Cos(2 * Math.PI * _random.NextDouble());
    }

    private static int Index(double seconds, float[] samples) => Math.Clamp((int)(seconds * LipModel.Rate), 0, samples.Length);

    private static double Cents(double cents) => Math.Exp(cents * (Math.Log(2) / 1200));

    private static double Decibels(double decibels) => decibels == 0 ? 1 : Math.Exp(decibels * (Math.Log(10) / 20));

    private static double Smooth(double share) =>
        share <= 0 ? 0
        : share >= 1 ? 1
        : 0.5 - (0.5 * Math.Cos(Math.PI * share));

    /// <summary>
    /// When a tone began, and when it was to be heard: from the first to the last time its RMS over some 10 ms was over a third.
    /// </summary>
    private sealed class Sounded(double level)
    {
        private const double Keep = 0.998,
            HeardShare = 0.33,
            KeepShort = 0.99,
            BegunShare = 0.05;
        private double _power,
            _short;
        private int _begun = -1,
            _first = -1,
            _last;

        public SimulatedTone? Tone(double hertz) =>
            _first < 0 || Seconds(_last) - Seconds(_first) <= 0.05
                ? null
                : new SimulatedTone(Seconds(_first), Seconds(_last), hertz) { BegunSeconds = Seconds(_begun) };

        public void Add(int sample, double tone)
        {
            _power = (Keep * _power) + ((1 - Keep) * tone * tone);
            _short = (KeepShort * _short) + ((1 - KeepShort) * tone * tone);
            if (_begun < 0 && _short >= BegunShare * BegunShare * level * level)
                _begun = sample;
            if (_power < HeardShare * HeardShare * level * level)
                return;
            if (_first < 0)
                _first = sample;
            _last = sample;
        }

        private static double Seconds(int sample) => (double)sample / LipModel.Rate;
    }
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
