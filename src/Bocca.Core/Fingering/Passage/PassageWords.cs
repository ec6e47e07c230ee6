namespace Bocca.Core.Fingering.Passage;

/// <summary>Says of a line that was planned why each note is fingered so, and what was gained.</summary>
internal sealed class PassageWords(
    PassagePlayer player,
    IReadOnlyList<PassageNote> notes,
    PassageCosting costing,
    IReadOnlyList<IReadOnlyList<PassageWay>> ways,
    int[] path,
    IReadOnlyList<IReadOnlyList<PassageWay>> plain
)
{
    /// <summary>Centimetres and cents that are worth saying.</summary>
    private const double LeastCm = 1,
        LeastCents = 1;

    public PassageChoice Choice(int i)
    {
        var (way, chart) = (ways[i][path[i]], plain[i][0]);
        return new PassageChoice(way.Fingering, chart.Fingering, Reason(i, way, chart))
        {
            IsPinned = notes[i].Pin is not null,
            Barred = way.Fingering.Barred,
            SlideCm = way.Cm,
            Slur = SlurOf(i, way),
        };
    }

    public PassageGain Gain()
    {
        var (fingers, cm, cents) = (0, 0.0, 0.0);
        for (var i = 0; i < path.Length; i++)
        {
            cents += Off(plain[i][0]) - Off(Way(i));
            if (i == 0)
                continue;
            fingers += PassageCosting.Moved(plain[i - 1][0], plain[i][0]) - PassageCosting.Moved(Way(i - 1), Way(i));
            cm += Math.Abs(plain[i][0].Cm - plain[i - 1][0].Cm) - Math.Abs(Way(i).Cm - Way(i - 1).Cm);
        }

        return player.Instrument.Slide is null
            ? new PassageGain(fingers, 0, cents / path.Length)
            : new PassageGain(0, cm, cents / path.Length);
    }

    private PassageWay Way(int i) => ways[i][path[i]];

    /// <summary>How far off a note is where nothing but the lips mends it, cents.</summary>
    private static double Off(PassageWay way) => way.TuningPoints > 0 ? Math.Abs(way.Fingering.Cents) : 0;

    private SlideSlur SlurOf(int i, PassageWay way)
    {
        if (i == 0 || !costing.HasTurns || !notes[i].IsSlurred || notes[i].Sounding.Midi == notes[i - 1].Sounding.Midi)
            return SlideSlur.None;
        return costing.IsSmear(i, Way(i - 1), way) ? SlideSlur.Doo : SlideSlur.Lip;
    }

    private string Reason(int i, PassageWay way, PassageWay chart)
    {
        if (way.Fingering.Barred is { } barred)
            return barred;
        if (notes[i].Pin is not null)
            return "Chosen by the teacher.";
        if (way.Fingering.IsPinned)
            return "Pinned for this note by the teacher.";
        if (way.Fingering.Setting == chart.Fingering.Setting)
            return ways[i].Count == 1 ? "The only way in use." : "The chart's own.";
        var gains = Gains(i, way, chart);
        var why = gains.Count > 0 ? string.Join("; ", gains) : "easier with what stands beside it";
        return $"Instead of {chart.Fingering.Setting}: {why}.";
    }

    private List<string> Gains(int i, PassageWay way, PassageWay chart)
    {
        var gains = new List<string>();
        if (player.Instrument.Slide is null)
        {
            var (own, other) = (Around(i, way, PassageCosting.Moved), Around(i, chart, PassageCosting.Moved));
            if (own < other)
                gains.Add($"{own:0} {(own == 1 ? "finger moves" : "fingers move")} instead of {other:0}");
        }
        else
        {
            var (own, other) = (Around(i, way, Distance), Around(i, chart, Distance));
            if (own < other - LeastCm)
                gains.Add($"the slide goes {own:0} cm instead of {other:0}");
            if (i > 0 && costing.IsSmear(i, Way(i - 1), chart) && !costing.IsSmear(i, Way(i - 1), way))
                gains.Add("the lip slurs it");
        }

        if (Math.Abs(Off(way) - Off(chart)) >= LeastCents)
            gains.Add($"{way.Fingering.Cents:+0;-0;0} cents instead of {chart.Fingering.Cents:+0;-0;0}");
        return gains;
    }

    /// <summary>What a way brings with the notes before and after it as they are fingered.</summary>
    private double Around(int i, PassageWay way, Func<PassageWay, PassageWay, double> of) =>
        (i > 0 ? of(Way(i - 1), way) : 0) + (i + 1 < path.Length ? of(way, Way(i + 1)) : 0);

    private double Around(int i, PassageWay way, Func<PassageWay, PassageWay, int> of) =>
        Around(i, way, (one, other) => (double)of(one, other));

    private static double Distance(PassageWay one, PassageWay other) => Math.Abs(one.Cm - other.Cm);
}
