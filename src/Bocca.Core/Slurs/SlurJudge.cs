using Bocca.Core.Judging;
using Bocca.Core.Tone;
using Bocca.Core.Tone.Listening;
using Bocca.Core.Tone.Notes;

namespace Bocca.Core.Slurs;

/// <summary>Judges a slur: whether the air held, where the step broke, which partial came, and one thing to try next.</summary>
public static class SlurJudge
{
    /// <summary>Where slurs are taken.</summary>
    public static Place Place { get; } = new("slurs");

    /// <summary>Share of changes that have to be clean for a slur to pass (ours, editable).</summary>
    private const double EnoughShare = 0.8;

    /// <summary>Judges.</summary>
    /// <param name="heard">What was heard.</param>
    /// <param name="asked">What was asked.</param>
    /// <param name="pupil">Who played.</param>
    /// <param name="onward">The slur that comes after it; null for none.</param>
    public static Verdict Judge(HeardSlur heard, AskedSlur asked, JudgedPupil pupil, Slur? onward)
    {
        var row = heard.Row;
        if (row.Problem is { } problem)
            return new Verdict(Outcome.CannotTell, $"Cannot tell: {problem.Why}", [], [], Again(asked, problem.Remedy, problem.Why));
        if (row.Notes.All(note => note.Sound is null))
            return new Verdict(
                Outcome.CannotTell,
                "Cannot tell: no tone was found in the whole take.",
                [],
                [],
                row.Notes.Any(note => note.Judged.Outcome == NoteOutcome.AirOnly) && InstrumentFirst.OfSilence(pupil) is { } look
                    ? look
                    : Again(asked, "Check the microphone, and play one note close to it.", "Nothing was heard but the room.")
            );
        var bands = asked.Bands.In(row.RoomDecaySeconds);
        var findings = Findings(heard, bands, pupil.Symptoms);
        var clean = heard.Changes.Count(change => change.Fault(bands) is null);
        var came = row.Notes.Count(note => note.Judged.Outcome == NoteOutcome.Right);
        var outcome =
            row.Doubt is not null ? Outcome.CannotTell
            : clean >= EnoughShare * heard.Changes.Count && came == row.Notes.Count ? Outcome.Passed
            : came < 0.5 * row.Notes.Count ? Outcome.StepBack
            : Outcome.Repeat;
        var summary = row.Doubt?.Sentence ?? Summary(heard, asked, clean, bands);
        return new Verdict(outcome, summary, Numbers(heard, clean), findings, Next(outcome, asked, findings, pupil, onward, summary))
        {
            HeardAs = RowJudge.HeardAsOf(row),
        };
    }

    /// <summary>A change in words, such as <c>C5 to E5, open: 80 ms of silence between</c>.</summary>
    public static string Words(SlurChange change, SlurBands bands, HeardRow row)
    {
        var (from, to) = (Note(change.To - 1).Judged.Meant, Note(change.To).Judged.Meant);
        var way = $"{from.Written} to {to.Written}, {to.Setting.Spoken}";
        return change.Fault(bands) switch
        {
            null => $"{way}: clean, {change.PassageMs:0} ms.",
            "missed" => $"{way}: {Missed(MissedAt(row, change))}",
            "tongued" => $"{way}: the tongue began it.",
            "gap" => $"{way}: a break of {change.GapMs:0} ms between, no tongue.",
            "dip" => $"{way}: the level fell by {change.DipDb:0} dB between.",
            "touched" => $"{way}: partial {string.Join(" and ", change.Touched)} was touched on the way.",
            "overshoot" when !change.Up => $"{way}: it fell {change.OvershootCents:0} cents below the lower note before it settled.",
            "overshoot" => $"{way}: {change.OvershootCents:0} cents above the higher note before it settled.",
            _ => $"{way}: slow, {change.PassageMs:0} ms on the way.",
        };

        RowNote Note(int number) => row.Notes.First(note => note.Number == number);
    }

    /// <summary>A miss as it goes on after the change: <c>went one note too high</c>.</summary>
    private static string Missed(RowNote note) =>
        note.Judged switch
        {
            { Outcome: NoteOutcome.PartialHigh or NoteOutcome.PartialLow, By: var by } judged =>
                $"{(Math.Abs(by) == 1 ? "one note" : $"{Judging.Words.Of(Math.Abs(by))} notes")} too {(by > 0 ? "high" : "low")}, "
                    + $"{judged.HeardWritten} came.",
            var judged => Within(judged.Sentence),
        };

    /// <summary>A sentence as it goes on after a colon: small at its start, unless that is a note.</summary>
    private static string Within(string sentence) =>
        sentence is [_, >= 'c' and <= 'z', ..] or [_, 'a', ..] ? char.ToLowerInvariant(sentence[0]) + sentence[1..] : sentence;

    /// <summary>The note that a change missed: the one it leads to, else the one it comes from.</summary>
    private static RowNote MissedAt(HeardRow row, SlurChange change) =>
        row.Notes.First(note => note.Number == change.To) is { Judged.Outcome: not NoteOutcome.Right } missed
            ? missed
            : row.Notes.First(note => note.Number == change.To - 1);

