using Bocca.Core.Buzz.Measures;
using Bocca.Core.Judging;
using Bocca.Core.Teaching;
using Bocca.Core.Tone.Drills;
using Bocca.Core.Tone.Listening;
using Bocca.Core.Tone.Notes;

namespace Bocca.Core.Tone;

/// <summary>The symptoms of a row: how its notes were missed, then how they were begun and ended, then how they sound.</summary>
internal static class RowFindings
{
    /// <summary>From this many beats on a note is held, and straightness means something.</summary>
    private const double HeldBeats = 3;

    /// <summary>Nothing is said of a scoop on notes shorter than the ear takes for one.</summary>
    private static readonly HashSet<string> OfHeldNotes =
    [
        "late",
        "airFirst",
        "scoop",
        "wobble",
        "wanders",
        "sags",
        "climbs",
        "fades",
        "short",
        "airy",
        "pinched",
        "forced",
        "weak",
        "slowRise",
    ];

    private static readonly HashSet<string> OfAnyNote = ["airy", "pinched", "forced", "weak"];

    public static IReadOnlyList<Finding> Of(
        HeardRow row,
        AskedRow asked,
        RowArticulation articulation,
        StageBands bands,
        SoundingPupil pupil
    )
    {
        var findings = Misses(row.Notes, pupil.Symptoms, SymptomOf);
        // A tone that glides on purpose is held against its glide alone, and air has no tone.
        if (asked.Drill?.Aim is ToneAim.Bend or ToneAim.Glide or ToneAim.Air)
            return findings;
        findings.AddRange(Starts(row, asked, articulation, bands, pupil));
        var held = row
            .Notes.Where(note => note.Measures is not null && note.Judged.Outcome == NoteOutcome.Right && note.Asked.Beats >= HeldBeats)
            .ToList();
        var counted =
            held.Count * 2 >= row.Notes.Count
                ? held
                : row.Notes.Where(note => note.Measures is not null && note.Judged.Outcome == NoteOutcome.Right).ToList();
        if (counted.Count > 0 && asked.Drill?.Aim is not (ToneAim.Experiment or ToneAim.Contrast or ToneAim.Levels))
        {
            var take = new TakeMeasures
            {
                Attempts = [.. counted.Select(note => note.Measures!)],
                DurationSeconds = 0,
                RoomDb = 0,
                PeakDb = 0,
                ClippedShare = 0,
            };
            var minded = counted == held ? OfHeldNotes : OfAnyNote;
            findings.AddRange(
                SymptomFinder
                    .Find(take, bands, minded.Contains, pupil)
                    .Where(finding => finding.Tries.Count * 2 >= counted.Count)
                    .OrderBy(finding => finding.Symptom.Order)
                    .ThenByDescending(finding => finding.Severity)
            );
        }

        return findings;
    }

    /// <summary>How notes were missed, the commonest way first.</summary>
    /// <param name="notes">The notes as heard.</param>
    /// <param name="symptoms">The symptoms that hold.</param>
    /// <param name="symptomOf">The symptom that a miss is; null where it is none.</param>
    internal static List<Finding> Misses(IEnumerable<RowNote> notes, SymptomTable symptoms, Func<JudgedNote, string?> symptomOf) =>
        [
            .. notes
                .Select(note => (note, Id: symptomOf(note.Judged)))
                .Where(miss => miss.Id is not null)
                .GroupBy(miss => miss.Id!)
                .OrderByDescending(group => group.Count())
                .Select(group => new Finding(
                    symptoms.Get(group.Key),
                    [.. group.Select(miss => miss.note.Number)],
                    group.Count(),
                    0,
                    "notes",
                    group.First().note.Judged.Sentence
                )),
        ];

    /// <summary>The symptom that a note's outcome is; null where it is none.</summary>
    internal static string? SymptomOf(JudgedNote judged) =>
        judged.Outcome switch
        {
            NoteOutcome.PartialLow => "oneLow",
            NoteOutcome.PartialHigh => "oneHigh",
            NoteOutcome.Octave => judged.HeardWritten is { } heard && heard.Midi < judged.Meant.Written.Midi ? "oneLow" : "oneHigh",
            NoteOutcome.OtherSetting or NoteOutcome.PreviousNote => "wrongSetting",
            NoteOutcome.SlideOff => "slideOff",
            NoteOutcome.AirOnly => "airOnly",
            NoteOutcome.NoTone => "silence",
            NoteOutcome.NoClearTone => "wanders",
            _ => null,
        };

    private static IEnumerable<Finding> Starts(
        HeardRow row,
        AskedRow asked,
        RowArticulation articulation,
        StageBands bands,
        SoundingPupil pupil
    )
    {
        var all = row.Notes.Select(note => note.Number).ToList();
        // An approach may let the tongue stop a note, or want it set anew.
        if (articulation.ClosedShare > bands.ClosedShare && pupil.Approach.Of(Points.NoteEnd) == NoteEnd.AirEndsIt)
            yield return new Finding(
                pupil.Symptoms.Get("cutOff"),
                articulation.ClosedNotes,
                100 * articulation.ClosedShare.Value,
                100 * bands.ClosedShare,
                "% of endings",
                Words.Of(articulation.ClosedNotes.Count, row.Notes.Count)
                    + $" {(articulation.ClosedNotes.Count == 1 ? "was" : "were")} closed by the tongue."
            );
        if (asked.Drill?.Aim is not (ToneAim.Joined or ToneAim.Syllables) || asked.Plan.Notes.Any(note => note.Part == DrillPart.AirStarts))
            yield break;
        var mostMs = RowArticulation.RiseLimitMs(bands.TonguedRiseMs, row);
        if (articulation.RiseMs is { } rise && rise > mostMs)
            yield return new Finding(
                pupil.Symptoms.Get("unclearStart"),
                all,
                rise,
                mostMs,
                "ms",
                $"The starts swell: {rise:0} ms to full level; {mostMs:0} is the aim."
            );
        if (articulation.ScoopCents is { } scoop && scoop < -bands.ScoopCents)
            yield return new Finding(
                pupil.Symptoms.Get("scoop"),
                all,
                scoop,
                -bands.ScoopCents,
                "cents",
                $"The starts slide up from {-scoop:0} cents below."
            );
    }
}
