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

    /// <summary>Combinations of four finger valves.</summary>
    private const int Combinations = 16;

    private readonly PassageCosts _costs = player.Costs;
    private readonly double[] _fingers = Fingers(player.Costs);

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

    /// <summary>What it costs that the slide turns on the note before: 0 where there is no slide.</summary>
    public long Turn(int note) => HasTurns ? Whole(_costs.PerTurn / Seconds(note)) : 0;

    /// <summary>Whether the slide turns between three ways.</summary>
    public static bool IsTurn(PassageWay before, PassageWay from, PassageWay to) => (from.Cm - before.Cm) * (to.Cm - from.Cm) < 0;

    /// <summary>What a whole line costs, played so.</summary>
    public long Of(IReadOnlyList<PassageWay> ways)
    {
        var cost = 0L;
        for (var i = 0; i < ways.Count; i++)
        {
            cost += Alone(i, ways[i]);
            if (i > 0)
                cost += Change(i, ways[i - 1], ways[i]);
            if (i > 1 && IsTurn(ways[i - 2], ways[i - 1], ways[i]))
                cost += Turn(i);
        }

        return cost;
    }

    /// <summary>Fingers that move between two ways, the thumb among them.</summary>
    public static int Moved(PassageWay from, PassageWay to) =>
        BitOperations.PopCount((uint)(from.Valves ^ to.Valves)) + BitOperations.PopCount((uint)(from.Thumbs ^ to.Thumbs));

    /// <summary>How fast the slide has to go to a note, cm/s.</summary>
    public double Speed(int note, PassageWay from, PassageWay to) => Math.Abs(to.Cm - from.Cm) / (_costs.SlideShareOfTime * Seconds(note));

    /// <summary>Whether a slide drawn within a slur would be heard: it moves and the partial stays.</summary>
    public bool IsSmear(int note, PassageWay from, PassageWay to) =>
        HasTurns && notes[note].IsSlurred && to.Cm != from.Cm && to.Fingering.Partial == from.Fingering.Partial;

    /// <summary>Whether a note goes on from the one before without the tongue.</summary>
    public bool IsSlurred(int note) => notes[note].IsSlurred;

    /// <summary>From the beginning of one note to that of the next, s: the time that a change has.</summary>
    public double Seconds(int note) => Math.Max(_costs.QuickestChange, Math.Round(notes[note].Seconds - notes[note - 1].Seconds, 6));

    private double Slide(int note, PassageWay from, PassageWay to, double seconds)
    {
        var cm = Math.Abs(to.Cm - from.Cm);
        var points = _costs.PerSlideCm * cm / seconds;
        if (Speed(note, from, to) / _costs.SlideLimitCmPerSecond is var over && over > 1)
            points += _costs.PerSlideOverLimit * (over - 1) * (over - 1);
        if (IsSmear(note, from, to))
            points += _costs.Smear + (_costs.PerSmearCm * cm);
        if (from.Thumbs != to.Thumbs)
            points += _costs.PerThumb / seconds;
        return points;
    }

    private double Fingers(PassageWay from, PassageWay to) =>
        _fingers[(from.Valves * Combinations) + to.Valves] + (from.Thumbs == to.Thumbs ? 0 : _costs.PerThumb);

    /// <summary>What each change of the finger valves costs at a second.</summary>
    private static double[] Fingers(PassageCosts costs)
    {
        var points = new double[Combinations * Combinations];
        for (var from = 0; from < Combinations; from++)
        for (var to = 0; to < Combinations; to++)
        {
            var (down, up) = (to & ~from, from & ~to);
            var contrary = BitOperations.PopCount((uint)((down & (up << 1)) | (up & (down << 1))));
            points[(from * Combinations) + to] =
                (costs.PerFinger * BitOperations.PopCount((uint)(down | up))) + (costs.PerContraryPair * contrary);
        }

        return points;
    }

    private static long Whole(double points) => (long)Math.Round(points * Unit);
}