    private static string Summary(HeardSlur heard, AskedSlur asked, int clean, SlurBands bands)
    {
        var all = heard.Changes.Count;
        var count =
            clean == all
                ? (
                    all == 1 ? "The change was clean."
                    : all == 2 ? "Both changes clean."
                    : $"All {Judging.Words.Of(all)} changes clean."
                )
                : $"{clean} of {all} changes clean.";
        if (clean == all && bands.HiddenBy(heard.Row.RoomDecaySeconds))
            count = $"{count.TrimEnd('.')}, as far as this room tells: it rings for {heard.Row.RoomDecaySeconds:0.0} s.";
        var broken = heard.Changes.FirstOrDefault(change => change.Fault(bands) is not null);
        return broken is not null ? Words(broken, bands, heard.Row)
            : heard.LowNoteDb > SlurBands.LowNoteDb ? $"{count} The low note was {heard.LowNoteDb:0} dB louder than the others."
            : heard.TrailsOff ? $"{count} The last note stopped before its time."
            : count;
    }

    private static List<HeardNumber> Numbers(HeardSlur heard, int clean)
    {
        var sounded = heard.Changes.Where(change => change.AtSeconds is not null).ToList();
        var numbers = new List<HeardNumber>
        {
            new("changes", $"{clean} of {heard.Changes.Count}", "clean", clean >= EnoughShare * heard.Changes.Count),
        };
        if (sounded.Count > 0)
        {
            numbers.Add(new HeardNumber("on the way", $"{sounded.Average(change => change.PassageMs):0} ms", "from note to note", null));
            numbers.Add(new HeardNumber("deepest dip", $"{sounded.Max(change => change.DipDb):0} dB", "between notes", null));
        }

        return numbers;
    }

    private static List<Finding> Findings(HeardSlur heard, SlurBands bands, SymptomTable symptoms)
    {
        var findings = new List<Finding>();
        void Add(string id, IEnumerable<SlurChange> changes, Func<SlurChange, double> measure, double limit, string unit)
        {
            var all = changes.ToList();
            if (all.Count > 0)
                findings.Add(
                    new Finding(
                        symptoms.Get(id),
                        [.. all.Select(change => change.To)],
                        all.Max(measure),
                        limit,
                        unit,
                        Words(all[0], bands, heard.Row)
                    )
                );
        }

        findings.AddRange(RowFindings.Misses(heard.Row.Notes, symptoms, MissOf));
        Add("tonguedSlur", heard.Changes.Where(change => change.Fault(bands) == "tongued"), change => change.DipDb, bands.DipDb, "dB");
        // A silence is told in milliseconds; where there is none, the dip in decibels.
        var holes = heard.Changes.Where(change => change.Fault(bands) is "gap" or "dip").ToList();
        if (holes.Exists(change => change.Fault(bands) == "gap"))
            Add("slurHole", holes, change => change.GapMs, bands.GapMs, "ms");
        else
            Add("slurHole", holes, change => change.DipDb, bands.DipDb, "dB");
        // A partial that is touched has no size: its name says it.
        foreach (var way in heard.Changes.Where(change => change.Fault(bands) is "overshoot" or "touched").GroupBy(change => change.Up))
        {
            var id = way.Key ? "overshoots" : "fallsPast";
            if (way.Any(change => change.Fault(bands) == "overshoot"))
                Add(id, way, change => change.OvershootCents, bands.OvershootCents, "cents");
            else
                Add(id, way, _ => 0, 0, "");
        }

        if (heard.LowNoteDb > SlurBands.LowNoteDb)
            findings.Add(
                new Finding(
                    symptoms.Get("lowBlares"),
                    [],
                    heard.LowNoteDb.Value,
                    SlurBands.LowNoteDb,
                    "dB",
                    $"The low note was {heard.LowNoteDb:0} dB louder than the others."
                )
            );
        Add("slurSlow", heard.Changes.Where(change => change.Fault(bands) == "slow"), change => change.PassageMs, bands.PassageMs, "ms");
        return findings;
    }

    /// <summary>
    /// What a miss is a sign of: in a slur, the note before once more is a change that did not come, and no matter of the hand.
    /// </summary>
    private static string? MissOf(JudgedNote judged) =>
        judged.Outcome == NoteOutcome.PreviousNote ? "slurStays" : RowFindings.SymptomOf(judged);

    private static NextStep Next(Outcome outcome, AskedSlur asked, List<Finding> findings, JudgedPupil pupil, Slur? onward, string summary)
    {
        if (outcome == Outcome.Passed)
            return onward is null
                ? Again(asked, "That was the last of them: choose another shape.", summary)
                : new NextStep(
                    Place,
                    onward.Id,
                    $"Go on: {onward.Shape.Name.ToLowerInvariant()} on {onward.Setting}, from {onward.Notes[0].Written}.",
                    summary
                );
        if (findings.Count == 0)
            return Again(asked, "The same once more, in one breath.", summary);
        return AdvisedStep.Of(pupil, findings, AdvisedStep.IsTense(pupil, findings), Place, asked.Slur.Id);
    }

    private static NextStep Again(AskedSlur asked, string cue, string reason) => new(Place, asked.Slur.Id, cue, reason);
}
