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
    private readonly double[] _hertz;
    private readonly double[] _sharpness;
    private readonly double[] _ohm;
    private readonly double[] _spring;
    private readonly double[] _share;
    private readonly double[] _taken;
    private readonly double[] _pressure;
    private readonly double[] _volume;
    private readonly double[] _free;
    private AirColumn? _column;

    /// <param name="column">The column.</param>
    /// <param name="step">Seconds between two samples.</param>
    public LipColumn(AirColumn column, double step)
    {
        _step = step;
        var count = (column.Resonances.Count + Vector<double>.Count - 1) / Vector<double>.Count * Vector<double>.Count;
        (_hertz, _sharpness, _ohm) = (new double[count], new double[count], new double[count]);
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
        Copy(column);
        var (freed, ohms) = (Vector<double>.Zero, Vector<double>.Zero);
        for (var i = 0; i < _free.Length; i += Vector<double>.Count)
        {
            var omega = 2 * Math.PI * (new Vector<double>(_hertz, i) * ratio);
            var loss = omega / new Vector<double>(_sharpness, i);
            var spring = _step * omega * omega;
            var share = Vector<double>.One / (Vector<double>.One + (_step * loss) + (_step * spring));
            var taken = _step * new Vector<double>(_ohm, i) * loss * share;
            var free = (new Vector<double>(_pressure, i) - (spring * new Vector<double>(_volume, i))) * share;
            (freed, ohms) = (freed + free, ohms + taken);
            spring.CopyTo(_spring, i);
            share.CopyTo(_share, i);
            taken.CopyTo(_taken, i);
            free.CopyTo(_free, i);
        }

        (Free, Ohm) = (Vector.Sum(freed), Vector.Sum(ohms));
    }

    /// <summary>Lays a column out in whole vectors.</summary>
    private void Copy(AirColumn column)
    {
        if (ReferenceEquals(column, _column))
            return;
        _column = column;
        Array.Fill(_sharpness, 1);
        for (var i = 0; i < column.Resonances.Count; i++)
            (_hertz[i], _sharpness[i], _ohm[i]) = column.Resonances[i];
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
