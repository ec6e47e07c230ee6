namespace Bocca.Core.Counting;

/// <summary>What is said of a row of cards: what went otherwise first, and which of the two went right.</summary>
public static class CountWords
{
    /// <summary>From so many milliseconds on it is told which of the two is ahead (ours, editable).</summary>
    private const double ToldAhead = 40;

    /// <summary>The sentence.</summary>
    public static string Of(CountAsked asked, IReadOnlyList<HeardCard> cards)
    {
        var (said, hands) = (Track(cards, card => card.Said), Track(cards, card => card.Clapped));
        var (count, clap) = ("count", Hands(asked.Ways));
        if (said is null || hands is null)
            return (said, hands) switch
            {
                ({ } only, null) => Alone(only, count, "said"),
                (null, { } only) => Alone(only, clap, Done(asked.Ways)),
                _ => "Nothing was asked.",
            };
        var done = Done(asked.Ways);
        return (said.Value.Problem, hands.Value.Problem) switch
        {
            (null, null) => $"Said and {done} right.{AheadOf(cards, clap)}",
            (null, { } off) => $"{Capital(off)}; said right.",
            ({ } off, null) => $"{Capital(off)}; {done} right.",
            ({ } voice, { } hand) => $"{Capital(hand)}; {voice}.",
        };
    }

    /// <summary>What went otherwise in a track, as part of a sentence; null where nothing did.</summary>
    public static string? Problem(CountedTrack track, string what)
    {
        if (track.Passed)
            return null;
        var missing = track.Beats.Where(beat => beat.ErrorMs is null).ToList();
        if (missing.Count == track.Beats.Count)
            return $"no {what} was heard";
        if (missing.Count > 0)
            return $"{what} missing on {missing[0].Place}{(missing.Count > 1 ? $" and {missing.Count - 1} more" : "")}";
        if (track.ExtraSeconds.Count > 0)
            return $"{track.ExtraSeconds.Count} {what}{(track.ExtraSeconds.Count == 1 ? "" : "s")} too many";
        if (track is { Drifts: true, DriftPercent: { } faster })
            return $"the {what}s get {(faster > 0 ? "faster" : "slower")}, {Math.Abs(faster):0} per cent over the card";
        var worst = track.Beats.MaxBy(beat => Math.Abs(beat.ErrorMs!.Value))!;
        return $"{what} on {worst.Place} {Math.Abs(worst.ErrorMs!.Value):0} ms {(worst.ErrorMs > 0 ? "late" : "early")}";
    }

    private static (string? Problem, int Cards)? Track(IReadOnlyList<HeardCard> cards, Func<HeardCard, CountedTrack?> of)
    {
        var tracks = cards.Select((card, i) => (Track: of(card), Number: i + 1)).Where(each => each.Track is not null).ToList();
        if (tracks.Count == 0)
            return null;
        foreach (var (track, number) in tracks)
            if (Problem(track!, track!.What) is { } problem)
                return (cards.Count > 1 ? $"{problem}, card {number}" : problem, tracks.Count);
        return (null, tracks.Count);
    }

    private static string Alone((string? Problem, int Cards) track, string what, string done) =>
        track.Problem is { } problem ? $"{Capital(problem)}." : $"{Capital(done)} right: every {what} came in its place.";

    private static string AheadOf(IReadOnlyList<HeardCard> cards, string what)
    {
        var ahead = cards.Select(card => card.AheadMs).OfType<double>().ToList();
        if (ahead.Count == 0 || ahead.Average() is var mean && Math.Abs(mean) < ToldAhead)
            return "";
        return mean > 0 ? $" The {what}s come {mean:0} ms before the voice." : $" The voice comes {-mean:0} ms before the {what}s.";
    }

    private static string Hands(CountWays ways) =>
        ways.HasFlag(CountWays.Tapped) ? "tap"
        : ways.HasFlag(CountWays.Played) ? "note"
        : "clap";

    private static string Done(CountWays ways) =>
        ways.HasFlag(CountWays.Tapped) ? "tapped"
        : ways.HasFlag(CountWays.Played) ? "played"
        : "clapped";

    private static string Capital(string words) => char.ToUpperInvariant(words[0]) + words[1..];
}
