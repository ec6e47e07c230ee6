using Bocca.Core.Music;

namespace Bocca.Core.Instruments;

/// <summary>Which valve's tube the others lengthen their loops for.</summary>
public enum Compensation
{
    /// <summary>Plain valves: combinations come out sharp.</summary>
    None,

    /// <summary>With the third valve down, the first and second use longer loops.</summary>
    FromThird,

    /// <summary>With the fourth valve down, the first three use longer loops.</summary>
    FromFourth,
}

/// <summary>A valve worked by a finger.</summary>
/// <param name="Number">1 to 4, from the index finger.</param>
/// <param name="Semitones">Semitones it lowers the tube by.</param>
/// <param name="AddedShare">Length it adds, as a share of the open tube.</param>
public sealed record Valve(int Number, int Semitones, double AddedShare);

/// <summary>A valve slide that the player moves while playing.</summary>
/// <param name="Valve">The valve whose slide it is.</param>
/// <param name="ThrowCm">How far it can be drawn, centimetres (from memory, editable).</param>
public sealed record MovableSlide(int Valve, double ThrowCm);

/// <summary>The slide of a trombone.</summary>
/// <param name="TubeMetres">Effective length of the closed slide's tube; 2.75 m by default (ours, editable: calibrate each slide).</param>
/// <param name="TravelCm">How far the slide can be drawn.</param>
public sealed record Slide(double TubeMetres, double TravelCm)
{
    /// <summary>A slide pressed against its end stands so far beyond it, by what can be measured (cm; ours, editable).</summary>
    private const double SlackCm = 0.5;

    /// <summary>What the eye finds its positions by.</summary>
    public SlideMarks Marks { get; init; } = SlideMarks.Usual;

    /// <summary>Whether the slide can stand so many centimetres out: it is closed at 0 and goes no further than its travel.</summary>
    public bool CanStandAt(double outCm) => outCm >= -SlackCm && outCm <= TravelCm + SlackCm;
}

/// <summary>A valve of a trombone that adds tube of its own.</summary>
/// <param name="Symbol">Its letter in a setting: <c>T</c> or <c>S</c>.</param>
/// <param name="Semitones">Semitones it lowers the closed slide by.</param>
public sealed record Trigger(string Symbol, int Semitones);

/// <summary>The second, shorter side of a double horn.</summary>
/// <param name="RaisesSemitones">Semitones the thumb side lies above the other.</param>
/// <param name="From">The sounding pitch from which upwards the thumb side is used (common practice).</param>
/// <param name="PartialCosts">Points that a partial costs on this side, where it differs from the general table.</param>
public sealed record ThumbSide(int RaisesSemitones, Pitch From, IReadOnlyDictionary<int, double> PartialCosts);

/// <summary>
/// A brass instrument as far as pitch is concerned: its open tube, what can be added to it, and how its players read.
/// </summary>
public sealed record Instrument
{
    /// <summary>The name used on the command line and in records, such as <c>trumpet-bb</c>.</summary>
    public required string Id { get; init; }

    /// <summary>The name shown to people.</summary>
    public required string Name { get; init; }

    /// <summary><c>trumpet</c>, <c>tenor horn</c>, <c>horn</c>, <c>trombone</c>, <c>euphonium</c> or <c>tuba</c>.</summary>
    public required string Family { get; init; }

    /// <summary>The sounding pitch of partial 1 of the open tube.</summary>
    public required Pitch PartialOne { get; init; }

    /// <summary>The finger valves; empty on a trombone.</summary>
    public required IReadOnlyList<Valve> Valves { get; init; }

    /// <summary>How the valves compensate.</summary>
    public Compensation Compensation { get; init; }

    /// <summary>The valve slides that can be moved while playing; empty for none.</summary>
    public IReadOnlyList<MovableSlide> MovableSlides { get; init; } = [];

    /// <summary>Whether a hand in the bell shades the pitch, as on a horn.</summary>
    public bool HandInBell { get; init; }

    /// <summary>The slide, or none.</summary>
    public Slide? Slide { get; init; }

    /// <summary>The triggers of a trombone; empty for none.</summary>
    public IReadOnlyList<Trigger> Triggers { get; init; } = [];

    /// <summary>
    /// An attachment of a slide as it is called, by the note its closed slide gives for partial 1: <c>F trigger</c>, <c>Gb trigger</c>,
    /// <c>both triggers</c>.
    /// </summary>
    public string TriggerName(string attachment)
    {
        if (attachment.Length > 1)
            return "both triggers";
        var semitones = Triggers.First(trigger => trigger.Symbol == attachment).Semitones;
        var lowered = PartialOne.Transpose(new Interval(-(int)Math.Round(semitones * 7 / 12.0), -semitones));
        return $"{lowered with { Octave = 0 }} trigger".Replace("0", "", StringComparison.Ordinal);
    }

    /// <summary>The second side of a double horn, or none.</summary>
    public ThumbSide? ThumbSide { get; init; }

    /// <summary>The ways its players read, the usual one first.</summary>
    public required IReadOnlyList<Reading> Readings { get; init; }

    /// <summary>The lowest and highest sounding pitch of its fingering chart.</summary>
    public required (Pitch Lowest, Pitch Highest) Range { get; init; }

    /// <summary>The first notes that a beginner meets, as sounding pitches in teaching order.</summary>
    public required IReadOnlyList<Pitch> FirstNotes { get; init; }

