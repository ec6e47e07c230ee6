using Bocca.Core.Judging;
using Bocca.Core.Teaching;
using MathNet.Numerics.Statistics;

namespace Bocca.Core.Embouchure;

/// <summary>The shares above that an approach accepts.</summary>
/// <param name="Least">Smallest share.</param>
/// <param name="Most">Largest share.</param>
/// <param name="Says">The span in words.</param>
public sealed record PlacementSpan(double Least, double Most, string Says)
{
    private const double OwnHalfWidth = 0.05;
    private static readonly Lazy<IReadOnlyList<Entry>> Shipped = new(() => EmbeddedData.Read<List<Entry>>("placement-spans.json"));

    /// <summary>
    /// The span of a family under an approach (<c>mp.share</c>); a pupil's own is the median of earlier placements, give or take.
    /// </summary>
    /// <param name="family">The instrument's family.</param>
    /// <param name="approach">The approach.</param>
    /// <param name="earlier">The pupil's earlier shares.</param>
    public static PlacementSpan Of(string family, Approach approach, IReadOnlyList<double> earlier)
    {
        var option = approach.Of(Points.MouthpieceShare);
        if (option == MouthpieceShare.OwnSpan && earlier.Count >= 3)
        {
            var (middle, half) = (earlier.Median(), Math.Max(OwnHalfWidth, 2 * earlier.StandardDeviation()));
            return new PlacementSpan(middle - half, middle + half, "in the pupil's own span");
        }

        // Until there is an own span, any comfortable placement is one.
        var asked = Points.MouthpieceShare.IdOf(option == MouthpieceShare.OwnSpan ? MouthpieceShare.WhereComfortable : option);
        var entry = Shipped.Value.First(each => each.Option == asked && (each.Family is null || each.Family == family));
        return new PlacementSpan(entry.Least, entry.Most, entry.Says);
    }

    private sealed record Entry(string Option, string? Family, double Least, double Most, string Says);
}

/// <summary>The judgement of a placement.</summary>
/// <param name="Inside">Whether all of it lies inside what the approach accepts.</param>
/// <param name="Span">The share asked.</param>
/// <param name="Sentences">What was measured, against the span and against earlier placements.</param>
/// <param name="Evidence">The same as signals for advice.</param>
public sealed record PlacementVerdict(bool Inside, PlacementSpan Span, IReadOnlyList<string> Sentences, IReadOnlyList<Evidence> Evidence);

/// <summary>
/// Judges a placement against the approach and the pupil's earlier ones; camera measures stay hints until a teacher ticks.
/// </summary>
public static class PlacementJudge
{
    /// <summary>Sideways limit as a share of the rim (ours, editable).</summary>
    private const double AsideShare = 0.12;

    /// <summary>Tilt of the lips against the face that passes, degrees (ours, editable).</summary>
    private const double LevelDegrees = 6;

    /// <summary>Judges.</summary>
    /// <param name="placement">What was measured.</param>
    /// <param name="family">The instrument's family.</param>
    /// <param name="rimMm">Outer diameter of the rim.</param>
    /// <param name="approach">The approach.</param>
    /// <param name="earlier">The shares of earlier placements, the oldest first.</param>
    public static PlacementVerdict Judge(Placement placement, string family, double rimMm, Approach approach, IReadOnlyList<double> earlier)
    {
        var span = PlacementSpan.Of(family, approach, earlier);
        var sentences = new List<string>();
        var evidence = new List<Evidence>();
        void Say(string sentence, string? signal = null)
        {
            sentences.Add(sentence);
            if (signal is not null)
                evidence.Add(new Evidence(signal, sentence));
        }

        var share = $"{100 * placement.ShareAbove:0} % of the ring above the lip line (give or take {100 * placement.ShareError:0.#})";
        var inSpan = placement.ShareAbove >= span.Least - placement.ShareError && placement.ShareAbove <= span.Most + placement.ShareError;
        Say(
            inSpan
                ? $"{share}: {span.Says}."
                : $"{share}: {(placement.ShareAbove > span.Most ? "higher" : "lower")} than {span.Says}, {100 * span.Least:0} to "
                    + $"{100 * span.Most:0} %.",
            inSpan ? null : "placed.outside"
        );
        var aside = Math.Abs(placement.OffsetMm) > (AsideShare * rimMm) + placement.OffsetErrorMm;
        Say(
            Math.Abs(placement.OffsetMm) < 0.25
                ? "On the middle."
                : $"{Math.Abs(placement.OffsetMm):0.#} mm to the {(placement.OffsetMm >= 0 ? "left" : "right")} of the "
                    + $"middle{(aside ? $"; {AsideShare * rimMm:0.#} mm is the aim" : "")}.",
            aside ? "placed.sideways" : null
        );
        var tilted = Math.Abs(placement.TiltDegrees) > LevelDegrees;
        Say(
            Math.Abs(placement.TiltDegrees) < 1
                ? "Level."
                : $"{(placement.TiltDegrees > 0 ? "Left" : "Right")} corner {Degrees(placement.TiltDegrees)} "
                    + $"higher{(tilted ? $"; {LevelDegrees:0} is the aim" : "")}.",
            tilted ? "placed.tilted" : null
        );
        if (Drift(placement, earlier) is { } drift)
            Say(drift, "placed.moved");
        return new PlacementVerdict(inSpan && !aside && !tilted, span, sentences, evidence);
    }

    private static string Degrees(double tilt) => $"{Math.Abs(tilt):0}" is "1" ? "1 degree" : $"{Math.Abs(tilt):0} degrees";

    /// <summary>What has changed against earlier placements; null unless it is more than their own spread and the marks' error.</summary>
    private static string? Drift(Placement placement, IReadOnlyList<double> shares)
    {
        if (shares.Count < 3)
            return null;
        var (middle, spread) = (shares.Median(), Math.Max(2 * shares.StandardDeviation(), 2 * placement.ShareError));
        var change = placement.ShareAbove - middle;
        return Math.Abs(change) <= spread
            ? null
            : $"{100 * Math.Abs(change):0} % {(change > 0 ? "higher" : "lower")} than the usual {100 * middle:0} %, beyond the spread "
                + $"so far.";
    }
}
