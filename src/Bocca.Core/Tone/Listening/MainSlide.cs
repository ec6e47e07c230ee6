using Bocca.Core.Music;
using Bocca.Core.Sound;
using Bocca.Core.Tone.Notes;
using MathNet.Numerics.Statistics;

namespace Bocca.Core.Tone.Listening;

/// <summary>
/// What the main slide mends: how far the whole row lies off when each note is held against its own tube. What single tubes, the lips or a
/// drift do to the pitch is not its matter. Limits ours, editable.
/// </summary>
/// <param name="Cents">How sharp the whole row is; negative for flat.</param>
/// <param name="Mm">Millimetres to draw the slide, never beyond its end; negative to push it in.</param>
/// <param name="AtEnd">Whether the slide at its end leaves some of it.</param>
public sealed record MainSlide(double Cents, double Mm, bool AtEnd = false)
{
    /// <summary>It is named from so many notes on, of two settings at least.</summary>
    private const int FewestNotes = 4;

    /// <summary>A whole row nearer than this to its tubes is in tune, and one further off is no matter of tuning (cents).</summary>
    private const double LeastCents = 15,
        MostCents = 150;

    /// <summary>Notes within this of their middle lie off together (cents); so many of them have to.</summary>
    private const double TogetherCents = 15,
        TogetherShare = 0.75;

    /// <summary>A row that moves further than this from its first note to its last drifts (cents).</summary>
    private const double MostDriftCents = 25;

    /// <summary>How far off, which way the slide moves, and how far.</summary>
    public string Sentence =>
        $"The whole row is {Math.Abs(Cents):0} cents {(Cents > 0 ? "sharp" : "flat")}: main slide {(Cents > 0 ? "out" : "in")} "
        + $"{Math.Abs(Mm):0} mm{(AtEnd ? ", as far as it goes; the lips bring down the rest" : Mm < 0 ? ", or as far as it goes" : "")}.";

    /// <summary>What the slide can mend; null for nothing, or where too few notes, or notes of one setting alone, cannot tell.</summary>
    /// <param name="meant">The notes meant.</param>
    /// <param name="sounded">What sounded.</param>
    /// <param name="player">Who plays what.</param>
    /// <param name="shiftCents">The shift that all sounds share against the notes meant.</param>
    internal static MainSlide? Of(
        IReadOnlyList<MeantNote> meant,
        IReadOnlyList<SoundedNote> sounded,
        PlayerSituation player,
        double shiftCents
    )
    {
        var pairs = RowAligner
            .Align(meant, sounded, player.Tuning, shiftCents)
            .Select((answer, i) => (Note: meant[i], Sound: answer is { } at ? sounded[at] : null))
            .Where(pair => pair.Sound is not null)
            .ToList();
        if (pairs.Count < FewestNotes || pairs.Select(pair => pair.Note.Setting).Distinct().Count() < 2)
            return null;
        var times = pairs.ConvertAll(pair => pair.Sound!.StartSeconds);
        var cents = pairs.ConvertAll(pair => Tuning.Cents(player.Hertz(pair.Note.Tube, pair.Note.Partial), pair.Sound!.MedianHz));
        if (Math.Abs(Trend.Of(times, cents).SlopePerSecond) * (times[^1] - times[0]) > MostDriftCents)
            return null;
        var middle = cents.Median();
        return
            Math.Abs(middle) is >= LeastCents and <= MostCents
            && cents.Count(each => Math.Abs(each - middle) <= TogetherCents) >= TogetherShare * cents.Count
            ? new MainSlide(
                middle,
                player.Instrument.MainSlideMm(middle),
                player.Instrument.MainSlideMm(middle) >= player.Instrument.MainSlideMostMm
            )
            : null;
    }
}
