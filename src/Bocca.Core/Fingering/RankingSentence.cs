namespace Bocca.Core.Fingering;

/// <summary>Why a way stands where it stands, in one sentence.</summary>
internal static class RankingSentence
{
    /// <summary>What stands against a way, and what the way it is measured against has that it has not.</summary>
    public static string Of(Fingering way, IReadOnlyList<Fingering> ways)
    {
        if (way.Barred is { } barred)
            return $"Not for this hand yet: {barred}";
        var rivals = ways.Where(other => other.Barred is null && !other.IsPinned).ToList();
        if (way.IsPinned)
            return $"The teacher's own choice{(rivals.Count > 0 ? $"; else it would be {Named(rivals[0])}" : "")}.";
        var against =
            way.Reasons.Count == 0
                ? "the open tube, in tune by itself"
                : string.Join("; ", way.Reasons.OrderByDescending(reason => reason.Points).Select(reason => reason.Words));
        var place = rivals.FindIndex(other => other.Setting == way.Setting && other.Partial == way.Partial);
        if (rivals.Count == 1)
            return $"The only way: {against}.";
        return place == 0
            ? $"First of {rivals.Count} ways: {against}. The next, {Named(rivals[1])}, has more against it: {Worst(rivals[1], way)}."
            : $"After {Named(rivals[0])}, mostly for this: {Worst(way, rivals[0])}. In all: {against}.";
    }

    private static string Named(Fingering way) => $"{way.Setting} on partial {way.Partial}";

    /// <summary>The reason in which one way is furthest behind another.</summary>
    private static string Worst(Fingering way, Fingering other) =>
        way.Reasons.Count == 0
            ? "nothing by itself"
            : way.Reasons.MaxBy(reason => reason.Points - other.Reasons.Where(its => its.Kind == reason.Kind).Sum(its => its.Points)).Words;
}
