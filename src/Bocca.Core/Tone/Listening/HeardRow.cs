using Bocca.Core.Buzz.Measures;
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
    /// <summary>Seconds in which the room falls by 60 dB, from the take's own endings; null where they do not say.</summary>
    public double? RoomDecaySeconds { get; init; }

    /// <summary>What the main slide mends; null for nothing.</summary>
    public MainSlide? MainSlide { get; init; }

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
