using Bocca.Core.Buzz.Measures;
using Bocca.Core.Instruments;
using Bocca.Core.Judging;
using Bocca.Core.Music;
using Bocca.Core.Teaching;
using Bocca.Core.Tone.Drills;
using Bocca.Core.Tone.Listening;
using Bocca.Core.Tone.Notes;
using MathNet.Numerics.Statistics;

namespace Bocca.Core.Tone.Aims;

/// <summary>Holds a row against what its drill is for.</summary>
internal static class ToneAims
{
    /// <summary>Loudnesses closer than this are one (dB; ours, editable).</summary>
    private const double ApartDb = 3;

    /// <summary>The room that instruments are built for (common practice).</summary>
    private const double ReferenceCelsius = 20;

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
            ToneAim.Patterns or ToneAim.Tunes => Patterns(row),
            ToneAim.Pair => Pair(row),
            ToneAim.Held => Held(row, bands),
            ToneAim.Tuning => Tuned(row, asked),
            ToneAim.Experiment or ToneAim.Contrast => Compared(row),
            ToneAim.Starts => ArticulationAims.Starts(row, bands),
            ToneAim.Joined => ArticulationAims.Joined(row, articulation, bands),
            ToneAim.Short => ArticulationAims.Short(row),
            ToneAim.Syllables => ArticulationAims.Syllables(row, bands),
            ToneAim.Bend => GlideAims.Bend(row),
            ToneAim.Glide => GlideAims.Slide(row),
            ToneAim.Levels => Levels(row),
            ToneAim.Neighbour => ScaleAims.Neighbours(row),
            ToneAim.Scale => ScaleAims.Scale(row, articulation),
            ToneAim.Better => ScaleAims.Better(row),
            ToneAim.ByPosition => SlideAims.ByPosition(row),
            ToneAim.Stations => SlideAims.Stations(row, asked.Player),
            ToneAim.Fastest => SpeedAims.Fastest(row, asked.Plan),
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
                "Let the air go first, then bring the lips nearer."
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

    private static double? Steadiness(RowNote note, StageBands bands) => note.Measures is { } tone ? bands.Steadiness(tone) : null;

    private static List<AskedHeard> Held(HeardRow row, StageBands bands)
    {
        var aims = row
            .Notes.Select(note => new AskedHeard(
                note.Asked.Label.Length > 0 ? $"{note.Asked.Label}, {note.Asked.Meant.Written}" : $"{note.Asked.Meant.Written}",
                note.Measures?.AskedSeconds is { } seconds ? $"{seconds:0.0} s" : "held",
                note.Sound is not { } sound ? "no tone"
                    : Steadiness(note, bands) is { } steady ? $"{sound.Seconds:0.0} s, steady within {steady:0} cents"
                    : $"{sound.Seconds:0.0} s, too short to say how steady",
                note.Sound is not null
                    && note.Sound.Seconds >= Math.Min(bands.HoldSeconds, 0.85 * (note.Measures?.AskedSeconds ?? 0))
                    && (Steadiness(note, bands) ?? 0) <= bands.SteadyCents,
                "Let a fuller breath go slowly, to the last count."
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
        var heard = row
            .Notes.Where(note => note is { Sound: not null, Judged: { Outcome: NoteOutcome.Right, Partial: not null } })
            .ToList();
        if (heard.Count == 0)
            return [new AskedHeard("open notes", "at least two", "none", false, "Play the open notes straight, one after the other.")];
        var passport = Passport.Measured(player.Instrument, player.Tuning, heard.Select(note => note.Sound!.MedianHz));
        var mm = passport.MainSlideMm(player.Instrument);
        var aims = heard
            .Where(note => passport.PartialCents.ContainsKey(note.Judged.Partial!.Value))
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
        var told = new Differences<RowNote>(usual, other)
            .In(note => Tuning.Cents(usual[0].Sound!.MedianHz, note.Sound!.MedianHz), 5, "cents", "higher", "lower")
            .In(note => note.Sound!.LevelDb, 1, "dB", "louder", "softer")
            .In(note => note.Measures!.HarmonicToNoiseDb, 1, "dB", "clearer", "airier")
            .In(note => note.Measures!.CentroidOverPitch, 0.2, "harmonics", "brighter", "darker")
            .In(note => note.Measures!.SteadinessCents, 3, "cents", "less steady", "steadier")
            .Told;
        return told.Count == 0 ? "no difference beyond the spread of the repeats" : string.Join(", ", told);
    }

    private static List<AskedHeard> Levels(HeardRow row)
    {
        double? Level(DrillPart part)
        {
            var levels = row
                .Notes.Where(note => note.Asked.Part == part && note.Sound is not null)
                .Select(note => note.Sound!.LevelDb)
                .ToList();
            return levels.Count == 0 ? null : levels.Average();
        }

        if (Level(DrillPart.Soft) is not { } soft || Level(DrillPart.Medium) is not { } medium || Level(DrillPart.Loud) is not { } loud)
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
        AskedHeard Step(string what, double db, string cue, Pull pull) =>
            new(what, $"{ApartDb:0} dB or more", $"{db:+0.0;-0.0;0.0} dB", db >= ApartDb, cue) { Pull = pull };
        return
        [
            Step("soft to medium", medium - soft, "Softer: the same lips, less air.", Pull.Ease),
            Step("medium to loud", loud - medium, "Louder: more air, the lips stay easy.", Pull.Firm),
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
