using System.Numerics;

namespace Bocca.Core.Fingering.Passage;

/// <summary>
/// What a way through a line costs: whole thousandths of a point, so that sums are exact whatever the order in which they are added.
/// </summary>
/// <param name="player">Who plays.</param>
/// <param name="notes">The line.</param>
public sealed class PassageCosting(PassagePlayer player, IReadOnlyList<PassageNote> notes)
{
    /// <summary>Thousandths of a point.</summary>
    public const double Unit = 1000;

    private readonly PassageCosts _costs = player.Costs;
    private readonly Dictionary<(int, int), double> _fingers = [];

    /// <summary>Whether a turn of the slide costs: then three notes in a row belong together.</summary>
    public bool HasTurns { get; } = player.Instrument.Slide is not null;

    /// <summary>What a way costs on a note by itself.</summary>
    public long Alone(int note, PassageWay way) => Whole(way.Points + (way.TuningPoints * TuningWeight(note)));

    /// <summary>How much tuning counts on a note, times the chart's.</summary>
    public double TuningWeight(int note) =>
        Math.Clamp(notes[note].Held / _costs.SecondsOfFullTuning, _costs.LeastTuning, _costs.MostTuning)
        * (notes[note].IsExposed ? _costs.ExposedTuning : 1);

    /// <summary>What it costs to come to a note from the one before it.</summary>
    public long Change(int note, PassageWay from, PassageWay to)
    {
        var seconds = Seconds(note);
        var points = HasTurns ? Slide(note, from, to, seconds) : Fingers(from, to) / seconds;
        if (notes[note].Sounding.Midi == notes[note - 1].Sounding.Midi && from.Fingering.Setting != to.Fingering.Setting)
            points += _costs.SettingOnOneNote;
        if (player.SlowChanges.Count > 0 && player.SlowChanges.TryGetValue((from.Fingering.Setting, to.Fingering.Setting), out var slower))
            points += _costs.PerOwnSlowSecond * slower / seconds;
        return Whole(points);
    }

    /// <summary>What it costs that the slide turns on the note before.</summary>
    public long Turn(int note, PassageWay before, PassageWay from, PassageWay to) =>
        IsTurn(before, from, to) ? Whole(_costs.PerTurn / Seconds(note)) : 0;

    /// <summary>Whether the slide turns between three ways.</summary>
    public static bool IsTurn(PassageWay before, PassageWay from, PassageWay to) => (from.Cm - before.Cm) * (to.Cm - from.Cm) < 0;

    /// <summary>Fingers that move between two ways, the thumb among them.</summary>
    public static int Moved(PassageWay from, PassageWay to) =>
        BitOperations.PopCount((uint)(from.Valves ^ to.Valves))
        + (from.Fingering.Setting.Attachment == to.Fingering.Setting.Attachment ? 0 : 1);

    /// <summary>How fast the slide has to go to a note, cm/s.</summary>
    public double Speed(int note, PassageWay from, PassageWay to) => Math.Abs(to.Cm - from.Cm) / (_costs.SlideShareOfTime * Seconds(note));

    /// <summary>Whether a slide drawn within a slur would be heard: it moves and the partial stays.</summary>
    public bool IsSmear(int note, PassageWay from, PassageWay to) =>
        HasTurns && notes[note].IsSlurred && to.Cm != from.Cm && to.Fingering.Partial == from.Fingering.Partial;

    /// <summary>From the beginning of one note to that of the next: what a change has.</summary>
    private double Seconds(int note) => Math.Max(_costs.QuickestChange, notes[note].Seconds - notes[note - 1].Seconds);

    private double Slide(int note, PassageWay from, PassageWay to, double seconds)
    {
        var cm = Math.Abs(to.Cm - from.Cm);
        var points = _costs.PerSlideCm * cm / seconds;
        if (Speed(note, from, to) / _costs.SlideLimitCmPerSecond is var over && over > 1)
            points += _costs.PerSlideOverLimit * (over - 1) * (over - 1);
        if (IsSmear(note, from, to))
            points += _costs.Smear + (_costs.PerSmearCm * cm);
        if (from.Fingering.Setting.Attachment != to.Fingering.Setting.Attachment)
            points += _costs.PerThumb / seconds;
        return points;
    }

    private double Fingers(PassageWay from, PassageWay to)
    {
        var thumb = from.Fingering.Setting.Attachment == to.Fingering.Setting.Attachment ? 0 : _costs.PerThumb;
        if (_fingers.TryGetValue((from.Valves, to.Valves), out var known))
            return known + thumb;
        var (down, up) = (to.Valves & ~from.Valves, from.Valves & ~to.Valves);
        var contrary = BitOperations.PopCount((uint)((down & (up << 1)) | (up & (down << 1))));
        var points = (_costs.PerFinger * BitOperations.PopCount((uint)(down | up))) + (_costs.PerContraryPair * contrary);
        _fingers[(from.Valves, to.Valves)] = points;
        return points + thumb;
    }

    private static long Whole(double points) => (long)Math.Round(points * Unit);
}
