namespace Bocca.Core.Simulation;

/// <summary>The three handles of a player's lips.</summary>
/// <param name="TensionHz">The lips' own frequency: firmer is higher.</param>
/// <param name="Opening">Opening at rest over the usual one: below 1 pressed together, above 1 apart.</param>
/// <param name="PressurePa">Pressure of the air behind them, pascal.</param>
internal readonly record struct LipHandles(double TensionHz, double Opening, double PressurePa);

/// <summary>
/// Lips as one mass that the air column's pressure lifts, with the mouth as a volume behind them: it speaks a little
/// under a resonance of the column, or near the lips' own frequency where the column has none (published: Elliott and
/// Bowsher 1982, flow and lip; Adachi and Sato 1995, the lip that moves across the flow; Velut, Vergez, Gilbert and
/// Djahanbani 2017, the column as a sum of modes). Lips pressed together are lighter, narrower and less damped.
/// </summary>
/// <remarks>Formulas and constants: METHODS. Not safe for use from two threads at once.</remarks>
internal sealed class LipModel
{
    /// <summary>Samples a second.</summary>
    public const int Rate = SimulatedPlayer.SampleRate;

    private const double Step = 1.0 / Rate;
    private const double AirDensity = 1.2;
    private const double SpeedOfSound = 343;
    private const double MassPerArea = 2.5;
    private const double Sharpness = 5;
    private const double ClosedStiffness = 4;
    private const double ClosedDamping = 4;
    private const double MouthCubicMetres = 4e-5;
    private const double SharpnessAlone = 10;
    private const double OhmAlone = 4e6;
    private const double RestAloneMm = 0.15;
    private readonly LipBuild _build;
    private readonly LipColumn _column;
    private readonly bool _alone;
    private readonly double _rest;
    private readonly (double Share, double Kept, double Ohm) _mouthfill;
    private double _mouth;
    private double _lift;
    private double _speed;
    private (double Tension, double Opening) _set;
    private double _openingNow;

    // The opening's width times the air's speed at a pascal of pressure, so that an area of flow is one product.
    private double _widthSpeed;
    private double _inverseMass;
    private double _omega0;
    private double _damping;

    public LipModel(LipBuild build, AirColumn column)
    {
        _build = build;
        _alone = column.Resonances.Count == 0;
        _column = new LipColumn(column, Step);
        _rest = (_alone ? Math.Min(build.RestMm, RestAloneMm) : build.RestMm) / 1000;
        _mouthfill = Mouthfill(LungOhm(build, _alone));
        _lift = _rest;
    }

    /// <summary>Flow through the lips at the last step, cubic metres a second.</summary>
    public double Flow { get; private set; }

    /// <summary>Whether the lips were open at the last step.</summary>
    public bool IsOpen => _lift > 0;

    /// <summary>Height of the opening at the last step, metres; negative while the lips press on each other.</summary>
    public double Lift => _lift;

    /// <summary>
    /// What holds the breath back behind the lips, pascal seconds per cubic metre: the wider the lips, the wider the throat.
    /// </summary>
    public static double LungOhm(LipBuild build, bool alone) => alone ? OhmAlone : 2e6 / (build.RestMm * build.WidthMm);

    /// <summary>
    /// Amplitude of the breath's noise at a flow, both as shares of their usual: it grows with the square of the flow
    /// over a threshold (published: Flanagan and Ishizaka 1976, from memory), here half of the usual flow's square.
    /// </summary>
    public static double Turbulence(double flow) => Math.Clamp(2 * ((flow * flow) - 0.5), 0, 20);

    /// <summary>Moves the column's resonances, as a slide or the lips' pull does.</summary>
    /// <param name="column">The column.</param>
    /// <param name="ratio">Every resonance lies so much higher.</param>
    public void Tune(AirColumn column, double ratio = 1) => _column.Tune(column, ratio);

    /// <summary>One sample: the pressure at the lips in pascal; for lips alone, the flow in units that come out alike.</summary>
    public double Next(in LipHandles handles)
    {
        if (_set != (handles.TensionHz, handles.Opening))
            Set(handles);
        var (share, kept, mouthOhm) = _mouthfill;
        var freeMouth = (_mouth + (share * handles.PressurePa)) * kept;
        var area = Math.Max(0, _lift) * _widthSpeed;
        var drive = freeMouth - _column.Free;
        // The flow that its own back pressure allows: u = area x root(drive - ohm x u).
        var back = area * (_column.Ohm + mouthOhm);
        var flow = Math.Sign(drive) * area * (Math.Sqrt((back * back) + (4 * Math.Abs(drive))) - back) / 2;
        _mouth = freeMouth - (mouthOhm * flow);
        var pressure = _column.Settle(flow);
        Move(handles.PressurePa, pressure);
        var sound = _alone ? 1e6 * flow : pressure;
        Flow = flow;
        return sound;
    }

    /// <summary>
    /// What a step of the lungs' pressure gives to the mouth, what is kept of both together, and how much a flow takes from it.
    /// </summary>
    private static (double Share, double Kept, double Ohm) Mouthfill(double lungOhm)
    {
        const double Compliance = MouthCubicMetres / (AirDensity * SpeedOfSound * SpeedOfSound);
        var share = Step / (lungOhm * Compliance);
        return (share, 1 / (1 + share), Step / Compliance / (1 + share));
    }

    /// <summary>What follows from the lips' tension and opening.</summary>
    private void Set(in LipHandles handles)
    {
        _set = (handles.TensionHz, handles.Opening);
        _openingNow = Math.Clamp(handles.Opening, 0.1, 12);
        _widthSpeed = _build.WidthMm / 1000 * Math.Pow(_openingNow, 0.8) * Math.Sqrt(2 / AirDensity);
        // Lips that press on each other are stretched by it.
        _omega0 = 2 * Math.PI * handles.TensionHz * Math.Pow(Math.Min(1, _openingNow), -0.07);
        var mass =
            MassPerArea
            * Math.Clamp(Math.Pow(_openingNow, 0.5), 0.25, 1.5)
            * Math.Pow(_build.FirstHz / handles.TensionHz, _alone ? 1.7 : 1);
        _inverseMass = 1 / mass;
        _damping = _omega0 / Math.Clamp((_alone ? SharpnessAlone : Sharpness) * Math.Pow(_openingNow, -0.15), 2.5, 20);
    }

    private void Move(double lungs, double pressure)
    {
        // Alone, the mouth's own swing is what drives the lips; most of its standing pressure is borne by their hold.
        var drive = _alone ? _mouth - (0.7 * lungs) : pressure;
        var closed = _lift < 0;
        var pull =
            (_omega0 * _omega0 * ((closed ? ClosedStiffness * _lift : _lift) - (_openingNow * _rest)))
            + ((closed ? ClosedDamping : 1) * _damping * _speed);
        _speed += Step * ((drive * _inverseMass) - pull);
        _lift += Step * _speed;
    }
}
