using MathNet.Numerics;
using MathNet.Numerics.Statistics;

namespace Bocca.Core.Practice.Week;

/// <summary>A kept take, as far as it tells what practice brings.</summary>
/// <param name="Drill">Its drill, as <c>stop:drill</c>.</param>
/// <param name="Day">The day, as a day number.</param>
/// <param name="Share">The share that came, 0 to 1.</param>
/// <param name="Minutes">Minutes that sounded.</param>
/// <param name="Passed">Whether it passed.</param>
public readonly record struct DrillTake(string Drill, int Day, double Share, double Minutes, bool Passed);

/// <summary>What practice of a drill brought.</summary>
/// <param name="Drill">The drill.</param>
/// <param name="Takes">From how many takes.</param>
/// <param name="PerMinute">Points in a hundred that the share gained for each minute that sounded.</param>
/// <param name="Error">Its standard error; endless where it cannot be told.</param>
/// <param name="Kept">What of a day's share was still there on the next day of it, 0 to 1; null where that is not known.</param>
/// <param name="Weight">What its urgency is multiplied by.</param>
public sealed record DrillGain(string Drill, int Takes, double PerMinute, double Error, double? Kept, double Weight)
{
    /// <summary>The same in words.</summary>
    public string Words =>
        double.IsFinite(Error)
            ? $"{PerMinute:+0.0;-0.0} ± {Error:0.0} points a minute over {Takes} takes"
                + (Kept is { } kept ? $", {100 * kept:0} % kept" : "")
            : $"{Takes} takes: too few to tell";
}

/// <summary>
/// What worked with one pupil: the gain of each drill for a minute of it, with its uncertainty, as a line through the shares over the
/// minutes (least squares); drawn towards the pupil's usual gain by as much as it is unsure. It moves the next plan by three tenths at most
/// (ours, editable).
/// </summary>
public static class WhatWorked
{
    /// <summary>Fewer takes than this tell nothing.</summary>
    private const int Fewest = 4;

    /// <summary>No gain is known better than this, points a minute: shares come in steps.</summary>
    private const double LeastError = 0.5;

    /// <summary>The most that it moves an urgency.</summary>
    private const double MostMoved = 0.3;

    /// <summary>Less than this kept from day to day wants to be recalled sooner.</summary>
    private const double WellKept = 0.9;

    /// <summary>The gains of all drills, by drill.</summary>
    /// <param name="takes">Kept takes of the last weeks, the oldest first.</param>
    public static IReadOnlyDictionary<string, DrillGain> Of(IEnumerable<DrillTake> takes)
    {
        var drills = takes.GroupBy(take => take.Drill).Select(each => (each.Key, Takes: each.ToList())).ToList();
        var lines = drills.ConvertAll(each => (each.Key, each.Takes, Line: Line(each.Takes)));
        var told = lines.Where(each => double.IsFinite(each.Line.Error)).Select(each => each.Line).ToList();
        var (usual, between) = Between(told);
        return lines.ToDictionary(
            each => each.Key,
            each =>
            {
                var (slope, error) = each.Line;
                var sure = between > 0 && double.IsFinite(error) ? between / (between + (error * error)) : 0;
                var kept = KeptOf(each.Takes);
                var moved = between > 0 ? sure * (slope - usual) / Math.Sqrt(between) : 0;
                if (kept is < WellKept)
                    moved += (WellKept - kept.Value) / WellKept;
                return new DrillGain(each.Key, each.Takes.Count, slope, error, kept, 1 + (MostMoved * Math.Tanh(moved)));
            },
            StringComparer.Ordinal
        );
    }

    /// <summary>An item as what worked weighs it; the same where nothing is known.</summary>
    public static WeekItem Weighed(WeekItem item, IReadOnlyDictionary<string, DrillGain> gains) =>
        gains.TryGetValue(item.Id, out var gain) ? item with { Urgency = Math.Min(10, item.Urgency * gain.Weight) } : item;

    /// <summary>What a drill is for, by how its last takes stood: near its gate, a little too hard, or neither.</summary>
    /// <param name="takes">Its takes, the oldest first.</param>
    public static WeekKind? Standing(IReadOnlyList<DrillTake> takes) =>
        takes.Count == 0 || takes[^1].Passed
            ? null
            : takes.TakeLast(3).Average(take => take.Share) switch
            {
                >= 0.6 => WeekKind.Gate,
                >= 0.3 => WeekKind.Stretch,
                _ => null,
            };

    /// <summary>
    /// The pupil's usual gain, and how far drills lie apart beyond what chance alone would put between them, as a variance (DerSimonian and
    /// Laird 1986, doi:10.1016/0197-2456(86)90046-2).
    /// </summary>
    private static (double Usual, double Between) Between(List<(double Slope, double Error)> lines)
    {
        if (lines.Count < 2)
            return (lines.Count == 1 ? lines[0].Slope : 0, 0);
        var weights = lines.ConvertAll(line => 1 / Square(line.Error));
        var all = weights.Sum();
        var mean = lines.Zip(weights, (line, weight) => weight * line.Slope).Sum() / all;
        var off = lines.Zip(weights, (line, weight) => weight * Square(line.Slope - mean)).Sum();
        var between = Math.Max(0, (off - (lines.Count - 1)) / (all - (weights.Sum(Square) / all)));
        weights = lines.ConvertAll(line => 1 / (Square(line.Error) + between));
        return (lines.Zip(weights, (line, weight) => weight * line.Slope).Sum() / weights.Sum(), between);
    }

    private static double Square(double value) => value * value;

    private static (double Slope, double Error) Line(List<DrillTake> takes)
    {
        if (takes.Count < Fewest)
            return (0, double.PositiveInfinity);
        var minutes = new double[takes.Count];
        for (var at = 1; at < takes.Count; at++)
            minutes[at] = minutes[at - 1] + takes[at - 1].Minutes;
        var shares = takes.Select(take => 100 * take.Share).ToArray();
        var wide = minutes.PopulationVariance() * minutes.Length;
        if (wide < 1e-9)
            return (0, double.PositiveInfinity);
        var (intercept, slope) = Fit.Line(minutes, shares);
        var residual = minutes.Zip(shares, (x, y) => y - intercept - (slope * x)).Sum(off => off * off);
        return (slope, Math.Max(LeastError, Math.Sqrt(residual / (takes.Count - 2) / wide)));
    }

    /// <summary>The first take of a day beside the last one of the day before, over all such pairs.</summary>
    private static double? KeptOf(List<DrillTake> takes)
    {
        const int FewestPairs = 3;
        var pairs = takes.Zip(takes.Skip(1)).Where(pair => pair.Second.Day > pair.First.Day && pair.First.Share > 0).ToList();
        return pairs.Count < FewestPairs ? null : pairs.Average(pair => Math.Min(1, pair.Second.Share / pair.First.Share));
    }
}
