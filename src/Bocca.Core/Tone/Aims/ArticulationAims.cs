using Bocca.Core.Buzz.Measures;
using Bocca.Core.Judging;
using Bocca.Core.Teaching;
using Bocca.Core.Tone.Listening;
using Bocca.Core.Tone.Notes;
using MathNet.Numerics.Statistics;

namespace Bocca.Core.Tone.Aims;

/// <summary>Holds a row against what a drill of the tongue is for: joined, short, or syllable by syllable.</summary>
internal static class ArticulationAims
{
    /// <summary>How far a short note's share may lie from the one asked (common practice; ours, editable).</summary>
    private const double ShareWithin = 0.1;

    /// <summary>Share of starts that have to be there in time (common practice: eight of ten).</summary>
    private const double ClearShare = 0.8;

    /// <summary>The same note begun by the air alone, then by the tongue: how soon the tone is there, each way by its own band.</summary>
    public static List<AskedHeard> Starts(HeardRow row, StageBands bands) =>
        [
            .. row
                .Notes.GroupBy(note => (note.Asked.Part, note.Asked.Label))
                .Select(group =>
                {
                    var tongued = group.Key.Part != DrillPart.AirStarts;
                    var within = RowArticulation.RiseLimitMs(tongued ? bands.TonguedRiseMs : bands.RiseMs, row);
                    var rises = group.Select(note => note.Sound?.RiseMs).OfType<double>().ToList();
                    return new AskedHeard(
                        tongued ? "begun by the tongue" : "begun by the air",
                        $"there within {within:0} ms",
                        rises.Count == 0
                            ? "no start heard"
                            : $"{rises.Median():0} ms, {rises.Count(rise => rise <= within)} of {group.Count()} in time",
                        rises.Count(rise => rise <= within) >= ClearShare * group.Count(),
                        tongued ? "Say too, tip behind the top teeth." : "Quicker air at the start, the lips ready."
                    )
                    {
                        Pull = tongued ? Pull.Neutral : Pull.Firm,
                    };
                }),
        ];

    /// <summary>Notes under the tongue on one breath: how far up it goes well, and how much of the time sounds.</summary>
    public static List<AskedHeard> Joined(HeardRow row, RowArticulation articulation, StageBands bands)
    {
        var aims = new List<AskedHeard>();
        if (Upward(row, bands) is { } upward)
            aims.Add(upward);
        if (articulation.Duty is { } duty)
            aims.Add(
                new AskedHeard(
                    "joined",
                    $"{100 * bands.DutyShare:0} % sounding or more",
                    $"{100 * duty:0} %",
                    duty >= bands.DutyShare,
                    "Let the air go on under the tongue: one long note, touched."
                )
            );
        if (articulation.RiseMs is { } rise)
            aims.Add(
                new AskedHeard("starts", $"there within {RowArticulation.RiseLimitMs(bands.TonguedRiseMs, row):0} ms", $"{rise:0} ms", null)
            );
        if (articulation.SpacingMs is { } spacing)
            aims.Add(
                new AskedHeard(
                    "even",
                    "the same time from start to start",
                    $"{spacing:0} ms apart{(articulation.LevelDb is { } level ? $", {level:0.0} dB" : "")}",
                    null
                )
            );
        if (articulation.EndingsHidden)
            aims.Add(
                new AskedHeard("endings", "let go by the air", $"cannot tell in this room: it rings for {row.RoomDecaySeconds:0.0} s", null)
            );
        if (articulation.GapMs is { } gap)
            aims.Add(new AskedHeard("gap", "none heard", $"{gap:0} ms between notes that are apart", null));
        return aims;
    }

