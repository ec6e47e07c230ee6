namespace Bocca.Core.Instruments;

/// <summary>
/// Tube lengths. A valve alone adds <c>a = 2^(semitones/12) - 1</c> of the open length; valves together simply add,
/// which is why combinations come out sharp (computed). Compensating valves lengthen their loops for the lowered tube.
/// </summary>
public static class Tubing
{
    /// <summary>A combination this little flat of a note still counts as that note; one that is sharper can be pulled out.</summary>
    private const double FlatToleranceSemitones = 0.2;

    /// <summary>Speed of sound in the tube in metres a second at a temperature in degrees Celsius: 331.3 root(1 + T/273.15).</summary>
    public static double SpeedOfSound(double celsius) => 331.3 * Math.Sqrt(1 + (celsius / 273.15));

    /// <summary>The length in metres whose partial 1 sounds at a frequency: speed / (2 x Hz). At 23 degrees the speed is 345 m/s.</summary>
    public static double EffectiveLengthMetres(double partialOneHz, double speed = 345) => speed / (2 * partialOneHz);

    /// <summary>Length added by one valve, as a share of the tube it is cut for: 2^(semitones/12) - 1.</summary>
    public static double AddedShare(double semitones) => Math.Pow(2, semitones / 12) - 1;

    /// <summary>
    /// Length that a third valve adds when it is drawn for 2-3, which makes 2-3 true and itself long: 2^(4/12) - 1 - a2 (computed).
    /// </summary>
    /// <param name="semitones">Semitones of the third valve by itself: 3.</param>
    public static double ThirdForTwoThreeShare(int semitones) => AddedShare(semitones + 1) - AddedShare(1);

    /// <summary>
    /// Centimetres of slide at position p, counted from the closed slide: half the tube added, 50 x L x (2^((p-1)/12) - 1).
    /// </summary>
    /// <param name="tubeMetres">Length of the tube with the slide closed, with the trigger's tube if that is in use.</param>
    /// <param name="position">1 to 7; fractions lie between positions.</param>
    public static double SlideOutCm(double tubeMetres, double position) => 50 * tubeMetres * AddedShare(position - 1);

    /// <summary>Cents by which one centimetre of slide moves the pitch at a position: 34.62 / tube length there (computed).</summary>
    public static double CentsPerCm(double tubeMetres, double position) =>
        2 / 100.0 * 1200 / Math.Log(2) / (tubeMetres * Math.Pow(2, (position - 1) / 12));

    /// <summary>Centimetres to pull a tuning slide so that a combination this sharp comes down: half the missing length.</summary>
    /// <param name="openMetres">Effective length of the open instrument.</param>
    /// <param name="lengthRatio">Length of the tube in use over that of the open instrument.</param>
    /// <param name="centsSharp">How sharp the tube is; 0 or more.</param>
    public static double PullCm(double openMetres, double lengthRatio, double centsSharp) =>
        50 * openMetres * lengthRatio * (Math.Pow(2, centsSharp / 1200) - 1);

    internal static Tube OfValves(Instrument instrument, Setting setting)
    {
        var down = instrument.Valves.Where(valve => setting.Presses(valve.Number)).ToList();
        var sideSemitones = setting.Attachment == "" ? 0 : -instrument.ThumbSide!.RaisesSemitones;
        var side = Math.Pow(2, sideSemitones / 12.0);
        var ratio = side * ValveRatio(instrument.Compensation, down.ToDictionary(valve => valve.Number, valve => valve.AddedShare));
        // Which note a combination counts as is a matter of the valves as they are named, not of how far their slides are drawn.
        var named =
            side * ValveRatio(instrument.Compensation, down.ToDictionary(valve => valve.Number, valve => AddedShare(valve.Semitones)));
        var semitones = (int)Math.Ceiling((12 * Math.Log2(named)) - FlatToleranceSemitones);
        return new Tube(setting, semitones, ratio, 100 * (semitones - (12 * Math.Log2(ratio))), 0);
    }

    internal static Tube OfSlide(Instrument instrument, Setting setting)
    {
        var semitones = instrument.TriggerSemitones(setting.Attachment) + setting.Position - 1;
        var out_ = SlideOutCm(instrument.SlideTubeMetres(setting.Attachment), setting.Position);
        return new Tube(setting, semitones, Math.Pow(2, semitones / 12.0), 0, out_);
    }

    private static double ValveRatio(Compensation compensation, Dictionary<int, double> shares)
    {
        var key = compensation switch
        {
            Compensation.FromThird => 3,
            Compensation.FromFourth => 4,
            _ => 0,
        };
        if (!shares.TryGetValue(key, out var keyShare))
            return 1 + shares.Values.Sum();
        return (1 + keyShare) * (1 + shares.Values.Sum() - keyShare);
    }
}
