using Bocca.Core.Breath;
using Bocca.Core.Health;
using Bocca.Core.Instruments;
using Bocca.Core.Judging;
using Bocca.Core.Music;
using Bocca.Core.Teaching;
using Bocca.Core.Tone.Listening;
using Bocca.Core.Tone.Notes;
using Bocca.Web.Record;

namespace Bocca.Web.Frame;

/// <summary>The words for the core's values, in one place.</summary>
public static partial class Wording
{
    public static string Stage(LearningStage stage) =>
        stage switch
        {
            LearningStage.Lips => "lips",
            LearningStage.Mouthpiece => "mouthpiece",
            LearningStage.FirstNotes => "first notes",
            LearningStage.Second => "scales and slurs",
            _ => "pieces",
        };

    /// <summary>What a group of complaints is about.</summary>
    public static string Complaints(string group) =>
        group switch
        {
            "lips" => "Lips",
            "teeth" => "Teeth",
            "head" => "Head, ears, nose",
            _ => "Body",
        };

    /// <summary>What breath drills must heed.</summary>
    public static string Health(BreathHealth health) =>
        health switch
        {
            BreathHealth.Breathing => "asthma or another breathing condition",
            BreathHealth.Heart => "heart",
            BreathHealth.Dizziness => "fainting, dizziness before",
            BreathHealth.Surgery => "a recent operation, of ear, nose or teeth too",
            BreathHealth.Seizures => "seizures",
            BreathHealth.Pregnancy => "pregnancy",
            BreathHealth.EyePressure => "high pressure in an eye",
            BreathHealth.Hernia => "a hernia",
            BreathHealth.CollapsedLung => "a lung that collapsed before",
            _ => "easy breaths only",
        };

    /// <summary>What the teeth ask for.</summary>
    public static string Mouth(MouthNote note) => note == MouthNote.Braces ? "braces" : "a loose or missing tooth";

    /// <summary>Under which options of the approach a cue is said; empty for under all.</summary>
    public static string When(Fix fix)
    {
        static string Says(IEnumerable<string> conditions) =>
            string.Join(
                "; ",
                conditions
                    .Select(condition => condition.Split('='))
                    .GroupBy(parts => parts[0], parts => ApproachPoint.Get(parts[0]).Option(parts[1]).Says)
                    .Select(point => $"{ApproachPoint.Get(point.Key).Name}: {string.Join(" or ", point)}")
            );
        return string.Join(
            "; ",
            new[] { Says(fix.When ?? []), fix.Unless is null ? "" : $"unless {Says(fix.Unless)}" }.Where(words => words != "")
        );
    }

    public static string On(SoundStage on) =>
        on switch
        {
            SoundStage.Lips => "lips alone",
            SoundStage.Mouthpiece => "mouthpiece",
            _ => "instrument",
        };

    public static string Preset(ApproachPreset preset) =>
        preset switch
        {
            ApproachPreset.LipsFirst => "lips first",
            ApproachPreset.MouthpieceFirst => "mouthpiece first",
            _ => "air first",
        };

    public static string PresetMeaning(ApproachPreset preset) =>
        preset switch
        {
            ApproachPreset.LipsFirst => "Tone on the lips alone comes before the mouthpiece; cues speak of the lips.",
            ApproachPreset.MouthpieceFirst => "Tone on the mouthpiece comes first; cues speak of rim and placement.",
            _ => "The air starts and the lips narrow until it speaks; air before a tone is met with patience.",
        };

    /// <summary>An approach in a few words.</summary>
    public static string Approach(Approach approach) =>
        approach.Changed.Count switch
        {
            0 => Preset(approach.Preset),
            1 => $"{Preset(approach.Preset)}, one point changed",
            var count => $"{Preset(approach.Preset)}, {count} points changed",
        };

    /// <summary>The approach that a record was made under, as it stands there.</summary>
    public static string MadeUnder(string text) => text == "" ? "–" : Approach(Core.Teaching.Approach.Parse(text));

    public static string Source(EntrySource? source) =>
        source switch
        {
            EntrySource.Microphone => "microphone",
            EntrySource.File => "file",
            EntrySource.PracticePlayer => "practice player",
            EntrySource.Camera => "camera",
            EntrySource.Photo => "photo",
            EntrySource.Drawing => "drawing",
            _ => "tapped",
        };

    public static string Reading(Reading reading) =>
        reading.Id switch
        {
            "treble-bb" => "B♭ treble clef",
            "treble-eb" => "E♭ treble clef",
            "bass" => "bass clef",
            "tenor" => "tenor clef",
            "bass-new" => "bass clef, new notation",
            "bass-old" => "bass clef, old notation",
            _ => "treble clef",
        };

