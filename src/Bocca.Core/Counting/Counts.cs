using System.Globalization;
using Bocca.Core.Score;
using Bocca.Core.Teaching;

namespace Bocca.Core.Counting;

/// <summary>A line of the grid under a card.</summary>
/// <param name="At">When, in quarters.</param>
/// <param name="Syllable">What is counted: <c>1</c>, <c>&amp;</c>, <c>e</c>, <c>a</c>; in a compound metre the six of 6/8.</param>
/// <param name="Begins">Whether a note begins there: it is said aloud, the others are thought.</param>
public sealed record GridLine(Rational At, string Syllable, bool Begins);

/// <summary>
/// What is counted under a card: <c>1 &amp; 2 &amp;</c> for halves of a beat, <c>1 e &amp; a</c> for its quarters, <c>1 trip let</c> for
/// thirds; in 6/8 every eighth has its number (common practice).
/// </summary>
public static class Counts
{
    private static readonly string[] Quarters = ["", "e", "&", "a"];

    private static readonly string[] Thirds = ["", "trip", "let"];

    /// <summary>The syllable of a moment of a bar; null where it lies on no line that is counted.</summary>
    /// <param name="at">Quarters from the bar's beginning.</param>
    /// <param name="metre">The metre.</param>
    public static string? Syllable(Rational at, Metre metre)
    {
        var beats = at / metre.Beat;
        var beat = beats.Floor;
        var within = beats - new Rational(beat);
        if (metre.IsCompound)
        {
            var sixth = within * 3;
            return sixth.IsWhole ? Number((3 * beat) + sixth.Floor + 1)
                : (sixth * 2).IsWhole ? "&"
                : null;
        }

        return within == Rational.Zero ? Number(beat + 1)
            : (within * 4).IsWhole ? Quarters[(within * 4).Floor]
            : (within * 3).IsWhole ? Thirds[(within * 3).Floor]
            : null;
    }

    /// <summary>What is said at each note that begins, in order.</summary>
    /// <param name="card">The card.</param>
    /// <param name="names">How beats are counted here.</param>
    public static IReadOnlyList<string> Of(RhythmCard card, TimeNames names = TimeNames.Numbers) =>
        [
            .. card
                .Notes.Select((note, i) => (note, i))
                .Where(each => each.note.Begins)
                .Select(each =>
                    names switch
                    {
                        TimeNames.French => French(each.note.At, card.Sounding(each.i), card.Metre),
                        TimeNames.SolFa => SolFa(each.note, card.Sounding(each.i), card.Metre),
                        _ => Syllable(InBar(each.note.At, card.Metre), card.Metre) ?? "-",
                    }
                ),
        ];

    /// <summary>
    /// French time names: <c>ta</c> on the beat, <c>té</c> on its half, <c>fa</c> and <c>fé</c> on its quarters, <c>ta té ti</c> for
    /// thirds; what is held goes on with its vowel (common practice: after the method of Galin, Paris and Chevé).
    /// </summary>
    private static string French(Rational at, Rational length, Metre metre)
    {
        var within = (at / metre.Beat) - new Rational((at / metre.Beat).Floor);
        var said =
            within == Rational.Zero ? "ta"
            : metre.IsCompound || (!(within * 4).IsWhole && (within * 3).IsWhole) ? ((within * 3) == Rational.One ? "té" : "ti")
            : (within * 2).IsWhole ? "té"
            : within < new Rational(1, 2) ? "fa"
            : "fé";
        var more = (int)Math.Max(0, Math.Ceiling(((within + (length / metre.Beat)) - Rational.One).Value - 1e-9));
        return said + string.Concat(Enumerable.Repeat($"-{said[^1]}", more));
    }

    /// <summary>
    /// Sol-fa time names, by value: <c>ta</c> for a beat, <c>ti</c> for its half, <c>ti-ri</c> for its quarters, <c>tri o la</c> for
    /// thirds, <c>ta-a</c> for two beats, <c>tai</c> for one and a half (common practice).
    /// </summary>
    private static string SolFa(CardNote note, Rational length, Metre metre)
    {
        var beats = length / metre.Beat;
        if (note.InTriplet || metre.IsCompound)
        {
            var third = ((note.At / metre.Beat) - new Rational((note.At / metre.Beat).Floor)) * 3;
            if (third.IsWhole && beats < Rational.One)
                return new[] { "tri", "o", "la" }[third.Floor];
        }

        var within = (note.At / metre.Beat) - new Rational((note.At / metre.Beat).Floor);
        return beats == new Rational(3, 2) ? "tai"
            : beats >= Rational.One ? "ta" + string.Concat(Enumerable.Repeat("-a", (int)Math.Max(0, Math.Ceiling(beats.Value - 1e-9) - 1)))
            : beats >= new Rational(1, 2) ? "ti"
            : (within * 2).IsWhole ? "ti"
            : "ri";
    }

    /// <summary>
    /// The half-beat grid: every half of a beat (every third of a compound one), and whatever finer moment a note begins at. It shows why a
    /// dotted quarter is three halves.
    /// </summary>
    public static IReadOnlyList<GridLine> Grid(RhythmCard card)
    {
        var onsets = card.Onsets.ToHashSet();
        var lines = new SortedSet<Rational>(onsets);
        for (var at = Rational.Zero; at < card.Length; at += card.Metre.Part)
            lines.Add(at);
        return [.. lines.Select(at => new GridLine(at, Syllable(InBar(at, card.Metre), card.Metre) ?? "-", onsets.Contains(at)))];
    }

    /// <summary>How many halves of a quarter a length is: three for a dotted quarter, six for a dotted half.</summary>
    public static Rational Halves(Rational length) => length * 2;

    private static Rational InBar(Rational at, Metre metre) => at - (metre.Bar * new Rational((at / metre.Bar).Floor));

    private static string Number(long beat) => beat.ToString(CultureInfo.InvariantCulture);
}