    /// <summary>Points that a partial costs on this tube, where it differs from the general table; see the fingering weights.</summary>
    public IReadOnlyDictionary<int, double> PartialCosts { get; init; } = new Dictionary<int, double>();

    /// <summary>Where the data come from.</summary>
    public required string Basis { get; init; }

    /// <summary>Every tube that the player's hands can make, the open one first.</summary>
    public IReadOnlyList<Tube> Tubes { get; private init; } = [];

    /// <summary>The same instrument with its tubes measured, as its valves and slide have them.</summary>
    internal Instrument WithTubes() => this with { Tubes = [.. AllSettings().Select(Measure)] };

    /// <summary>Effective length of the open tube in metres, at 345 m/s.</summary>
    public double OpenMetres => Tubing.EffectiveLengthMetres(Tuning.Built.Frequency(PartialOne));

    /// <summary>
    /// Millimetres to draw the main slide so that the whole instrument comes down by so many cents, negative to push it in: half the length
    /// that is missing on the open tube, a trombone's with its slide closed (computed); never further out than it goes.
    /// </summary>
    /// <param name="centsSharp">How sharp the whole instrument is; negative for flat.</param>
    public double MainSlideMm(double centsSharp) => Math.Min(10 * Tubing.PullCm(OpenTubeMetres, 1, centsSharp), MainSlideMostMm);

    /// <summary>
    /// Millimetres that the main slide can be drawn: a fiftieth of the open tube, 30 on a B flat trumpet (from memory, editable).
    /// </summary>
    public double MainSlideMostMm => 1000 * OpenTubeMetres / 50;

    private double OpenTubeMetres => Slide?.TubeMetres ?? OpenMetres;

    /// <summary>The tube of a setting, or null if this instrument cannot do it.</summary>
    public Tube? TubeOf(Setting setting)
    {
        foreach (var tube in Tubes)
            if (tube.Setting == setting)
                return tube;
        return null;
    }

    /// <summary>The reading with this id; the usual one if the id is null.</summary>
    /// <exception cref="ArgumentException">The instrument has no such reading; the message names those it has.</exception>
    public Reading ReadingOf(string? id) =>
        id is null
            ? Readings[0]
            : Readings.FirstOrDefault(reading => reading.Id == id)
                ?? throw new ArgumentException(
                    $"'{id}' is not a reading of {Id}; it has {string.Join(", ", Readings.Select(reading => reading.Id))}."
                );

    /// <summary>The sounding frequency in hertz of a partial of a tube.</summary>
    public double Frequency(Tube tube, int partial, Tuning tuning) => tuning.Frequency(Midi(tube, partial));

    /// <summary>Where a partial of a tube lies, as a MIDI number with its fraction: the same in any tuning.</summary>
    public double Midi(Tube tube, int partial) =>
        PartialOne.Midi + HarmonicSeries.ExactSemitones(partial) - tube.Semitones + (tube.CentsSharp / 100);

    /// <summary>The sounding note that a partial of a tube stands for in charts, however far off the tube lies.</summary>
    public Pitch NoteOf(Tube tube, int partial) => Pitch.FromMidi(PartialOne.Midi + HarmonicSeries.Semitones(partial) - tube.Semitones);

    /// <summary>The same instrument with other valve or slide lengths, as a very one has them.</summary>
    internal Instrument Built(IReadOnlyList<Valve> valves, Slide? slide) => (this with { Valves = valves, Slide = slide }).WithTubes();

    /// <summary>Length in metres of the closed slide's tube with a trigger in use.</summary>
    internal double SlideTubeMetres(string attachment) => Slide!.TubeMetres * Math.Pow(2, TriggerSemitones(attachment) / 12.0);

    /// <summary>
    /// Semitones by which triggers lower the closed slide; two together add their tubes, which is less than the sum (computed).
    /// </summary>
    internal int TriggerSemitones(string attachment) =>
        (int)
            Math.Round(
                12
                    * Math.Log2(
                        1 + attachment.Sum(symbol => Tubing.AddedShare(Triggers.First(trigger => trigger.Symbol[0] == symbol).Semitones))
                    )
            );

    private Tube Measure(Setting setting) => Slide is null ? Tubing.OfValves(this, setting) : Tubing.OfSlide(this, setting);

    private IEnumerable<Setting> AllSettings() => Slide is null ? ValveSettings() : SlideSettings();

    private IEnumerable<Setting> ValveSettings()
    {
        string[] sides = ThumbSide is null ? [""] : ["", "T"];
        foreach (var side in sides)
            for (var mask = 0; mask < 1 << Valves.Count; mask++)
                yield return Setting.OfValves(side, Valves.Where((_, index) => (mask & (1 << index)) != 0).Select(valve => valve.Number));
    }

    private IEnumerable<Setting> SlideSettings()
    {
        for (var mask = 0; mask < 1 << Triggers.Count; mask++)
        {
            var attachment = string.Concat(Triggers.Where((_, index) => (mask & (1 << index)) != 0).Select(trigger => trigger.Symbol));
            for (var position = 1; position <= 7; position++)
                if (Tubing.SlideOutCm(SlideTubeMetres(attachment), position) <= Slide!.TravelCm)
                    yield return Setting.OfSlide(position, attachment);
        }
    }
}
