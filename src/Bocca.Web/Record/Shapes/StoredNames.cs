using Bocca.Core.Buzz;
using Bocca.Core.Buzz.Measures;
using Bocca.Core.Ear;
using Bocca.Core.Judging;
using Bocca.Core.Music;
using Bocca.Core.Practice.Lesson;
using Bocca.Core.Practice.Week;
using Bocca.Core.Teaching;
using Bocca.Core.Tone.Notes;

namespace Bocca.Web.Record.Shapes;

/// <summary>The names of choices in the record. They stay, whatever is renamed in the code; a new choice is given one here.</summary>
public static class StoredNames
{
    public static Names<Outcome> Outcomes { get; } =
        new((Outcome.Passed, "Passed"), (Outcome.Repeat, "Repeat"), (Outcome.StepBack, "StepBack"), (Outcome.CannotTell, "CannotTell"));

    public static Names<SoundStage> SoundStages { get; } =
        new((SoundStage.Lips, "Lips"), (SoundStage.Mouthpiece, "Mouthpiece"), (SoundStage.Instrument, "Instrument"));

    public static Names<LearningStage> LearningStages { get; } =
        new(
            (LearningStage.Lips, "Lips"),
            (LearningStage.Mouthpiece, "Mouthpiece"),
            (LearningStage.FirstNotes, "FirstNotes"),
            (LearningStage.Second, "Second"),
            (LearningStage.Pieces, "Pieces")
        );

    public static Names<ApproachPreset> Presets { get; } =
        new(
            (ApproachPreset.LipsFirst, "LipsFirst"),
            (ApproachPreset.MouthpieceFirst, "MouthpieceFirst"),
            (ApproachPreset.AirFirst, "AirFirst")
        );

    public static Names<EntrySource> Sources { get; } =
        new(
            (EntrySource.Microphone, "Microphone"),
            (EntrySource.File, "File"),
            (EntrySource.PracticePlayer, "PracticePlayer"),
            (EntrySource.Camera, "Camera"),
            (EntrySource.Photo, "Photo"),
            (EntrySource.Drawing, "Drawing")
        );

    public static Names<Pull> Pulls { get; } = new((Pull.Neutral, "Neutral"), (Pull.Firm, "Firm"), (Pull.Ease, "Ease"));

    public static Names<HeardAs> HeardAs { get; } =
        new(
            (Core.Judging.HeardAs.Came, "Came"),
            (Core.Judging.HeardAs.Lower, "Lower"),
            (Core.Judging.HeardAs.Higher, "Higher"),
            (Core.Judging.HeardAs.Steady, "Steady"),
            (Core.Judging.HeardAs.Unsteady, "Unsteady")
        );

    public static Names<Ending> Endings { get; } =
        new((Ending.Closed, "Closed"), (Ending.Tapered, "Tapered"), (Ending.TrailingOff, "TrailingOff"), (Ending.Plain, "Plain"));

    public static Names<MarkKind> MarkKinds { get; } =
        new(
            (MarkKind.Scoop, "Scoop"),
            (MarkKind.Drift, "Drift"),
            (MarkKind.Wobble, "Wobble"),
            (MarkKind.Break, "Break"),
            (MarkKind.End, "End")
        );

    public static Names<NoteOutcome> NoteOutcomes { get; } =
        new(
            (NoteOutcome.Right, "Right"),
            (NoteOutcome.PartialLow, "PartialLow"),
            (NoteOutcome.PartialHigh, "PartialHigh"),
            (NoteOutcome.OtherSetting, "OtherSetting"),
            (NoteOutcome.SlideOff, "SlideOff"),
            (NoteOutcome.PreviousNote, "PreviousNote"),
            (NoteOutcome.Octave, "Octave"),
            (NoteOutcome.AirOnly, "AirOnly"),
            (NoteOutcome.NoTone, "NoTone"),
            (NoteOutcome.NoClearTone, "NoClearTone"),
            (NoteOutcome.TwoReadings, "TwoReadings"),
            (NoteOutcome.CannotTell, "CannotTell")
        );

    public static Names<EarOutcome> EarOutcomes { get; } =
        new(
            (EarOutcome.Right, "Right"),
            (EarOutcome.Flat, "Flat"),
            (EarOutcome.Sharp, "Sharp"),
            (EarOutcome.OtherNote, "OtherNote"),
            (EarOutcome.Nothing, "Nothing"),
            (EarOutcome.CannotTell, "CannotTell")
        );

    public static Names<Letter> Letters { get; } =
        new((Letter.C, "C"), (Letter.D, "D"), (Letter.E, "E"), (Letter.F, "F"), (Letter.G, "G"), (Letter.A, "A"), (Letter.B, "B"));

    public static Names<WeekKind> WeekKinds { get; } =
        new(
            (WeekKind.WarmUp, "WarmUp"),
            (WeekKind.Fault, "Fault"),
            (WeekKind.New, "New"),
            (WeekKind.Recall, "Recall"),
            (WeekKind.Gate, "Gate"),
            (WeekKind.Paper, "Paper"),
            (WeekKind.Liked, "Liked"),
            (WeekKind.Stretch, "Stretch")
        );

    public static Names<LessonPart> LessonParts { get; } =
        new(
            (LessonPart.WarmUp, "WarmUp"),
            (LessonPart.Fault, "Fault"),
            (LessonPart.New, "New"),
            (LessonPart.Piece, "Piece"),
            (LessonPart.Close, "Close")
        );

    public static Names<LessonMood> LessonMoods { get; } =
        new((LessonMood.Fine, "Fine"), (LessonMood.Tense, "Tense"), (LessonMood.Tired, "Tired"));

    public static Names<DayOfWeek> Days { get; } =
        new(
            (DayOfWeek.Monday, "Monday"),
            (DayOfWeek.Tuesday, "Tuesday"),
            (DayOfWeek.Wednesday, "Wednesday"),
            (DayOfWeek.Thursday, "Thursday"),
            (DayOfWeek.Friday, "Friday"),
            (DayOfWeek.Saturday, "Saturday"),
            (DayOfWeek.Sunday, "Sunday")
        );
}
