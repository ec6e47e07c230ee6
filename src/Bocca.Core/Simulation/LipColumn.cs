using System.Numerics;

namespace Bocca.Core.Simulation;

/// <summary>
/// The air column that the lips blow into, a step of time after the other: a sum of resonances, each a damped swing that the flow
/// drives (published: Velut, Vergez, Gilbert and Djahanbani 2017, the column as a sum of modes), stepped implicitly so that it stays
/// stable. For each step there is first what the pressure would be without flow, then what the flow makes of it.
/// </summary>
/// <remarks>Not safe for use from two threads at once.</remarks>
internal sealed class LipColumn
{
    private readonly double _step;

    // Whole vectors of resonances; those beyond the column's own take nothing and give nothing.
    private readonly double[] _spring;
    private readonly double[] _share;
    private readonly double[] _taken;
    private readonly double[] _pressure;
    private readonly double[] _volume;
    private readonly double[] _free;

    /// <param name="column">The column.</param>
    /// <param name="step">Seconds between two samples.</param>
    public LipColumn(AirColumn column, double step)
    {
        _step = step;
        var count = (column.Resonances.Count + Vector<double>.Count - 1) / Vector<double>.Count * Vector<double>.Count;
        (_spring, _share, _taken) = (new double[count], new double[count], new double[count]);
        (_pressure, _volume, _free) = (new double[count], new double[count], new double[count]);
        Tune(column);
    }

    /// <summary>The pressure at the lips a step on as it would be without flow, pascal.</summary>
    public double Free { get; private set; }

    /// <summary>How much pressure a flow adds within the step, pascal seconds per cubic metre.</summary>
    public double Ohm { get; private set; }

    /// <summary>Moves the resonances, as a slide or the lips' pull does.</summary>
    /// <param name="column">The column, of as many resonances as before.</param>
    /// <param name="ratio">Every resonance lies so much higher.</param>
    public void Tune(AirColumn column, double ratio = 1)
    {
        (Free, Ohm) = (0, 0);
        for (var i = 0; i < column.Resonances.Count; i++)
        {
            var resonance = column.Resonances[i];
            var omega = 2 * Math.PI * (resonance.Hertz * ratio);
            var loss = omega / resonance.Sharpness;
            _spring[i] = _step * omega * omega;
            _share[i] = 1 / (1 + (_step * loss) + (_step * _spring[i]));
            _taken[i] = _step * resonance.Ohm * loss * _share[i];
            _free[i] = (_pressure[i] - (_spring[i] * _volume[i])) * _share[i];
            Ohm += _taken[i];
            Free += _free[i];
        }
    }

    /// <summary>Lets the flow into the resonances and goes a step on; gives back the pressure at the lips, pascal.</summary>
    /// <param name="flow">Cubic metres a second.</param>
    public double Settle(double flow)
    {
        var settled = Free + (Ohm * flow);
        var sum = Vector<double>.Zero;
        for (var i = 0; i < _free.Length; i += Vector<double>.Count)
        {
            var pressure = new Vector<double>(_free, i) + (new Vector<double>(_taken, i) * flow);
            var volume = new Vector<double>(_volume, i) + (pressure * _step);
            var free = (pressure - (new Vector<double>(_spring, i) * volume)) * new Vector<double>(_share, i);
            pressure.CopyTo(_pressure, i);
            volume.CopyTo(_volume, i);
            free.CopyTo(_free, i);
            sum += free;
        }

        Free = Vector.Sum(sum);
        return settled;
    }
}
