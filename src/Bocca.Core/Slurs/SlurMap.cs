using Bocca.Core.Music;

namespace Bocca.Core.Slurs;

/// <summary>A pair of neighbouring partials on a tube, as a pupil has slurred it.</summary>
/// <param name="Setting">The tube's setting.</param>
/// <param name="Low">The lower partial.</param>
/// <param name="High">The upper partial.</param>
/// <param name="Tried">How often it was tried.</param>
/// <param name="Clean">How often clean.</param>
/// <param name="Last">When last; null for never.</param>
public sealed record SlurPlace(string Setting, int Low, int High, int Tried, int Clean, DateTime? Last)
{
    /// <summary>The two notes as they are read.</summary>
    public required (Pitch Low, Pitch High) Written { get; init; }

    /// <summary>Normal deviate of the interval: 1.645 leaves 5 % on either side.</summary>
    private const double Deviate = 1.645;

    /// <summary>The clean rate, from the least to the most it may be, 0 to 1 (Wilson 1927: score interval, 90 %).</summary>
    public (double Least, double Most) Between
    {
        get
        {
            if (Tried == 0)
                return (0, 1);
            var (n, p, z) = ((double)Tried, (double)Clean / Tried, Deviate);
            var middle = (p + (z * z / (2 * n))) / (1 + (z * z / n));
            var half = z / (1 + (z * z / n)) * Math.Sqrt((p * (1 - p) / n) + (z * z / (4 * n * n)));
            return (Math.Max(0, middle - half), Math.Min(1, middle + half));
        }
    }

    /// <summary>Clean in more than half of the tries beyond doubt.</summary>
    public bool IsSafe => Between.Least > 0.5;

    /// <summary>Not clean in half of the tries beyond doubt.</summary>
    public bool IsWall => Between.Most < 0.5;
}

/// <summary>Which pairs of partials a pupil has slurred, on which tubes.</summary>
/// <param name="Settings">The tubes, in order.</param>
/// <param name="Pairs">The pairs of neighbouring partials, from the lowest.</param>
/// <param name="Places">A place for each pair that a tube has inside the range.</param>
public sealed record SlurMap(IReadOnlyList<string> Settings, IReadOnlyList<(int Low, int High)> Pairs, IReadOnlyList<SlurPlace> Places)
{
    /// <summary>A change of partial that was tried.</summary>
    /// <param name="Setting">On which setting.</param>
    /// <param name="Low">The lower partial.</param>
    /// <param name="High">The upper partial.</param>
    /// <param name="Clean">Whether it came clean.</param>
    /// <param name="At">When.</param>
    public sealed record Change(string Setting, int Low, int High, bool Clean, DateTime At);

    /// <summary>The lowest pair that is a wall; null for none.</summary>
    public SlurPlace? Wall => Places.Where(place => place.IsWall).OrderBy(place => place.Low).FirstOrDefault();

    /// <summary>The tubes on which something was tried, in order.</summary>
    public IReadOnlyList<string> TriedSettings =>
        [.. Settings.Where(setting => Places.Any(place => place.Setting == setting && place.Tried > 0))];

    /// <summary>The pairs of partials that were tried on any tube, from the lowest.</summary>
    public IReadOnlyList<(int Low, int High)> TriedPairs =>
        [.. Pairs.Where(pair => Places.Any(place => (place.Low, place.High) == pair && place.Tried > 0))];

    /// <summary>What was never tried, by tube.</summary>
    public IReadOnlyList<(string Setting, IReadOnlyList<SlurPlace> Places)> Untried =>
        [
            .. Settings
                .Select(setting =>
                    (setting, (IReadOnlyList<SlurPlace>)[.. Places.Where(place => place.Setting == setting && place.Tried == 0)])
                )
                .Where(tube => tube.Item2.Count > 0),
        ];

    /// <summary>The changes of a slur as heard; a slur that never left its note has none.</summary>
    public static IReadOnlyList<Change> Changes(HeardSlur heard, SlurBands bands, DateTime at) =>
        [
            .. heard
                .Changes.Where(change => Math.Abs(change.Partials.To - change.Partials.From) >= 1)
                .Select(change => new Change(
                    change.Setting,
                    Math.Min(change.Partials.From, change.Partials.To),
                    Math.Max(change.Partials.From, change.Partials.To),
                    change.Fault(bands) is null,
                    at
                )),
        ];

    /// <summary>The map of a player.</summary>
    public static SlurMap Of(SlurPlayer player, IReadOnlyList<Change> changes)
    {
        var pair = SlurShape.Get("pair-up");
        var places = player
            .Tubes()
            .SelectMany(tube => SlurWriter.OnTube(player, pair, tube))
            .Select(slur =>
            {
                var (setting, low, high) = (slur.Setting.ToString(), slur.Notes[0].Partial, slur.Notes[1].Partial);
                var own = changes.Where(change => change.Setting == setting && change.Low == low && change.High == high).ToList();
                return new SlurPlace(
                    setting,
                    low,
                    high,
                    own.Count,
                    own.Count(change => change.Clean),
                    own.Count == 0 ? null : own.Max(change => change.At)
                )
                {
                    Written = (slur.Notes[0].Written, slur.Notes[1].Written),
                };
            })
            .ToList();
        return new SlurMap(
            [.. player.Tubes().Select(tube => tube.Setting.ToString())],
            [.. places.Select(place => (place.Low, place.High)).Distinct().Order()],
            places
        );
    }
}
