using Bocca.Core.Buzz.Measures;
using Bocca.Core.Music;
using Bocca.Core.Sound;
using Bocca.Core.Teaching;
using Bocca.Core.Tone.Drills;
using Bocca.Core.Tone.Notes;

namespace Bocca.Core.Tone.Listening;

/// <summary>What was asked of the player of a row.</summary>
/// <param name="Plan">The notes and their times.</param>
/// <param name="Player">Who plays what.</param>
/// <param name="Pupil">How far the pupil has come.</param>
public sealed record AskedRow(RowPlan Plan, PlayerSituation Player, LearningStage Pupil)
{
    /// <summary>The drill; null for a row of one's own.</summary>
    public ToneDrill? Drill { get; init; }

    /// <summary>
    /// When the first note was due, seconds into the sound; null to use the sound's own marks, or to take the notes as they come.
    /// </summary>
    public double? FirstCueSeconds { get; init; }

    /// <summary>How much of the recording did not arrive, seconds.</summary>
    public double MissingSeconds { get; init; }

    /// <summary>The room's temperature, degrees Celsius; null where nobody said.</summary>
    public double? RoomCelsius { get; init; }

    /// <summary>Whether only how notes are begun and ended counts, whatever their pitch.</summary>
    public bool IgnoresPitch { get; init; }

    /// <summary>Whether marks that the sound brings along say when its notes were due.</summary>
    public bool UsesMarks { get; init; } = true;
}

/// <summary>A meant note with the sound that answered it.</summary>
/// <param name="Number">Its place in the row, from 1.</param>
/// <param name="Asked">What was asked.</param>
/// <param name="Judged">What came of it.</param>
/// <param name="Sound">How it sounded; null where nothing answered it.</param>
/// <param name="Measures">What its tone says; null where there was none.</param>
public sealed record RowNote(int Number, AskedNote Asked, JudgedNote Judged, SoundedNote? Sound, AttemptMeasures? Measures);

/// <summary>A row of notes, heard and held against what was meant.</summary>
/// <param name="Track">The pitch of the take.</param>
/// <param name="Notes">The meant notes, in order.</param>
/// <param name="Extra">Sounds that nobody meant.</param>
/// <param name="Problem">What makes the recording unfit; null if it could be judged.</param>
/// <param name="Doubt">What makes the whole take look other than announced; null for nothing.</param>
public sealed record HeardRow(
    PitchTrack Track,
    IReadOnlyList<RowNote> Notes,
    IReadOnlyList<SoundedNote> Extra,
    Disturbance? Problem,
    RowDoubt? Doubt
)
{
    /// <summary>
    /// How the right notes climb (or sink, negative) through the row beside their own tubes, cents a minute; null for fewer than four.
    /// </summary>
    public double? DriftCentsPerMinute
    {
        get
        {
            var right = Notes.Where(note => note is { Sound: not null, Judged: { Outcome: NoteOutcome.Right, Readings: [_] } }).ToList();
            return right.Count < 4
                ? null
                : 60
                    * Trend
                        .Of(
                            [.. right.Select(note => note.Sound!.StartSeconds)],
                            [.. right.Select(note => note.Judged.Readings[0].OffCents)]
                        )
                        .SlopePerSecond;
        }
    }

    /// <summary>The notes by phrase: a phrase ends where a rest follows.</summary>
    public IReadOnlyList<IReadOnlyList<RowNote>> Phrases
    {
        get
        {
            var phrases = new List<List<RowNote>> { new() };
            foreach (var note in Notes)
            {
                phrases[^1].Add(note);
                if (note.Asked.RestBeats > 0)
                    phrases.Add([]);
            }

            return [.. phrases.Where(phrase => phrase.Count > 0)];
        }
    }
}

/// <summary>Listens to a row of notes from end to end: finds the notes, pairs them with those meant, decides on each.</summary>
public static class RowListener
{
    /// <summary>What never settles within this spread is no clear tone (cents).</summary>
    private const double ClearCents = 100;

    /// <summary>Under this length (seconds) a note may lie so far off (cents) and still count as come.</summary>
    private const double SettlesSeconds = 0.15,
        NearEnoughCents = 150;

    /// <summary>Air counts from this long (seconds) and this far over the room (dB).</summary>
    private const double AirSeconds = 0.3,
        AirDb = 6;

    /// <summary>What was struck is loud from so long before it has a pitch to so long after (seconds).</summary>
    private const double StruckSeconds = 0.05,
        RingSeconds = 0.15;

    /// <summary>A hole shorter than this (seconds) in one pitch (cents) is a hole, not the end of the note.</summary>
    private const double HoleSeconds = 0.3,
        SamePitchCents = 60;

    /// <summary>A flaw in a tone is no deeper (dB) and no longer (seconds).</summary>
    private const double FlawDb = 6,
        FlawSeconds = 0.05;

    /// <summary>A phrase's sounds may begin so long before it was due (seconds).</summary>
    private const double EarlySeconds = 0.5;

