using Bocca.Core.Breath;
using Bocca.Core.Buzz.Drills;
using Bocca.Core.Slurs;
using Bocca.Core.Teaching;
using Bocca.Core.Tone.Drills;
using Bocca.Core.Tone.Notes;

namespace Bocca.Core.Practice.Week;

/// <summary>Who practises, as far as a week's items go.</summary>
/// <param name="Player">Instrument, reading, tuning and hand.</param>
/// <param name="Approach">The teacher's approach.</param>
/// <param name="Stage">How far the pupil has come.</param>
/// <param name="Breathing">Whose breath it is.</param>
/// <param name="Own">What the teacher has set otherwise.</param>
public sealed record WeekPupil(PlayerSituation Player, Approach Approach, LearningStage Stage, BreathingPupil Breathing, OwnSettings Own);

/// <summary>
/// The items that a week has where nothing else is known, and how every drill becomes an item: its counts, seconds and what done means
/// are worked out from the drill itself (common practice for the choice; urgencies ours, editable).
/// </summary>
public static class StandardWeek
{
    /// <summary>Seconds of a silent drill of the hand (common practice).</summary>
    private const double HandSeconds = 120;

    /// <summary>So many items fill a day, and none comes more often in a row (ours, editable).</summary>
    private const int ItemsADay = 6,
        MostTimes = 6;

    /// <summary>What is due comes at most so often in a week: after one and three days again (common practice).</summary>
    private const int RecallsAWeek = 3;

    /// <summary>The tempo of slurs where none is known.</summary>
    private const double SlurTempo = 72;

    /// <summary>The usual minutes of a stage, six days of seven (common practice).</summary>
    /// <param name="stage">How far the pupil has come.</param>
    /// <param name="daysPlayed">Days since the first lesson.</param>
    public static IReadOnlyList<double> UsualMinutes(LearningStage stage, int daysPlayed)
    {
        var minutes =
            stage >= LearningStage.Second ? 20
            : daysPlayed < Health.PlayingLimits.FirstDays ? 5
            : 12;
        return [.. Enumerable.Repeat((double)minutes, WeekAsked.Days - 1), 0];
    }

    /// <summary>What is done every day first.</summary>
    public static WeekItem? WarmUp(WeekPupil pupil) =>
        pupil.Stage <= LearningStage.Mouthpiece
            ? Drill(pupil, "buzz:sound4-rest4", WeekKind.WarmUp, 6, "The lips wake up before anything else.")
            : Drill(pupil, "tone:long-notes", WeekKind.WarmUp, 6, "Long notes before anything else.");

    /// <summary>The items of a pupil of whom nothing else is known.</summary>
    public static IReadOnlyList<WeekItem> Items(WeekPupil pupil)
    {
        (string Id, WeekKind Kind, double Urgency, string Why)[] wanted =
            pupil.Stage <= LearningStage.Mouthpiece
                ?
                [
                    ("buzz:long-buzz", WeekKind.New, 5, "The tone grows longer."),
                    ("buzz:mp-siren", WeekKind.Stretch, 3, "High and low without a jump."),
                    ("breath:even-stream", WeekKind.Gate, 4, "The breath is the first gate."),
                    ("notes:called", WeekKind.Recall, 3, "The hand learns in silence."),
                ]
            : pupil.Stage == LearningStage.FirstNotes
                ?
                [
                    ("tone:new-note", WeekKind.New, 6, "The next note of the first five."),
                    ("tone:tongue-four", WeekKind.Fault, 4, "Clear starts on moving air."),
                    ("tone:open-pair", WeekKind.Gate, 4, "The low note or the next one up, as chosen, opens the next step."),
                    ("buzz:steady-line", WeekKind.Recall, 3, "What the lips could do, they keep."),
                    ("breath:even-stream", WeekKind.Recall, 3, "An even stream carries everything."),
                    ("notes:by-note", WeekKind.Recall, 4, "Notes are forgotten unless they are recalled."),
                    ("tone:first-tunes", WeekKind.Liked, 3, "A tune to end with."),
                ]
            :
            [
                ("tone:major-scale", WeekKind.New, 5, "The scale of the week."),
                ("slurs", WeekKind.Recall, 5, "Slurs come back at one, three, seven days."),
                ("tone:joined-repeats", WeekKind.Fault, 4, "One air under the tongue."),
                ("tone:chromatic", WeekKind.Stretch, 3, "Every combination in a row."),
                ("buzz:mp-siren", WeekKind.Recall, 3, "High and low without a jump."),
                ("notes:by-note", WeekKind.Recall, 3, "Notes are forgotten unless they are recalled."),
                ("breath:even-stream", WeekKind.Recall, 2, "An even stream carries everything."),
                ("tone:first-tunes", WeekKind.Liked, 3, "A tune to end with."),
            ];
        return
        [
            .. new[] { WarmUp(pupil) }
                .Concat(wanted.Select(each => Drill(pupil, each.Id, each.Kind, each.Urgency, each.Why)))
                .OfType<WeekItem>(),
        ];
    }

