namespace Bocca.Core.Fingering.Passage;

/// <summary>A way to play one note, with what the search asks of it.</summary>
/// <param name="Fingering">The way.</param>
/// <param name="Points">What speaks against it whatever stands beside it, points; tuning and being out of reach apart.</param>
/// <param name="TuningPoints">What its tuning costs on a note of full weight, points.</param>
/// <param name="Cm">Where the slide stands, its correction included, cm; 0 without a slide.</param>
/// <param name="Valves">The finger valves down, a bit each, the first the lowest.</param>
/// <param name="Thumbs">The thumb valve or the triggers in use, a bit each.</param>
public sealed record PassageWay(Fingering Fingering, double Points, double TuningPoints, double Cm, int Valves, int Thumbs)
{
    /// <summary>Every way to play a note that the hand can do, the chart's first; with what stops it where it can do none.</summary>
    public static IReadOnlyList<PassageWay> Of(PassagePlayer player, Music.Pitch sounding)
    {
        var all = Every(player, sounding);
        // What the teacher pinned for the note everywhere stands alone.
        var ways = all is [{ IsPinned: true } pinned, ..] ? [pinned] : all.Where(way => way.Barred is null).ToList();
        return [.. (ways.Count > 0 ? ways : all).Select(way => Of(player, way))];
    }

    /// <summary>
    /// Every way to play a note at all, best first: the same that a chart or a single note has for this player; what the hand cannot do
    /// says why.
    /// </summary>
    public static IReadOnlyList<Fingering> Every(PassagePlayer player, Music.Pitch sounding) =>
        FingeringFinder.FindSounding(player.Instrument, sounding, player.Weights, player.Hand, player.Passport);

    internal static PassageWay Of(PassagePlayer player, Fingering way)
    {
        var costs = player.Costs;
        var points = 0.0;
        foreach (var reason in way.Reasons)
            points += reason.Kind switch
            {
                RankingKind.Tuning => 0,
                RankingKind.HornSide when IsNearTheLine(player, way) => costs.OtherSideNearTheLine,
                RankingKind.ThirdValve when player.ThirdIsEqual => costs.ThirdAsEqual,
                _ => reason.Points,
            };
        if (player.Instrument.Slide is null && way.Partial is 7 or 11 or 13 or 14)
            points += costs.NaturalPartial;
        var valves = 0;
        foreach (var valve in way.Setting.Valves)
            valves |= 1 << (valve - 1);
        var cm = player.Instrument.Slide is null ? 0 : way.Tube.SlideOutCm + (way.Correction is { What: "slide" } moved ? moved.Cm : 0);
        var thumbs = (way.Setting.Attachment.Contains('T') ? 1 : 0) + (way.Setting.Attachment.Contains('S') ? 2 : 0);
        var tuning = way.Reasons.Where(reason => reason.Kind == RankingKind.Tuning).Sum(reason => reason.Points);
        return new PassageWay(way, points, tuning, cm, valves, thumbs);
    }

    private static bool IsNearTheLine(PassagePlayer player, Fingering way) =>
        player.Instrument.ThumbSide is { } side && Math.Abs(way.Sounding.Midi - side.From.Midi) <= player.Costs.NearTheLineSemitones;
}
