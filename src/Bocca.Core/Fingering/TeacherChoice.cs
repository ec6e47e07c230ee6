using Bocca.Core.Instruments;
using Bocca.Core.Teaching;

namespace Bocca.Core.Fingering;

/// <summary>A choice between fingerings that an approach leaves to the teacher.</summary>
public static class TeacherChoice
{
    /// <summary>What to ask about a note's fingerings; null where nothing is left open.</summary>
    public static string? Between(IReadOnlyList<Fingering> ways, Approach approach)
    {
        if (approach.Of(Points.FourthValve) != FourthValve.Ask)
            return null;
        var settings = ways.Select(way => way.Setting.ToString()).ToHashSet();
        return settings.Contains("4") && settings.Contains("1-3") ? "Ask your teacher which: 4, or 1-3."
            : settings.Contains("2-4") && settings.Contains("1-2-3") ? "Ask your teacher which: 2-4, or 1-2-3."
            : null;
    }

    /// <summary>
    /// The setting that an approach shows beside the first choice as its equal: valve 3 beside 1-2, which stays the first choice on every
    /// chart (common practice). Null where there is none.
    /// </summary>
    public static Setting? EqualTo(IReadOnlyList<Fingering> ways, Approach approach)
    {
        if (approach.Of(Points.ThirdValve) != ThirdValve.MayReplaceFirstAndSecond || ways.Count == 0)
            return null;
        var first = ways[0];
        return first.Setting.Valves.SequenceEqual([1, 2])
            ? ways.Where(way =>
                    way.Partial == first.Partial
                    && way.Setting.Attachment == first.Setting.Attachment
                    && way.Setting.Valves.SequenceEqual([3])
                )
                .Select(way => (Setting?)way.Setting)
                .FirstOrDefault()
            : null;
    }
}
