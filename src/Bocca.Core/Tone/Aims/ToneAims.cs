using Bocca.Core.Buzz.Measures;
using Bocca.Core.Instruments;
using Bocca.Core.Judging;
using Bocca.Core.Music;
using Bocca.Core.Tone.Drills;
using Bocca.Core.Tone.Listening;
using Bocca.Core.Tone.Notes;
using MathNet.Numerics.Statistics;

namespace Bocca.Core.Tone.Aims;

/// <summary>Holds a row against what its drill is for.</summary>
internal static class ToneAims
{
    /// <summary>How far a short note's share may lie from the one asked (common practice; ours, editable).</summary>
    private const double ShareWithin = 0.1;

    /// <summary>Loudnesses closer than this are one (dB; ours, editable).</summary>
    private const double ApartDb = 3;

    /// <summary>The room that instruments are built for (common practice).</summary>
    private const double ReferenceCelsius = 20;

    /// <summary>Groups that differ by less than this many times their spread do not differ (ours, editable).</summary>
    private const double ApartSpreads = 2;

    /// <summary>What was asked beside what was heard; empty for a row of notes alone.</summary>
    public static IReadOnlyList<AskedHeard> Of(
        HeardRow row,
        AskedRow asked,
        RowArticulation articulation,
        StageBands bands,
        SoundingPupil pupil
    ) =>
        asked.Drill?.Aim switch
        {
            ToneAim.FirstSound => FirstSound(row, bands),
            ToneAim.Patterns => Patterns(row),
            ToneAim.Pair => Pair(row),
            ToneAim.Held => Held(row, bands),
            ToneAim.Tuning => Tuned(row, asked),
            ToneAim.Experiment => Compared(row),
            ToneAim.Joined => Joined(row, articulation, bands),
            ToneAim.Short => Short(row),
            ToneAim.Syllables => Syllables(row, bands),
            ToneAim.Bend => GlideAims.Bend(row),
            ToneAim.Glide => GlideAims.Slide(row),
            ToneAim.Levels => Levels(row),
            ToneAim.Air => AirAim.Of(row, bands),
            _ => [],
        };

    private static List<AskedHeard> FirstSound(HeardRow row, StageBands bands)
    {
        var spoke = row.Notes.Where(note => note.Sound is { Seconds: >= 1 }).ToList();
        var tally = string.Join(
            ", ",
            spoke
                .Where(note => note.Judged.Partial is not null)
                .GroupBy(note => note.Judged.Partial!.Value)
                .OrderByDescending(group => group.Count())
                .Select(group => $"partial {group.Key} {Times(group.Count())}")
        );
        var aims = new List<AskedHeard>
        {
            new(
                "spoke for a second",
                $"four of {row.Notes.Count}",
                $"{spoke.Count} of {row.Notes.Count}",
                spoke.Count >= 0.8 * row.Notes.Count,
                "Let the air go first, then bring the lips nearer until it speaks."
            ),
            new("which came", "any open partial, and its name", tally.Length == 0 ? "none" : tally, null),
        };
        var delays = spoke.Select(note => note.Measures?.OnsetDelayMs).OfType<double>().ToList();
        if (delays.Count > 0)
            aims.Add(new AskedHeard("delay to speak", $"{bands.OnsetDelayMs:0} ms", $"{delays.Median():0} ms", null));
        return aims;
    }

    /// <summary>How often a pattern came clean, from its last note back: three in a row open the next.</summary>
    private static List<AskedHeard> Patterns(HeardRow row)
    {
        var phrases = row.Phrases;
        var clean = phrases.Count(phrase => phrase.All(note => note.Judged.Outcome == NoteOutcome.Right));
        return
        [
            new AskedHeard(
                row.Notes[0].Asked.Label,
                $"{phrases.Count} of {phrases.Count} clean",
                $"{clean} of {phrases.Count}",
                clean == phrases.Count,
                "The same pattern, slower in the head than in the hand."
            ),
        ];
    }