    /// <summary>Hears a row out. A row of the same note, over and over, is a take of tries.</summary>
    public static HeardRow Hear(MonoSound sound, AskedRow asked)
    {
        var (plan, player) = (asked.Plan, asked.Player);
        var track = PitchSlips.Mended(sound, PitchTrack.Of(sound));
        if (Disturbance.Find(sound, track, [], voiceAsked: false, joined: true) is { Kind: not DisturbanceKind.Narrow } problem)
            return new HeardRow(
                track,
                [.. plan.Notes.Select((note, i) => new RowNote(i + 1, note, Unreadable(note.Meant, problem), null, null))],
                [],
                problem,
                null
            );
        var starts = Starts(sound, asked);
        var sounded = NoteFinder.Find(sound, track);
        sounded = Undivided(plan, sounded);
        if (starts is not null)
            sounded = WithoutHoles(plan, sounded, starts);
        // Where any sound will do, nothing can be off as a whole.
        var free = asked.IgnoresPitch || plan.Notes.Any(note => note.AnyPartial || note.Heights is not null || note.Air);
        var shift = free ? null : RowDoubt.SharedShift(plan.Meant, sounded, player.Tuning);
        var answers = Answers(plan, sounded, starts, player.Tuning, shift ?? 0);
        var measurer = new AttemptMeasurer(sound, track);
        var notes = new List<RowNote>();
        for (var i = 0; i < plan.Notes.Count; i++)
            notes.Add(Note(i, asked, answers, sounded, starts, notes, track, measurer));
        var extra = sounded.Where((_, at) => !answers.Contains(at)).ToList();
        var doubt =
            !free && TwoPitches.Heard(sound, sounded)
                ? new RowDoubt(
                    RowDoubtKind.TwoPlayers,
                    "Two pitches sound at once: somebody else plays too. One at a time, and hear it again."
                )
            : free ? null
            : RowDoubt.Of(plan.Meant, sounded, player, shift, timed: starts is not null);
        return new HeardRow(track, notes, extra, null, doubt);
    }

    /// <summary>When each note was due; null where nobody said.</summary>
    private static List<double>? Starts(MonoSound sound, AskedRow asked)
    {
        var first = asked.FirstCueSeconds ?? (asked.UsesMarks && sound.CueSeconds is { Count: > 0 } marks ? marks[0] : null);
        return first is { } at ? [.. asked.Plan.Starts.Select(start => start + at)] : null;
    }

    /// <summary>
    /// When the sounds of a phrase may begin: from half a second before it is due, or half the rest before it, to the next one's.
    /// </summary>
    private static (double From, double To) Opening(RowPlan plan, List<double> starts, int phrase)
    {
        var phrases = plan.Phrases;
        double At(int which) =>
            which == 0 ? double.NegativeInfinity
            : which >= phrases.Count ? double.PositiveInfinity
            : starts[phrases[which].First] - Math.Min(EarlySeconds, plan.Notes[phrases[which].First - 1].RestBeats * plan.BeatSeconds / 2);
        return (At(phrase), At(phrase + 1));
    }

    /// <summary>Where no note follows itself, a flaw in a tone that stays on its pitch and its level is no new note.</summary>
    private static IReadOnlyList<SoundedNote> Undivided(RowPlan plan, IReadOnlyList<SoundedNote> sounded)
    {
        if (
            plan.Notes.Count < 2
            || plan.Notes.Zip(plan.Notes.Skip(1))
                .Any(pair => pair.First.RestBeats == 0 && pair.First.Meant.Sounding.Midi == pair.Second.Meant.Sounding.Midi)
        )
            return sounded;
        var whole = new List<SoundedNote>();
        foreach (var note in sounded)
        {
            if (
                whole.Count > 0
                && note.DipDb < FlawDb
                && note.StartSeconds - whole[^1].EndSeconds < FlawSeconds
                && Math.Abs(Tuning.Cents(whole[^1].MedianHz, note.MedianHz)) < SamePitchCents
            )
                whole[^1] = Joined(whole[^1], note);
            else
                whole.Add(note);
        }

        return whole;
    }

    /// <summary>Two sounds as one: the longer one's pitch, from the first one's start to the second one's end.</summary>
    private static SoundedNote Joined(SoundedNote first, SoundedNote second) =>
        (second.Seconds > first.Seconds ? second : first) with
        {
            StartSeconds = first.StartSeconds,
            HalfSeconds = first.HalfSeconds,
            EndSeconds = second.EndSeconds,
            RiseMs = first.RiseMs,
            FallMs = second.FallMs,
            DipDb = first.DipDb,
            GapMs = first.GapMs,
            Tongued = first.Tongued,
        };

