using Bocca.Core.Score;

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