    /// <summary>
    /// The same items, each so often in a row that a handful of them fills a day; what goes above the ceiling stays short, and nothing is
    /// longer than may be played at a time, or than a day allows of it.
    /// </summary>
    /// <param name="items">The items.</param>
    /// <param name="minutes">Minutes of the longest day.</param>
    /// <param name="asked">The limits that hold.</param>
    public static IReadOnlyList<WeekItem> Filling(IEnumerable<WeekItem> items, double minutes, WeekAsked asked)
    {
        var share = Math.Min(minutes, WeekAsked.MostMinutes) * 60 / ItemsADay;
        return
        [
            .. items.Select(item =>
                item.Repeated(
                    Enumerable.Range(1, MostTimes).LastOrDefault(times => times == 1 || Fits(item.Repeated(times), share, asked), 1)
                )
            ),
        ];
    }

    private static bool Fits(WeekItem item, double share, WeekAsked asked) =>
        item.HighSeconds == 0
        && item.Amount.Seconds <= share
        && item.Amount.PlayedSeconds <= asked.Limits.OnSeconds
        && item.LipSeconds <= asked.LipSecondsADay
        && item.BreathSeconds <= asked.BreathSecondsADay;

    /// <summary>A drill as an item of a week; null where it is not for this pupil.</summary>
    /// <param name="pupil">Who practises.</param>
    /// <param name="id">The drill, as <c>stop:drill</c>; <c>slurs</c> alone for the first slur of a sheet.</param>
    /// <param name="kind">What it is for.</param>
    /// <param name="urgency">How much it wants doing, 0 to 10.</param>
    /// <param name="why">Why it is there.</param>
    public static WeekItem? Drill(WeekPupil pupil, string id, WeekKind kind, double urgency, string why) =>
        Of(pupil, id, kind, urgency, why) is { } item ? item with { Most = kind == WeekKind.Recall ? RecallsAWeek : WeekAsked.Days } : null;

    private static WeekItem? Of(WeekPupil pupil, string id, WeekKind kind, double urgency, string why) =>
        id.Split(':') switch
        {
            ["buzz", var drill] when BuzzDrill.All.FirstOrDefault(known => known.Id == drill) is { } buzz => Buzz(
                pupil,
                buzz,
                kind,
                urgency,
                why
            ),
            ["tone", var drill] when ToneDrill.All.FirstOrDefault(known => known.Id == drill) is { } tone => Tone(
                pupil,
                tone,
                kind,
                urgency,
                why
            ),
            ["breath", var drill] when BreathDrill.All.FirstOrDefault(known => known.Id == drill) is { } breath => Breath(
                pupil,
                breath,
                kind,
                urgency,
                why
            ),
            ["notes", var drill] when Fingering.Trainer.HandDrill.All.FirstOrDefault(known => known.Id == drill) is { } hand =>
                new WeekItem(id, hand.Name, kind, new Amount(HandSeconds, 0, 60, 0), urgency, "Every answer right, none slow.", why),
            ["slurs"] => Slurs(pupil, kind, urgency, why),
            _ => null,
        };

