using System.Collections.Concurrent;
using Bocca.Core.Instruments;
using Bocca.Core.Teaching;

namespace Bocca.Core.Simulation;

/// <summary>
/// What a player knows after practising: how firm the lips must be for a pitch, and how loud that comes out. Found by
/// trying, as a player does: short runs of the lip model, each nearer.
/// </summary>
/// <param name="TensionHz">The lips' own frequency for the pitch.</param>
/// <param name="ColumnRatio">Where the air column lies against its nominal place: a player's pull, or the tuning slide.</param>
/// <param name="Level">RMS of what is radiated, in the model's own units.</param>
/// <param name="Flow">Mean flow, cubic metres a second.</param>
/// <param name="SpeakSeconds">How long it takes from a sudden breath to half the level.</param>
/// <param name="Speaks">Whether it sounds at all.</param>
internal sealed record LipTuning(double TensionHz, double ColumnRatio, double Level, double Flow, double SpeakSeconds, bool Speaks)
{
    /// <summary>The opening it is for.</summary>
    public double Opening { get; init; } = 1;

    /// <summary>The usual pressure behind the lips, pascal (from memory: a few kilopascal).</summary>
    public const double UsualPressure = 3000;

    private const double WarmUpSeconds = 0.35;
    private const double ListenSeconds = 0.2;
    private const int Tries = 5;
    private static readonly ConcurrentDictionary<(string, string, SoundStage, int, int), LipTuning> Known = new();

    /// <summary>The tuning for a pitch.</summary>
    /// <param name="instrument">Whose lips and tube.</param>
    /// <param name="on">What is played on.</param>
    /// <param name="tube">The tube in use; null for the open one.</param>
    /// <param name="hertz">The pitch.</param>
    /// <param name="opening">Opening over the usual one.</param>
    public static LipTuning For(Instrument instrument, SoundStage on, Tube? tube, double hertz, double opening = 1) =>
        Known.GetOrAdd(
            (instrument.Id, tube?.Setting.ToString() ?? "", on, (int)Math.Round(hertz * 100), (int)Math.Round(opening * 100)),
            _ => Find(LipBuild.Of(instrument.Family), AirColumn.Of(on, instrument, tube), on, hertz, opening)
        );

    private static LipTuning Find(LipBuild build, AirColumn column, SoundStage on, double hertz, double opening)
    {
        // On a tube the lips sit a little under the partial and the column comes to meet them; elsewhere they lead alone.
        var tension = 0.965 * hertz;
        var ratio = 1.0;
        var run = default(Run);
        for (var i = 0; i < Tries; i++)
        {
            run = Listen(build, column.Scaled(ratio), new LipHandles(tension, opening, UsualPressure));
            if (!run.Speaks || Math.Abs((run.Hertz / hertz) - 1) < 0.0003)
                break;
            var correction = Math.Clamp(hertz / run.Hertz, 0.7, 1.4);
            tension *= correction;
            if (on == SoundStage.Instrument)
                ratio *= correction;
        }

        return new LipTuning(tension, ratio, run.Level, run.Flow, run.SpeakSeconds, run.Speaks);
    }

    /// <summary>One run of the model: what it settles on.</summary>
    public static Run Listen(LipBuild build, AirColumn column, LipHandles handles)
    {
        var model = new LipModel(build, column);
        var radiation = new Radiation(column.RadiatesFromHz);
        var warm = (int)(WarmUpSeconds * LipModel.Rate);
        var length = (int)(ListenSeconds * LipModel.Rate);
        var early = new double[warm];
        var (least, most) = (double.MaxValue, double.MinValue);
        for (var i = 0; i < warm; i++)
        {
            early[i] = Math.Abs(radiation.Next(model.Next(handles)));
            // The swing's middle, from the last third of the warm-up.
            if (i > 2 * warm / 3)
                (least, most) = (Math.Min(least, model.Lift), Math.Max(most, model.Lift));
        }

        var swing = new Swings((least + most) / 2, model.Lift);
        double squares = 0,
            flow = 0;
        for (var i = 0; i < length; i++)
        {
            var sound = radiation.Next(model.Next(handles));
            squares += sound * sound;
            flow += model.Flow;
            swing.Add(i, model.Lift);
        }

        var level = Math.Sqrt(squares / length);
        var speaks =
            swing.Turns > 2
            && swing.Height > 0.9 * (most - least)
            && swing.Height > 0.2 * Math.Min(1, handles.Opening) * build.RestMm / 1000;
        var half = early.Skip(2 * warm / 3).DefaultIfEmpty(0).Max() / 2;
        return new Run(
            speaks,
            speaks ? swing.TurnsASample * LipModel.Rate : 0,
            level,
            flow / length,
            (double)Array.FindIndex(early, sound => sound > half) / LipModel.Rate
        );
    }

    /// <summary>What a run of the model settled on.</summary>
    /// <param name="Speaks">Whether the lips swing.</param>
    /// <param name="Hertz">How fast.</param>
    /// <param name="Level">RMS of what is radiated.</param>
    /// <param name="Flow">Mean flow, cubic metres a second.</param>
    /// <param name="SpeakSeconds">Time to half the level.</param>
    internal readonly record struct Run(bool Speaks, double Hertz, double Level, double Flow, double SpeakSeconds);

    /// <summary>Counts how often the lips rise through the middle of their swing.</summary>
    private sealed class Swings(double middle, double lift)
    {
        private double _before = lift;
        private double _first = double.NaN;
        private double _last;
        private double _least = lift;
        private double _most = lift;

        public double Height => _most - _least;

        public int Turns { get; private set; }

        public double TurnsASample => (Turns - 1) / (_last - _first);

        public void Add(int sample, double lift)
        {
            (_least, _most) = (Math.Min(_least, lift), Math.Max(_most, lift));
            if (_before <= middle && lift > middle)
            {
                _last = sample - ((lift - middle) / (lift - _before));
                if (double.IsNaN(_first))
                    _first = _last;
                Turns++;
            }

            _before = lift;
        }
    }
}

/// <summary>What of the pressure at the lips is heard outside: low tones ever less.</summary>
/// <param name="fromHz">Where it begins to fall.</param>
internal sealed class Radiation(double fromHz)
{
    private readonly double _keep = 1 / (1 + (2 * Math.PI * fromHz / LipModel.Rate));
    private double _in;
    private double _out;

    /// <summary>The next sample.</summary>
    public double Next(double pressure)
    {
        _out = _keep * (_out + pressure - _in);
        _in = pressure;
        return _out;
    }
}