    /// <summary>
    /// Where one note is asked in a breath, a tone with holes in it is one note: what stops for a moment and goes on at its pitch.
    /// </summary>
    private static List<SoundedNote> WithoutHoles(RowPlan plan, IReadOnlyList<SoundedNote> sounded, List<double> starts)
    {
        var whole = new List<SoundedNote>();
        for (var p = 0; p < plan.Phrases.Count; p++)
        {
            var (from, to) = Opening(plan, starts, p);
            var single = plan.Phrases[p].End - plan.Phrases[p].First == 1;
            var first = whole.Count;
            foreach (var note in sounded.Where(note => note.StartSeconds >= from && note.StartSeconds < to))
            {
                if (
                    single
                    && whole.Count > first
                    && note.StartSeconds - whole[^1].EndSeconds < HoleSeconds
                    && Math.Abs(Tuning.Cents(whole[^1].MedianHz, note.MedianHz)) < SamePitchCents
                )
                    whole[^1] = Joined(whole[^1], note);
                else
                    whole.Add(note);
            }
        }

        return whole;
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
            var (from, to) = Opening(plan, starts, p);
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
            var unanswered = Unanswered(note.Meant, track, from, to);
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
        var judged = asked.IgnoresPitch
            ? new JudgedNote
            {
                Meant = note.Meant,
                Outcome = NoteOutcome.Right,
                HeardHz = sound.MedianHz,
                Sentence = "It sounded; its pitch was not asked.",
            }
            : Plain(Answered(note, sound, asked.Player, previous), asked.Pupil);
        return new RowNote(i + 1, note, judged, sound, measures);
    }

    /// <summary>In the first stage a note that came came, and nothing is said of cents.</summary>
    private static JudgedNote Plain(JudgedNote judged, LearningStage stage) =>
        judged.Outcome == NoteOutcome.Right && judged.Cents is not null && stage < LearningStage.Second
            ? judged with
            {
                Sentence = $"{judged.Meant.Written} came.",
            }
            : judged;

    private static JudgedNote Answered(AskedNote note, SoundedNote sound, PlayerSituation player, MeantNote? previous)
    {
        if (note.Air)
            return new JudgedNote
            {
                Meant = note.Meant,
                Outcome = NoteOutcome.NoClearTone,
                HeardHz = sound.MedianHz,
                Sentence = "A tone came; air alone was asked.",
            };
        if (note.Heights is not null)
            return new JudgedNote
            {
                Meant = note.Meant,
                Outcome = NoteOutcome.Right,
                HeardHz = sound.MedianHz,
                Sentence = "It sounded.",
            };
        if (sound.SpreadCents > ClearCents)
            return new JudgedNote
            {
                Meant = note.Meant,
                Outcome = NoteOutcome.NoClearTone,
                HeardHz = sound.MedianHz,
                Sentence = $"{note.Meant.Written} was meant; the sound settled on no pitch: it moved by {sound.SpreadCents:0} cents.",
            };
        var judged = NoteDecider.Decide(note.Meant, sound.MedianHz, player, previous);
        // So short a note has no time to settle: near is near enough.
        if (
            sound.Seconds < SettlesSeconds
            && judged.Outcome != NoteOutcome.Right
            && Math.Abs(Tuning.Cents(player.Tuning.Frequency(note.Meant.Sounding), sound.MedianHz)) < NearEnoughCents
        )
            return judged with
            {
                Outcome = NoteOutcome.Right,
                By = 0,
                Cm = null,
                OtherSetting = null,
                Partial = note.Meant.Partial,
                Sentence = $"{note.Meant.Written} came, too short to say how well in tune.",
            };
        return note.AnyPartial && judged.Partial is { } partial && judged.OtherSetting is null
            ? judged with
            {
                Outcome = NoteOutcome.Right,
                Sentence = $"It spoke: partial {partial}, {judged.HeardWritten}.",
            }
            : judged;
    }

    private static JudgedNote Unanswered(MeantNote meant, PitchTrack track, double from, double to)
    {
        var room = AttemptFinder.RoomDb(track);
        // The neighbours' own dying away is no air: a tenth of a second is left at either end.
        var air =
            track.Frames.Count(frame =>
                frame.TimeSeconds > from + 0.1 && frame.TimeSeconds < to - 0.1 && frame.LevelDb > room + AirDb && !Rings(track, frame)
            ) * PitchTrack.HopSeconds;
        return air >= AirSeconds
            ? new JudgedNote
            {
                Meant = meant,
                Outcome = NoteOutcome.AirOnly,
                Sentence = $"{meant.Written} was meant; air came, no tone.",
            }
            : new JudgedNote
            {
                Meant = meant,
                Outcome = NoteOutcome.NoTone,
                Sentence = track.StruckSeconds.Any(at => at > from && at < to)
                    ? $"{meant.Written} was meant; a click or a tap was heard, and no tone."
                    : $"{meant.Written} was meant; nothing was heard.",
            };
    }

    /// <summary>Whether something struck still rings.</summary>
    private static bool Rings(PitchTrack track, PitchFrame frame) =>
        track.StruckSeconds.Any(at => frame.TimeSeconds > at - StruckSeconds && frame.TimeSeconds < at + RingSeconds);

    private static JudgedNote Unreadable(MeantNote meant, Disturbance problem) =>
        new()
        {
            Meant = meant,
            Outcome = NoteOutcome.CannotTell,
            Sentence = $"Cannot tell: {problem.Why}",
        };
}