    /// <summary>All drills of a stop that are for a pupil, as items.</summary>
    /// <param name="pupil">Who practises.</param>
    /// <param name="stop">The stop, by its place.</param>
    public static IEnumerable<WeekItem> Drills(WeekPupil pupil, string stop) =>
        (
            stop switch
            {
                "buzz" => BuzzDrill.All.Select(drill => drill.Id),
                "tone" => ToneDrill.All.Select(drill => drill.Id),
                "breath" => BreathDrill.All.Select(drill => drill.Id),
                "notes" => Fingering.Trainer.HandDrill.All.Select(drill => drill.Id),
                _ => (IEnumerable<string>)[],
            }
        )
            .Select(id => Drill(pupil, $"{stop}:{id}", WeekKind.New, 6, ""))
            .OfType<WeekItem>();

    private static WeekItem Buzz(WeekPupil pupil, BuzzDrill shipped, WeekKind kind, double urgency, string why)
    {
        var drill = shipped.With(pupil.Own);
        var amount = Amount.Of(drill.Plan);
        return new WeekItem($"buzz:{drill.Id}", drill.Name, kind, amount, urgency, "Every try steady.", why)
        {
            LipSeconds = drill.UsualStage == SoundStage.Lips ? amount.Seconds : 0,
        };
    }

    private static WeekItem? Tone(WeekPupil pupil, ToneDrill shipped, WeekKind kind, double urgency, string why)
    {
        var drill = shipped.With(pupil.Own);
        if (drill.From > pupil.Stage || !drill.IsFor(pupil.Player, pupil.Approach))
            return null;
        var plan = drill.Plan(pupil.Player, pupil.Approach, drill.Tempo);
        return new WeekItem($"tone:{drill.Id}", drill.Name, kind, Amount.Of(plan.Cues), urgency, "Four of five notes come as meant.", why)
        {
            HighSeconds = plan.SecondsAbove(Ceiling(pupil)),
        };
    }

    private static WeekItem? Breath(WeekPupil pupil, BreathDrill drill, WeekKind kind, double urgency, string why) =>
        BreathPlan.Make(drill, drill.Rungs[0], drill.Tempo, pupil.Breathing, BreathDay.Fresh).Plan is { } plan
            ? new WeekItem(
                $"breath:{drill.Id}",
                drill.Name,
                kind,
                new Amount(plan.DrilledSeconds * drill.Tempo / 60, 0, drill.Tempo, 0),
                urgency,
                "Even to the end, twice.",
                why
            )
            {
                BreathSeconds = plan.DrilledSeconds,
            }
            : null;

    /// <summary>Who slurs.</summary>
    public static SlurPlayer SlurPlayerOf(WeekPupil pupil) =>
        SlurPlayer.Of(pupil.Player.Instrument, pupil.Player.Reading, pupil.Stage, pupil.Approach);

    /// <summary>The first slur of a sheet; null where there is none in reach.</summary>
    public static Slur? FirstSlur(WeekPupil pupil) =>
        SlurWriter.Sheet(SlurPlayerOf(pupil), SlurShape.All[0], SlurWriter.LowestPartial + 1).Slurs is [var slur, ..] ? slur : null;

    private static WeekItem? Slurs(WeekPupil pupil, WeekKind kind, double urgency, string why)
    {
        if (FirstSlur(pupil) is not { } slur)
            return null;
        var asked = new AskedSlur(slur, SlurTempo, SlurDay.Times, pupil.Player, pupil.Stage);
        return new WeekItem(
            "slurs",
            $"Slur {slur.Text.Replace("~", " ")}",
            kind,
            Amount.Of(asked.Plan.Cues),
            urgency,
            "Every change clean.",
            why
        );
    }

    private static Music.Pitch Ceiling(WeekPupil pupil) =>
        Fingering.Class.LearnersRange.Of(pupil.Player.Instrument, pupil.Stage, pupil.Approach).Highest;
}