    /// <summary>How far up repeats go well: the next degree is for when the one before is clean (common practice).</summary>
    private static AskedHeard? Upward(HeardRow row, StageBands bands)
    {
        var degrees = row.Notes.GroupBy(note => note.Asked.Meant.Written).ToList();
        if (degrees.Count < 2)
            return null;
        var clean = degrees.TakeWhile(degree => IsClean([.. degree], bands)).ToList();
        return clean.Count == degrees.Count
            ? new AskedHeard("upward", "only while it goes well", $"clean up to {clean[^1].Key}", true)
            : new AskedHeard(
                "upward",
                "only while it goes well",
                clean.Count == 0
                    ? $"{degrees[0].Key} is not clean yet"
                    : $"clean up to {clean[^1].Key}, {degrees[clean.Count].Key} not yet",
                false,
                clean.Count == 0 ? $"Stay on {degrees[0].Key} until it is clean." : $"Go no further than {clean[^1].Key} for now."
            );
    }

    private static bool IsClean(List<RowNote> degree, StageBands bands)
    {
        var shares = degree
            .Zip(degree.Skip(1))
            .Where(pair =>
                pair.First.Asked.RestBeats == 0
                && pair.Second.Number == pair.First.Number + 1
                && pair.First.Sound is not null
                && pair.Second.Sound is not null
            )
            .Select(pair => RowArticulation.DutyOf(pair.First.Sound!, pair.Second.Sound!))
            .ToList();
        return degree.TrueForAll(note => note.Judged.Outcome == NoteOutcome.Right)
            && shares.Count > 0
            && shares.Median() >= bands.DutyShare;
    }

    /// <summary>Short notes: the share of their length that sounds, beside the one asked.</summary>
    public static List<AskedHeard> Short(HeardRow row) =>
        [
            .. row
                .Notes.GroupBy(note => note.Asked.Label)
                .Select(group =>
                {
                    var pairs = group
                        .Zip(group.Skip(1))
                        .Where(pair =>
                            pair.Second.Number == pair.First.Number + 1
                            && pair.First.Asked.RestBeats == 0
                            && pair.First.Sound is not null
                            && pair.Second.Sound is not null
                        );
                    var shares = pairs.Select(pair => RowArticulation.DutyOf(pair.First.Sound!, pair.Second.Sound!)).ToList();
                    var target = group.First().Asked.Share;
                    if (shares.Count == 0)
                        return new AskedHeard(group.Key, $"{100 * target:0} % of its length", "not heard", false, "Three in a row, light.");
                    var share = shares.Median();
                    return new AskedHeard(
                        group.Key,
                        $"{100 * target:0} % of its length",
                        $"{100 * share:0} %",
                        Math.Abs(share - target) <= ShareWithin,
                        share < target ? "Leave only a small gap after each note." : "Let go of each note a little sooner."
                    );
                }),
        ];

    /// <summary>Syllables beside each other: how soon the tone is there after each.</summary>
    public static List<AskedHeard> Syllables(HeardRow row, StageBands bands)
    {
        var starts = row
            .Notes.Where(note => note.Sound?.RiseMs is not null)
            .GroupBy(note => note.Asked.Label)
            .Select(group => (group.Key, Rises: group.Select(note => note.Sound!.RiseMs!.Value).ToList()))
            .ToList();
        var aims = starts.ConvertAll(start => new AskedHeard(
            start.Key,
            $"there within {bands.TonguedRiseMs:0} ms",
            $"{start.Rises.Median():0} ms, {(start.Rises.Count > 1 ? start.Rises.StandardDeviation() : 0):0} ms apart",
            null
        ));
        if (starts.Count >= 2)
        {
            var ranked = starts.OrderBy(start => start.Rises.Average()).ToList();
            var spread = Math.Sqrt(ranked.Take(2).Average(start => start.Rises.Count > 1 ? start.Rises.Variance() : 0));
            var apart = ranked[1].Rises.Average() - ranked[0].Rises.Average() > spread;
            aims.Insert(
                0,
                new AskedHeard(
                    "clearest",
                    "the one that starts soonest",
                    apart ? ranked[0].Key : $"{ranked[0].Key} and {ranked[1].Key}, too close to call",
                    null
                )
            );
        }

        return aims;
    }
}
