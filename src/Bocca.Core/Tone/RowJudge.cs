using Bocca.Core.Buzz;
using Bocca.Core.Buzz.Measures;
using Bocca.Core.Judging;
using Bocca.Core.Teaching;
using Bocca.Core.Tone.Aims;
using Bocca.Core.Tone.Drills;
using Bocca.Core.Tone.Listening;
using Bocca.Core.Tone.Notes;

namespace Bocca.Core.Tone;

/// <summary>Judges a row: what came of its notes, how they were begun and ended, and the one next step with its reason.</summary>
public static class RowJudge
{
    /// <summary>Where notes are taken.</summary>
    public static Place Place { get; } = new("tone");

    /// <summary>Share of notes that have to come for a row to pass: four of five (common practice).</summary>
    private const double EnoughShare = 0.8;

    /// <summary>Judges.</summary>
    /// <param name="row">What was heard.</param>
    /// <param name="asked">What was asked.</param>
    /// <param name="pupil">Who played.</param>
    /// <param name="passesBefore">Passes of the same drill at the same tempo in a row before this one.</param>
    public static Verdict Judge(HeardRow row, AskedRow asked, SoundingPupil pupil, int passesBefore = 0)
    {
        var bands = pupil.Bands.For(SoundStage.Instrument, asked.Pupil).Under(pupil.Approach);
        if (row.Problem is { } problem)
            return new Verdict(Outcome.CannotTell, $"Cannot tell: {problem.Why}", [], [], Again(asked, problem.Remedy, problem.Why));
        if (
            row.Notes.All(note => note.Sound is null)
            && row.Extra.Count == 0
            && row.Notes.All(note => note.Judged.Outcome == NoteOutcome.NoTone)
        )
            return new Verdict(
                Outcome.CannotTell,
                "Cannot tell: no tone was found in the whole take.",
                [],
                [],
                Again(asked, "Check the microphone, and play one note close to it.", "Nothing was heard but the room.")
            );
        var articulation = RowArticulation.Of(row);
        var aims = ToneAims.Of(row, asked, articulation, bands, pupil);
        var findings = RowFindings.Of(row, asked, articulation, bands, pupil);
        var outcome = OutcomeOf(row, findings, aims);
        return new Verdict(
            outcome,
            Summary(row, findings, aims) + Slide(row, asked),
            Numbers(row, articulation, bands),
            findings,
            Next(outcome, row, asked, findings, aims, pupil, passesBefore)
        )
        {
            Asked = aims,
            HeardAs = HeardAsOf(row),
        };
    }

    /// <summary>
    /// Whether all came, or which way the first that did not was missed; null where that cannot be said.
    /// </summary>
    public static HeardAs? HeardAsOf(HeardRow row)
    {
        if (row.Doubt is not null || row.Problem is not null)
            return null;
        var miss = row.Notes.Select(note => note.Judged).FirstOrDefault(note => note.Outcome != NoteOutcome.Right);
        if (miss is null)
            return HeardAs.Came;
        var above =
            miss.By != 0 ? miss.By
            : miss.HeardWritten is { } heard && heard.Midi != miss.Meant.Written.Midi ? heard.Midi - miss.Meant.Written.Midi
            : miss.Cents ?? 0;
        return miss.HeardHz is null || above == 0 ? null
            : above > 0 ? HeardAs.Higher
            : HeardAs.Lower;
    }

    private static Outcome OutcomeOf(HeardRow row, IReadOnlyList<Finding> findings, IReadOnlyList<AskedHeard> aims)
    {
        if (row.Doubt is not null and not { Kind: RowDoubtKind.TooShort })
            return Outcome.CannotTell;
        var came = row.Notes.Count(note => note.Judged.Outcome == NoteOutcome.Right);
        if (came < 0.5 * row.Notes.Count && row.Notes.Count > 1)
            return Outcome.StepBack;
        return came >= EnoughShare * row.Notes.Count && findings.Count == 0 && aims.All(aim => aim.Met != false)
            ? Outcome.Passed
            : Outcome.Repeat;
    }