    private static List<AskedHeard> Pair(HeardRow row) =>
        [
            .. row
                .Notes.GroupBy(note => note.Asked.Label)
                .Select(group =>
                {
                    var came = group.Count(note => note.Judged.Outcome == NoteOutcome.Right);
                    var low = group.Count(note => note.Judged.Outcome == NoteOutcome.PartialLow);
                    var high = group.Count(note => note.Judged.Outcome == NoteOutcome.PartialHigh);
                    return new AskedHeard(
                        group.Key,
                        $"{Math.Ceiling(0.8 * group.Count()):0} of {group.Count()}",
                        $"{came}{(low > 0 ? $", {low} low" : "")}{(high > 0 ? $", {high} high" : "")}",
                        came >= 0.8 * group.Count(),
                        low > high ? "Hear the note inside before it starts." : "Easier lips, the same air."
                    );
                }),
        ];

    private static string Steadiness(RowNote note) =>
        note.Measures?.SteadinessCents is { } steady ? $"steady within {steady:0} cents" : "too short to say how steady";

    private static List<AskedHeard> Held(HeardRow row, StageBands bands)
    {
        var aims = row
            .Notes.Select(note => new AskedHeard(
                note.Asked.Label.Length > 0 ? $"{note.Asked.Label}, {note.Asked.Meant.Written}" : $"{note.Asked.Meant.Written}",
                note.Measures?.AskedSeconds is { } seconds ? $"{seconds:0.0} s" : "held",
                note.Sound is { } sound ? $"{sound.Seconds:0.0} s, " + Steadiness(note) : "no tone",
                note.Sound is not null
                    && note.Sound.Seconds >= Math.Min(bands.HoldSeconds, 0.85 * (note.Measures?.AskedSeconds ?? 0))
                    && (note.Measures?.SteadinessCents ?? 0) <= bands.SteadyCents,
                "A fuller breath, let go slowly, to the last count."
            ))
            .ToList();
        var sounded = row.Notes.Sum(note => note.Sound?.Seconds ?? 0);
        var elapsed = row.Track.Frames.Count * Sound.PitchTrack.HopSeconds;
        aims.Add(new AskedHeard("minutes of tone", $"{elapsed / 60:0.0} elapsed", $"{sounded / 60:0.0} sounded", null));
        var levels = row.Notes.Where(note => note.Sound is not null).Select(note => note.Sound!.LevelDb).ToList();
        if (levels.Count >= 3)
            aims.Add(
                new AskedHeard(
                    "one loudness",
                    $"{bands.SameDb:0.0} dB apart",
                    $"{levels.StandardDeviation():0.0} dB apart, {(levels[^1] - levels[0]):+0.0;-0.0;0.0} from first to last",
                    null
                )
            );
        return aims;
    }

    private static List<AskedHeard> Tuned(HeardRow row, AskedRow asked)
    {
        var player = asked.Player;
        var heard = row.Notes.Where(note => note.Sound is not null && note.Judged.Outcome == NoteOutcome.Right).ToList();
        if (heard.Count == 0)
            return [new AskedHeard("open notes", "at least two", "none", false, "Play the open notes straight, one after the other.")];
        var passport = Passport.Measured(player.Instrument, player.Tuning, heard.Select(note => note.Sound!.MedianHz));
        var mm = passport.MainSlideMm(player.Instrument);
        var aims = heard
            .Select(note => new AskedHeard(
                $"partial {note.Judged.Partial}, {note.Asked.Meant.Written}",
                "its place in the series",
                $"{passport.PartialCents[note.Judged.Partial!.Value]:+0;-0;0} cents",
                null
            ))
            .ToList();
        aims.Insert(
            0,
            new AskedHeard(
                "as a whole",
                $"A = {player.Tuning.A4Hz:0} Hz",
                Math.Abs(passport.LiesCents) < 5
                    ? "lies there"
                    : $"{Math.Abs(passport.LiesCents):0} cents {(passport.LiesCents > 0 ? "sharp" : "flat")}: main slide "
                        + $"{Math.Abs(mm):0} mm {(mm > 0 ? "out" : "in")}",
                null
            )
        );
        if (asked.RoomCelsius is { } celsius)
        {
            var byAir = 1200 * Math.Log2(Tubing.SpeedOfSound(celsius) / Tubing.SpeedOfSound(ReferenceCelsius));
            aims.Insert(
                1,
                new AskedHeard(
                    "of that, the room",
                    $"{ReferenceCelsius:0} °C",
                    $"{celsius:0} °C: {Math.Abs(byAir):0} cents {(byAir < 0 ? "flat" : "sharp")} by the air alone",
                    null
                )
            );
        }

        return aims;
    }

