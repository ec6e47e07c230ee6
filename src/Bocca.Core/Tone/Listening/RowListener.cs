using Bocca.Core.Buzz.Measures;
using Bocca.Core.Music;
using Bocca.Core.Sound;
using Bocca.Core.Tone.Drills;
using Bocca.Core.Tone.Notes;

namespace Bocca.Core.Tone.Listening;

/// <summary>Listens to a row of notes from end to end: finds the notes, pairs them with those meant, decides on each.</summary>
public static class RowListener
{
    /// <summary>Sounds with no longer hole between them hang together (seconds).</summary>
    private const double ConnectedSeconds = 0.06;

    /// <summary>Hears a row out. A row of the same note, over and over, is a take of tries.</summary>
    public static HeardRow Hear(MonoSound sound, AskedRow asked)
    {
        var (plan, player) = (asked.Plan, asked.Player);
        var track = PitchSlips.Mended(sound, PitchTrack.Of(sound));
        if (Disturbance.Find(sound, track, [], voiceAsked: false, joined: true) is { Kind: not DisturbanceKind.Narrow } problem)
            return new HeardRow(
                track,
                [.. plan.Notes.Select((note, i) => new RowNote(i + 1, note, NoteAnswer.Unreadable(note.Meant, problem), null, null))],
                [],
                problem,
                null
            );
        var starts = Starts(sound, asked);
        var sounded = NoteFinder.Find(sound, track);
        sounded = RowSounds.Undivided(plan, sounded);
        if (starts is not null)
            sounded = RowSounds.WithoutHoles(plan, sounded, starts);
        // Where any sound will do, nothing can be off as a whole.
        var free = asked.IgnoresPitch || plan.Notes.Any(note => note.AnyPartial || note.Heights is not null || note.Air);
        var shift = free ? null : RowDoubt.SharedShift(plan.Meant, sounded, player.Tuning);
        var slide = shift is { } off ? MainSlide.Of(plan.Meant, sounded, player, off) : null;
        var answers = Answers(plan, sounded, starts, player.Tuning, shift ?? 0);
        var measurer = new AttemptMeasurer(sound, track);
        var notes = new List<RowNote>();
        for (var i = 0; i < plan.Notes.Count; i++)
            notes.Add(Note(i, asked, answers, sounded, starts, notes, track, measurer));
        var extra = sounded.Where((_, at) => !answers.Contains(at)).ToList();
        // What goes to and fro between two pitches shows both.
        var settled = sounded
            .Except(notes.Where(note => note.Judged.Outcome == NoteOutcome.NoClearTone).Select(note => note.Sound))
            .ToList();
        var two = !free && TwoPitches.Heard(sound, settled!);
        if (two)
            notes = notes.ConvertAll(note =>
                note.Sound is { } one && TwoPitches.In(sound, one) ? note with { Judged = NoteAnswer.OfTwoPlayers(note.Judged) } : note
            );
        var doubt =
            two ? new RowDoubt(RowDoubtKind.TwoPlayers, "Two sounds at once? Play it once more, alone.")
            : free ? null
            : RowDoubt.Of(plan.Meant, sounded, player, shift, slide, timed: starts is not null);
        return new HeardRow(track, notes, extra, null, doubt) { MainSlide = slide, RoomDecaySeconds = RoomDecay.SecondsOf(sound, sounded) };
    }

    /// <summary>When each note was due; null where nobody said.</summary>
    private static List<double>? Starts(MonoSound sound, AskedRow asked)
    {
        var first = asked.FirstCueSeconds ?? (asked.UsesMarks && sound.CueSeconds is { Count: > 0 } marks ? marks[0] : null);
        return first is { } at ? [.. asked.Plan.Starts.Select(start => start + at)] : null;
    }

