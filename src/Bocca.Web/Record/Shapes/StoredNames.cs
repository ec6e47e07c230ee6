using Bocca.Core.Breath;
using Bocca.Core.Buzz;
using Bocca.Core.Buzz.Measures;
using Bocca.Core.Ear;
using Bocca.Core.Health;
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

    public static Names<DrillPart> DrillParts { get; } =
        new(
            (DrillPart.Any, "Any"),
            (DrillPart.Soft, "Soft"),
            (DrillPart.Medium, "Medium"),
            (DrillPart.Loud, "Loud"),
            (DrillPart.Before, "Before"),
            (DrillPart.After, "After"),
            (DrillPart.TooTight, "TooTight"),
            (DrillPart.Centred, "Centred"),
            (DrillPart.TooOpen, "TooOpen"),
            (DrillPart.Higher, "Higher"),
            (DrillPart.Lower, "Lower"),
            (DrillPart.Joined, "Joined"),
            (DrillPart.AirStarts, "AirStarts")
        );

    /// <summary>What parts of drills were called in records of before they were named; what a part is called now is free.</summary>
    private static readonly Dictionary<string, DrillPart> PartsOfOlderLabels = new()
    {
        ["soft"] = DrillPart.Soft,
        ["medium"] = DrillPart.Medium,
        ["loud"] = DrillPart.Loud,
        ["before"] = DrillPart.Before,
        ["after"] = DrillPart.After,
        ["too tight"] = DrillPart.TooTight,
        ["centred"] = DrillPart.Centred,
        ["too open"] = DrillPart.TooOpen,
        ["higher"] = DrillPart.Higher,
        ["lower"] = DrillPart.Lower,
        ["joined"] = DrillPart.Joined,
        ["air"] = DrillPart.AirStarts,
    };

    /// <summary>The name of a part; null for none, as most have none.</summary>
    public static string? PartName(DrillPart part) => part == DrillPart.Any ? null : DrillParts[part];

    /// <summary>A part by its name, or by the label of an older record.</summary>
    /// <exception cref="InvalidDataException">There is no such part.</exception>
    public static DrillPart PartOf(string? name, string? label) =>
        name is not null ? DrillParts.Read(name) : PartsOfOlderLabels.GetValueOrDefault(label ?? "");

    /// <summary>Reasons of health; the column holds the sum of their numbers, which stay as well.</summary>
    public static Names<BreathHealth> HealthReasons { get; } =
        new(
            (BreathHealth.None, "None"),
            (BreathHealth.Breathing, "Breathing"),
            (BreathHealth.Heart, "Heart"),
            (BreathHealth.Dizziness, "Dizziness"),
            (BreathHealth.Surgery, "Surgery"),
            (BreathHealth.Seizures, "Seizures"),
            (BreathHealth.Pregnancy, "Pregnancy"),
            (BreathHealth.EyePressure, "EyePressure"),
            (BreathHealth.Hernia, "Hernia"),
            (BreathHealth.CollapsedLung, "CollapsedLung"),
            (BreathHealth.Unsaid, "Unsaid")
        );

    /// <summary>What is noted of the mouth; the column holds the sum of their numbers.</summary>
    public static Names<MouthNote> MouthNotes { get; } =
        new((MouthNote.None, "None"), (MouthNote.Braces, "Braces"), (MouthNote.LooseTooth, "LooseTooth"));

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