    /// <summary>
    /// Each way beside the usual one: only differences beyond the spread of the repeats, and large enough to be heard (ours, editable),
    /// are told.
    /// </summary>
    private static List<AskedHeard> Compared(HeardRow row)
    {
        var ways = row.Notes.Where(note => note.Measures is not null).GroupBy(note => note.Asked.Label).ToList();
        if (ways.Count < 2)
            return [];
        return [.. ways.Skip(1).Select(way => new AskedHeard(way.Key, $"beside {ways[0].Key}", Differences([.. ways[0]], [.. way]), null))];
    }

    private static string Differences(List<RowNote> usual, List<RowNote> other)
    {
        var told = new List<string>();
        void Compare(Func<RowNote, double?> of, double least, string unit, string more, string less)
        {
            var (a, b) = (usual.Select(of).OfType<double>().ToList(), other.Select(of).OfType<double>().ToList());
            if (a.Count < 2 || b.Count < 2)
                return;
            var spread = Math.Sqrt((a.Variance() + b.Variance()) / 2);
            var by = b.Average() - a.Average();
            if (Math.Abs(by) > Math.Max(least, ApartSpreads * spread))
                told.Add($"{Math.Abs(by):0.#} {unit} {(by > 0 ? more : less)}");
        }

        Compare(note => Tuning.Cents(usual[0].Sound!.MedianHz, note.Sound!.MedianHz), 5, "cents", "higher", "lower");
        Compare(note => note.Sound!.LevelDb, 1, "dB", "louder", "softer");
        Compare(note => note.Measures!.HarmonicToNoiseDb, 1, "dB", "clearer", "airier");
        Compare(note => note.Measures!.CentroidOverPitch, 0.2, "harmonics", "brighter", "darker");
        Compare(note => note.Measures!.SteadinessCents, 3, "cents", "less steady", "steadier");
        return told.Count == 0 ? "no difference beyond the spread of the repeats" : string.Join(", ", told);
    }

    private static List<AskedHeard> Joined(HeardRow row, RowArticulation articulation, StageBands bands)
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
            aims.Add(new AskedHeard("starts", $"there within {bands.TonguedRiseMs:0} ms", $"{rise:0} ms", null));
        if (articulation.SpacingMs is { } spacing)
            aims.Add(
                new AskedHeard(
                    "even",
                    "the same time from start to start",
                    $"{spacing:0} ms apart{(articulation.LevelDb is { } level ? $", {level:0.0} dB" : "")}",
                    null
                )
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

    private static List<AskedHeard> Short(HeardRow row) =>
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
                        share < target ? "Leave only a small gap after each note." : "Let go a little sooner; the air stays ready."
                    );
                }),
        ];

    private static List<AskedHeard> Syllables(HeardRow row, StageBands bands)
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

    private static List<AskedHeard> Levels(HeardRow row)
    {
        double? Level(string label)
        {
            var levels = row
                .Notes.Where(note => note.Asked.Label == label && note.Sound is not null)
                .Select(note => note.Sound!.LevelDb)
                .ToList();
            return levels.Count == 0 ? null : levels.Average();
        }

        if (Level("soft") is not { } soft || Level("medium") is not { } medium || Level("loud") is not { } loud)
            return
            [
                new AskedHeard(
                    "three loudnesses",
                    "soft, medium and loud",
                    "not all of them sounded",
                    false,
                    "Each twice: soft, as usual, loud but not forced."
                ),
            ];
        AskedHeard Step(string what, double db, string cue) =>
            new(what, $"{ApartDb:0} dB or more", $"{db:+0.0;-0.0;0.0} dB", db >= ApartDb, cue);
        return
        [
            Step("soft to medium", medium - soft, "Softer: the same lips, less air."),
            Step("medium to loud", loud - medium, "Louder: more air, the lips stay easy."),
        ];
    }

    private static string Times(int count) =>
        count switch
        {
            1 => "once",
            2 => "twice",
            _ => $"{count} times",
        };
}