    /// <summary>The sound that answers each note: in time where times are known, phrase by phrase; else as they come.</summary>
    private static int?[] Answers(RowPlan plan, IReadOnlyList<SoundedNote> sounded, List<double>? starts, Tuning tuning, double shift)
    {
        if (starts is null)
            return [.. RowAligner.Align(plan.Meant, sounded, tuning, shift)];
        var answers = new int?[plan.Notes.Count];
        for (var p = 0; p < plan.Phrases.Count; p++)
        {
            var (first, end) = plan.Phrases[p];
            var (from, to) = plan.Opening(starts, p);
            var within = Enumerable
                .Range(0, sounded.Count)
                .Where(at => sounded[at].StartSeconds >= from && sounded[at].StartSeconds < to)
                .ToList();
            var aligned = RowAligner.Align(
                [.. plan.Notes.Skip(first).Take(end - first).Select(note => note.Meant)],
                [.. within.Select(at => sounded[at])],
                tuning,
                shift
            );
            for (var i = first; i < end; i++)
                answers[i] = aligned[i - first] is { } at ? within[at] : null;
        }

        return answers;
    }

    private static RowNote Note(
        int i,
        AskedRow asked,
        int?[] answers,
        IReadOnlyList<SoundedNote> sounded,
        List<double>? starts,
        List<RowNote> before,
        PitchTrack track,
        AttemptMeasurer measurer
    )
    {
        var note = asked.Plan.Notes[i];
        if (answers[i] is not { } at)
        {
            var from = Math.Max(before.Select(earlier => earlier.Sound?.EndSeconds ?? 0).DefaultIfEmpty(0).Max(), starts?[i] ?? 0);
            var next = answers
                .Skip(i + 1)
                .OfType<int>()
                .Select(answer => sounded[answer].StartSeconds)
                .DefaultIfEmpty(track.Frames.Count * PitchTrack.HopSeconds)
                .First();
            var to = starts is null ? next : Math.Min(next, from + ((note.Beats + note.RestBeats) * asked.Plan.BeatSeconds));
            var unanswered = NoteAnswer.Missing(note.Meant, track, from, to);
            if (note.Air && unanswered.Outcome == NoteOutcome.AirOnly)
                unanswered = unanswered with { Outcome = NoteOutcome.Right, Sentence = "The air came." };
            return new RowNote(i + 1, note, unanswered, null, null);
        }

        var sound = sounded[at];
        var previous = i > 0 ? asked.Plan.Notes[i - 1].Meant : null;
        var (first, end) = (
            (int)Math.Round(sound.StartSeconds / PitchTrack.HopSeconds),
            (int)Math.Round(sound.EndSeconds / PitchTrack.HopSeconds)
        );
        first = Math.Clamp(first, 0, track.Frames.Count - 2);
        var measures = measurer.Measure(
            new Attempt([new ToneRun(first, Math.Clamp(end, first + 1, track.Frames.Count))]),
            i + 1,
            starts?[i],
            null,
            note.Beats * note.Share * asked.Plan.BeatSeconds
        );
        var judged =
            asked.IgnoresPitch
                ? new JudgedNote
                {
                    Meant = note.Meant,
                    Outcome = NoteOutcome.Right,
                    HeardHz = sound.MedianHz,
                    Sentence = "It sounded; its pitch was not asked.",
                }
            : Flips(at, note, answers, sounded, track, asked.Player) is { } flips
                ? NoteAnswer.OfFlips(note.Meant, sound, flips, asked.Player)
            : NoteAnswer.Of(note, sound, asked, previous);
        return new RowNote(i + 1, note, judged, sound, measures);
    }

    /// <summary>
    /// The two partials between which the sound goes to and fro, with those before and after it that nobody meant and no hole parts.
    /// </summary>
    private static PartialFlips? Flips(
        int at,
        AskedNote note,
        int?[] answers,
        IReadOnlyList<SoundedNote> sounded,
        PitchTrack track,
        PlayerSituation player
    )
    {
        if (note.AnyPartial || note.Heights is not null || note.Air)
            return null;
        var (first, last) = (at, at);
        while (first > 0 && !answers.Contains(first - 1) && sounded[first].StartSeconds - sounded[first - 1].EndSeconds < ConnectedSeconds)
            first--;
        while (
            last + 1 < sounded.Count
            && !answers.Contains(last + 1)
            && sounded[last + 1].StartSeconds - sounded[last].EndSeconds < ConnectedSeconds
        )
            last++;
        return PartialFlips.Of(track, sounded[first].StartSeconds, sounded[last].EndSeconds, note.Meant.Tube, player);
    }
}
