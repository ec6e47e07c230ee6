using Bocca.Core.Score;
using Bocca.Core.Teaching;

namespace Bocca.Core.Counting;

/// <summary>How a card is done.</summary>
[Flags]
public enum CountWays
{
    /// <summary>Nothing.</summary>
    None = 0,

    /// <summary>It is said aloud.</summary>
    Said = 1,

    /// <summary>It is clapped.</summary>
    Clapped = 2,

    /// <summary>It is tapped on a key or on glass.</summary>
    Tapped = 4,

    /// <summary>It is played on one note.</summary>
    Played = 8,

    /// <summary>What is played is played on the notes of the card.</summary>
    OnNotes = 16,
}

/// <summary>Cards in a row, and how they are done.</summary>
/// <param name="Cards">The cards, one to <see cref="MostCards"/>, all of one metre.</param>
/// <param name="Tempo">Beats of the metre a minute.</param>
/// <param name="GapBeats">Beats of rest between two cards.</param>
/// <param name="Ways">How.</param>
public sealed record CountAsked(IReadOnlyList<RhythmCard> Cards, double Tempo, int GapBeats, CountWays Ways)
{
    /// <summary>The most cards in a row, and the longest rest between two (ours).</summary>
    public const int MostCards = 4,
        MostGap = 8;

    /// <summary>Cards as somebody asks for them.</summary>
    /// <param name="cards">The text of each.</param>
    /// <param name="metre">Their metre.</param>
    /// <param name="tempo">Beats of the metre a minute, within what can be counted (<see cref="CuePlan.TempoRange"/>).</param>
    /// <param name="gapBeats">Beats of rest between two, 0 to <see cref="MostGap"/>.</param>
    /// <param name="ways">How they are done.</param>
    /// <exception cref="ArgumentException">They cannot be done so; the sentence says why.</exception>
    public static CountAsked Of(IReadOnlyList<string> cards, Metre metre, double tempo, int gapBeats, CountWays ways)
    {
        if (cards.Count is 0 or > MostCards)
            throw new ArgumentException($"1 to {MostCards} cards stand in a row.");
        if (gapBeats is < 0 or > MostGap)
            throw new ArgumentException($"0 to {MostGap} beats may lie between cards.");
        var (slowest, fastest) = CuePlan.TempoRange;
        if (!(tempo >= slowest && tempo <= fastest))
            throw new ArgumentException($"Cards go at {slowest:0} to {fastest:0} beats a minute, not {tempo:0}.");
        return new CountAsked([.. cards.Select(card => RhythmCard.Parse(card, metre))], tempo, gapBeats, ways).Checked();
    }

    /// <summary>The same where it can be done so.</summary>
    /// <exception cref="ArgumentException">It is to be played on its notes, and a card has none.</exception>
    public CountAsked Checked() =>
        Ways.HasFlag(CountWays.OnNotes) && Cards.Any(card => card.Onsets.Any() && card.Written.Count == 0)
            ? throw new ArgumentException("These cards have no notes: take a bar of a piece, or name them, as in q.:C4 e:D4 q:E4 q:C4.")
            : this;

    /// <summary>Seconds that a beat lasts.</summary>
    public double BeatSeconds => 60 / Tempo;

    /// <summary>Seconds that a quarter lasts.</summary>
    public double QuarterSeconds => BeatSeconds / Metre.Beat.Value;

    /// <summary>The metre of all of them.</summary>
    public Metre Metre => Cards[0].Metre;

    /// <summary>When a card begins, seconds from the first beat.</summary>
    /// <param name="card">Which, from 0.</param>
    public double StartSeconds(int card) =>
        (Cards.Take(card).Sum(each => each.Length.Value) * QuarterSeconds) + (card * GapBeats * BeatSeconds);

    /// <summary>Beats from the first to the end of the last card.</summary>
    public double TotalBeats => (StartSeconds(Cards.Count - 1) + (Cards[^1].Length.Value * QuarterSeconds)) / BeatSeconds;

    /// <summary>The beats as they are counted aloud: from one in each bar, and from one again in the rest between two cards.</summary>
    public IReadOnlyList<CountedBeat> CountedBeats =>
        [
            .. Cards
                .SelectMany(card => CardBeats(card).Concat(RestBeats))
                // No rest is counted after the last card.
                .SkipLast(GapBeats),
        ];

    private IEnumerable<CountedBeat> RestBeats =>
        Enumerable.Range(0, GapBeats).Select(beat => new CountedBeat(beat + 1, "rest", BeatPhase.Rest));

    private IEnumerable<CountedBeat> CardBeats(RhythmCard card) =>
        Enumerable
            .Range(0, (int)Math.Round(card.Length.Value / Metre.Beat.Value))
            .Select(beat => new CountedBeat((beat % Metre.Beats) + 1, "", BeatPhase.Sound));

    /// <summary>As many of the cards as were over by then.</summary>
    /// <param name="beats">Beats from the first.</param>
    /// <exception cref="ArgumentException">None was.</exception>
    public CountAsked UpTo(double beats)
    {
        var over = Cards.Where((card, i) => StartSeconds(i) + (card.Length.Value * QuarterSeconds) <= (beats * BeatSeconds) + 0.02).Count();
        return over > 0
            ? this with
            {
                Cards = [.. Cards.Take(over)],
            }
            : throw new ArgumentException("Nothing was finished yet: go to the end of one card at least.");
    }
}