    private static string Summary(HeardRow row, IReadOnlyList<Finding> findings, IReadOnlyList<AskedHeard> aims)
    {
        if (row.Doubt is { } doubt)
            return doubt.Sentence;
        var miss = row.Notes.FirstOrDefault(note => note.Judged.Outcome != NoteOutcome.Right);
        if (row.Notes.Count == 1)
            return row.Notes[0].Judged.Sentence;
        var right = row.Notes.Count(note => note.Judged.Outcome == NoteOutcome.Right);
        if (right == 0)
            return $"{At(row, miss!)}{miss!.Judged.Sentence}{EveryTime(row, miss)}";
        var came = $"{Words.Of(right, row.Notes.Count)} notes came.";
        if (miss is not null)
            return $"{came} {At(row, miss)}{miss.Judged.Sentence}";
        return findings.Count > 0 ? $"{came} {findings[0].Heard}"
            : aims.FirstOrDefault(aim => aim.Met == false) is { } missed
                ? $"{came} {Capital(missed.What)}: {missed.Heard}; {missed.Asked} is the aim."
            : came;
    }

    /// <summary>That every note was missed alike, after the sentence of the first.</summary>
    private static string EveryTime(HeardRow row, RowNote miss) =>
        !row.Notes.All(note => note.Judged.Sentence == miss.Judged.Sentence) ? ""
        : row.Notes.Count == 2 ? " Both times."
        : $" All {Words.Of(row.Notes.Count)} times.";

    /// <summary>What the main slide mends, from the second stage on; a doubt about the take has said it already.</summary>
    private static string Slide(HeardRow row, AskedRow asked) =>
        row is { Doubt: null, MainSlide: { } slide } && asked.Pupil >= LearningStage.Second ? $" {slide.Sentence}" : "";

    private static string At(HeardRow row, RowNote miss) =>
        miss.Judged.Sentence.StartsWith($"{miss.Judged.Meant.Written} ", StringComparison.Ordinal)
            ? row.Notes.Count > 2
                ? $"Note {miss.Number}: "
                : ""
            : row.Notes.Count > 2
                ? $"Note {miss.Number}, {miss.Judged.Meant.Written}: "
                : row.Notes.Count > 1
                    ? $"{miss.Judged.Meant.Written}: "
                    : "";

    private static List<HeardNumber> Numbers(HeardRow row, RowArticulation articulation, StageBands bands)
    {
        var heard = new List<HeardNumber>();
        var came = row.Notes.Count(note => note.Judged.Outcome == NoteOutcome.Right);
        heard.Add(
            new HeardNumber(
                row.Notes.All(note => note.Asked.Air) ? "air" : "notes",
                $"{came} of {row.Notes.Count}",
                "came",
                came >= EnoughShare * row.Notes.Count
            )
        );
        var right = row
            .Notes.Where(note => note.Judged is { Outcome: NoteOutcome.Right, Cents: not null })
            .Select(note => note.Judged.Cents!.Value)
            .Order()
            .ToList();
        if (right.Count > 0)
        {
            var middle = right[right.Count / 2];
            heard.Add(
                new HeardNumber(
                    "tuning",
                    $"{middle:+0;-0;0} cents",
                    Math.Abs(middle) < 10 ? "in tune"
                        : middle > 0 ? "sharp"
                        : "flat",
                    null
                )
            );
        }

        if (articulation.RiseMs is { } rise && right.Count > 0)
            heard.Add(
                new HeardNumber(
                    "start",
                    $"{rise:0} ms",
                    rise <= RowArticulation.RiseLimitMs(bands.TonguedRiseMs, row) ? "there at once" : "swelling",
                    rise <= RowArticulation.RiseLimitMs(bands.TonguedRiseMs, row) ? true : null
                )
            );
        if (HeardNumbers.Vibrato([.. row.Notes.Select(note => note.Measures).OfType<AttemptMeasures>()], bands) is { } vibrato)
            heard.Add(vibrato);
        if (articulation.Duty is { } duty)
            heard.Add(new HeardNumber("sounding", $"{100 * duty:0} %", "of the time from start to start", null));
        return heard;
    }

