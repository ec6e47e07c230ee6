using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Sound;
using Bocca.Core.Teaching;
using Bocca.Core.Tone.Drills;
using Bocca.Core.Tone.Notes;

namespace Bocca.Core.Tone.Listening;

/// <summary>What came of one note of a row: the sound that answered it, or what was heard in its place.</summary>
internal static class NoteAnswer
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

    /// <summary>The note's sound held against what was meant, in the words of the pupil's stage.</summary>
    /// <param name="note">What was asked.</param>
    /// <param name="sound">The sound that answers it.</param>
    /// <param name="asked">The row, who plays it and how far the pupil has come.</param>
    /// <param name="previous">The note meant before it; null for none.</param>
    public static JudgedNote Of(AskedNote note, SoundedNote sound, AskedRow asked, MeantNote? previous) =>
        Plain(Decided(note, sound, asked.Player, previous), asked.Pupil);

    /// <summary>A tone that settles on neither of two partials.</summary>
    public static JudgedNote OfFlips(MeantNote meant, SoundedNote sound, PartialFlips flips, PlayerSituation player)
    {
        Pitch Written(int partial) => Rung.At(player.Instrument, meant.Tube, partial, player.Tuning).Written(player.Reading, meant.Written);
        return new JudgedNote
        {
            Meant = meant,
            Outcome = NoteOutcome.NoClearTone,
            HeardHz = sound.MedianHz,
            Sentence =
                $"The sound jumped between {Written(flips.Low)} and {Written(flips.High)}, " + $"partials {flips.Low} and {flips.High}.",
        };
    }

    /// <summary>A note under which somebody else plays.</summary>
    public static JudgedNote OfTwoPlayers(JudgedNote judged) =>
        new()
        {
            Meant = judged.Meant,
            Outcome = NoteOutcome.CannotTell,
            Sentence = "Cannot tell: two pitches sound at once.",
        };

    /// <summary>In the first stage a note that came came, and nothing is said of cents.</summary>
    private static JudgedNote Plain(JudgedNote judged, LearningStage stage) =>
        judged.Outcome == NoteOutcome.Right && judged.Cents is not null && stage < LearningStage.Second
            ? judged with
            {
                Sentence = $"{judged.Meant.Written} came.",
            }
            : judged;

    private static JudgedNote Decided(AskedNote note, SoundedNote sound, PlayerSituation player, MeantNote? previous)
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
                Sentence = $"The sound settled on no pitch: it moved by {sound.SpreadCents:0} cents.",
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

    public static JudgedNote Missing(MeantNote meant, PitchTrack track, double from, double to)
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
                Sentence = "Air came, and no tone.",
            }
            : new JudgedNote
            {
                Meant = meant,
                Outcome = NoteOutcome.NoTone,
                Sentence = track.StruckSeconds.Any(at => at > from && at < to)
                    ? "A click or a tap was heard, and no tone."
                    : "Nothing was heard.",
            };
    }

    /// <summary>Whether something struck still rings.</summary>
    private static bool Rings(PitchTrack track, PitchFrame frame) =>
        track.StruckSeconds.Any(at => frame.TimeSeconds > at - StruckSeconds && frame.TimeSeconds < at + RingSeconds);

    public static JudgedNote Unreadable(MeantNote meant, Disturbance problem) =>
        new()
        {
            Meant = meant,
            Outcome = NoteOutcome.CannotTell,
            Sentence = $"Cannot tell: {problem.Why}",
        };
}
