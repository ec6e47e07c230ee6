using Bocca.Core.Ear;
using Bocca.Core.Tone.Listening;
using Bocca.Core.Tone.Notes;

namespace Bocca.Web.Pages.Ear;

/// <summary>
/// What was sung and played, laid out as a row of notes is drawn: the voice first, in the octave of the notes, then the instrument.
/// </summary>
internal static class EarTrace
{
    /// <summary>The row.</summary>
    /// <param name="question">What was asked.</param>
    /// <param name="situation">On what.</param>
    /// <param name="heard">What was heard; null before.</param>
    public static RowTrace Of(EarQuestion question, PlayerSituation situation, EarPayload? heard)
    {
        var beat = 60 / question.Drill.Tempo;
        var first = heard?.FirstSeconds ?? 0;
        var notes = new List<TracedNote>();
        foreach (var (i, note) in question.Sung.Index())
            notes.Add(
                Traced(
                    note,
                    notes.Count,
                    first + (question.SungFrom(i) * beat),
                    question.SungLength(i),
                    i + 1 == question.Sung.Count,
                    heard?.Sung.ElementAtOrDefault(i)
                )
            );
        foreach (var (i, note) in question.Played.Index())
            notes.Add(
                Traced(
                    note,
                    notes.Count,
                    first + ((question.PlayedFrom + (i * question.NoteBeats)) * beat),
                    question.NoteBeats,
                    i + 1 == question.Played.Count,
                    heard?.Played.ElementAtOrDefault(i)
                )
            );
        var midi = heard?.Midi ?? [];
        return new RowTrace(midi.Count * RowTrace.StepSeconds, notes, Folded(midi, notes, question.Sung.Count))
        {
            A4Hz = situation.Tuning.A4Hz,
        };

        TracedNote Traced(Core.Music.Pitch written, int at, double due, double beats, bool ends, EarHeard? came)
        {
            var meant = MeantNote.Of(situation.Instrument, situation.Reading, written, situation.Weights, situation.Hand);
            return new TracedNote
            {
                Number = at + 1,
                Written = $"{written}",
                Setting = $"{meant.Setting}",
                Partial = meant.Partial,
                Midi = meant.Sounding.Midi,
                DueSeconds = due,
                AskedSeconds = beats * beat,
                EndsPhrase = ends,
                Outcome = came is null || EarJudge.Came(came) ? NoteOutcome.Right : Told(came),
                By = came?.Outcome == EarOutcome.OtherNote ? Math.Sign(came.Cents!.Value + (1200 * came.Octaves)) : 0,
                Cm = came?.Cm,
                HeardHz = came?.HeardHz / (at < question.Sung.Count ? Math.Pow(2, came?.Octaves ?? 0) : 1),
                Miss = came is null || EarJudge.Came(came) ? null : Missed(came),
                Sentence = came?.Sentence ?? $"{written}.",
            };
        }
    }

    private static string? Missed(EarHeard heard) =>
        heard.Outcome switch
        {
            EarOutcome.Nothing or EarOutcome.CannotTell => null,
            EarOutcome.OtherNote => heard
                .Sentence[(heard.Sentence.IndexOf(':', StringComparison.Ordinal) + 2)..]
                .Split(':')[0]
                .TrimEnd('.'),
            // The thread about the wire shows it.
            _ => "",
        };

    private static NoteOutcome Told(EarHeard heard) =>
        heard.Outcome switch
        {
            EarOutcome.Nothing => NoteOutcome.NoTone,
            EarOutcome.CannotTell => NoteOutcome.NoClearTone,
            _ when heard.Cm is not null => NoteOutcome.SlideOff,
            _ => NoteOutcome.CannotTell,
        };

    /// <summary>A voice is drawn in the octave of the note that it was to sing.</summary>
    private static List<double?> Folded(IReadOnlyList<double?> midi, List<TracedNote> notes, int sung)
    {
        var folded = midi.ToList();
        for (var i = 0; i < folded.Count; i++)
        {
            var at = i * RowTrace.StepSeconds;
            var note = notes.FindLastIndex(each => each.DueSeconds <= at);
            if (note < sung && folded[i] is { } height)
                folded[i] = height + (12 * Math.Round((notes[Math.Max(0, note)].Midi - height) / 12));
        }

        return folded;
    }
}