    /// <summary>What notes and note values are called under an approach, by what is printed; empty where that is the same.</summary>
    public static IReadOnlyDictionary<string, string> Names(Approach approach, Pupil? pupil)
    {
        var naming = approach.Of(Points.NoteNames) switch
        {
            NoteNames.German => new NoteNaming(NoteNamingKind.German),
            NoteNames.FixedDo => new NoteNaming(NoteNamingKind.FixedDo),
            NoteNames.MovableDo when pupil is not null => new NoteNaming(
                NoteNamingKind.MovableDo,
                pupil.Reading.ToWritten(StartNotes.Of(pupil.Instrument).ConcertBb)
            ),
            _ => NoteNaming.Letters,
        };
        IEnumerable<KeyValuePair<string, string>> notes = naming == NoteNaming.Letters ? [] : naming.Table();
        IEnumerable<KeyValuePair<string, string>> values =
            approach.Of(Points.NoteValues) == NoteValueNames.British ? ValueNaming.British : [];
        return notes.Concat(values).ToDictionary(name => name.Key, name => name.Value);
    }

    /// <summary>Cents beside a note: <c>+54</c>, <c>−14</c>; nothing where they round to none.</summary>
    public static string SignedCents(double cents) => Math.Round(cents) == 0 ? "" : $"{cents:+0;−0}";

    /// <summary>A pitch as it is read: C♯4, B♭3.</summary>
    public static string Pitch(Pitch pitch) => Spelled(pitch.ToString());

    /// <summary>A pitch, or a sentence with pitches in it, as it is read.</summary>
    public static string Spelled(string text) =>
        PitchName().Replace(text, name => $"{name.Groups[1]}{Accidentals(name.Groups[2].Value)}{name.Groups[3]}");

    private static string Accidentals(string ascii) => ascii.Replace("#", "♯").Replace("b", "♭");

    [System.Text.RegularExpressions.GeneratedRegex(@"(?<![A-Za-z])([A-G])(b{1,2}|#{1,2})(-?[0-9]|(?![A-Za-z0-9]))")]
    private static partial System.Text.RegularExpressions.Regex PitchName();

    /// <summary>What came of a note, in two or three words for a drawing.</summary>
    public static string Miss(TracedNote note) =>
        note.Miss
        ?? note.Outcome switch
        {
            NoteOutcome.PartialLow or NoteOutcome.PartialHigh =>
                $"{Math.Abs(note.By)} {(Math.Abs(note.By) == 1 ? "partial" : "partials")} {(note.By < 0 ? "low" : "high")}",
            NoteOutcome.OtherSetting => $"on {note.OtherSetting}",
            NoteOutcome.SlideOff => $"{Math.Abs(note.Cm ?? 0):0.0} cm too far {(note.Cm > 0 ? "in" : "out")}",
            NoteOutcome.PreviousNote => "the note before",
            NoteOutcome.Octave => "octave away",
            NoteOutcome.AirOnly => "air only",
            NoteOutcome.NoTone => "no tone",
            NoteOutcome.NoClearTone => "no clear tone",
            NoteOutcome.TwoReadings => "which way?",
            _ => "cannot tell",
        };

    public static string Setting(Instrument instrument, Setting setting)
    {
        if (instrument.Slide is not null)
            return setting.Attachment == "" ? $"position {setting.Position}" : Triggered(instrument, setting);
        var fingers = setting.Valves.ToList();
        var words = fingers.Count == 0 ? "open, no valve" : $"valve{(fingers.Count > 1 ? "s" : "")} {Listed(fingers)}";
        return setting.Attachment == "" ? words : $"thumb, {words}";
    }

    /// <summary>A position of an attachment is one of its own: with its centimetres, and as a plain slide would call the place.</summary>
    private static string Triggered(Instrument instrument, Setting setting)
    {
        var place = SlidePlace.Of(instrument.Slide!, instrument.TubeOf(setting)!.Value.SlideOutCm);
        return Spelled(
            $"{setting}, {instrument.TriggerName(setting.Attachment)}, {place.Cm:0.0} cm: {place.OnPlainSlide} on a plain slide"
        );
    }

    private static string Listed(List<int> numbers) =>
        numbers.Count == 1 ? $"{numbers[0]}" : $"{string.Join(", ", numbers.SkipLast(1))} and {numbers[^1]}";
}