    private static NextStep Next(
        Outcome outcome,
        HeardRow row,
        AskedRow asked,
        IReadOnlyList<Finding> findings,
        IReadOnlyList<AskedHeard> aims,
        SoundingPupil pupil,
        int passesBefore
    )
    {
        if (row.Doubt is { } doubt)
            return Again(
                asked,
                doubt.Kind == RowDoubtKind.TooShort ? "Play the whole row, in one go." : "Look at that first; the take is kept.",
                doubt.Sentence
            );
        if (outcome == Outcome.Passed)
            return Onward(asked, pupil.Approach, passesBefore);
        if (row.Notes.FirstOrDefault(note => note.Judged.Outcome == NoteOutcome.TwoReadings) is { } open && findings.Count == 0)
            return Again(asked, $"Play it again and look at the hand: {open.Judged.Meant.Setting}.", open.Judged.Sentence);
        var settings = row.Notes.Select(note => note.Judged.Meant.Setting).Distinct().Count();
        if (InstrumentFirst.Of(pupil, findings, row.Notes.Count, settings) is { } look)
            return look;
        if (findings.Count > 0)
            return Advised(outcome, asked, findings, pupil);
        return aims.FirstOrDefault(aim => aim.Met == false) is { } missed
            ? Again(
                asked,
                missed.CueFor(pupil.Approach, AdvisedStep.IsTense(pupil, findings)),
                $"{Capital(missed.What)}: asked {missed.Asked}, heard {missed.Heard}."
            )
            : Again(asked, "Once more, the same way.", "Not every note came yet.");
    }

    private static NextStep Advised(Outcome outcome, AskedRow asked, IReadOnlyList<Finding> findings, JudgedPupil pupil)
    {
        var easier = outcome == Outcome.StepBack ? asked.Drill?.Easier : null;
        return AdvisedStep.Of(pupil, findings, AdvisedStep.IsTense(pupil, findings), Place, easier ?? asked.Drill?.Id);
    }

    private static NextStep Onward(AskedRow asked, Approach approach, int passesBefore)
    {
        // Notes that were chosen lead to the next ones, other drills to what comes after them.
        if (asked.Drill is not { TakesNotes: false } drill)
            return Again(asked, "Take the next note.", "Every note came as meant.");
        if (drill.Aim is ToneAim.Joined or ToneAim.Short)
        {
            var tempo = asked.Plan.Tempo;
            return passesBefore >= 1
                ? Again(asked, $"The same at {TempoLadder.Next(tempo, came: true):0}.", $"Two even passes in a row at {tempo:0}.") with
                {
                    Tempo = TempoLadder.Next(tempo, came: true),
                }
                : Again(asked, "Once more just as evenly; then a little faster.", $"One even pass at {tempo:0}; two raise the tempo.");
        }

        if (drill.OneByOne && asked.Player.Clean % drill.Sets.Count < drill.Sets.Count - 1)
            return drill.Aim == ToneAim.Tunes
                ? Again(asked, "On to the next tune.", "Clean each time.")
                : Again(asked, "On to the next pattern.", "Three clean in a row.");
        var onward = ToneDrill
            .All.SkipWhile(known => known.Id != drill.Id)
            .Skip(1)
            .FirstOrDefault(known => known.From <= asked.Pupil && known.IsFor(asked.Player, approach));
        return onward is null
            ? Again(asked, "Take the next note.", "Every note came as meant.")
            : new NextStep(Place, onward.Id, $"Next: {onward.Name}{(onward.Name.EndsWith('?') ? "" : ".")}", "Every note came as meant.");
    }

    private static NextStep Again(AskedRow asked, string cue, string reason) => new(Place, asked.Drill?.Id, cue, reason);

    private static string Capital(string text) => char.ToUpperInvariant(text[0]) + text[1..];
}
