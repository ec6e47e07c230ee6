using System.Text.Json;
using System.Text.Json.Nodes;
using Bocca.Core.Breath;
using Bocca.Core.Health;
using Bocca.Core.Judging;
using Bocca.Core.Teaching;

namespace Bocca.Web.Record.Archive;

/// <summary>
/// A pupil with the whole record, as <c>pupil.json</c> of an archive holds it. Its form is described in docs/ARCHITECTURE.md; its change
/// raises <see cref="Form"/>.
/// </summary>
/// <param name="Form">The form of this file: 2, with results; 1 had a level in their place.</param>
/// <param name="Made">When it was made, UTC.</param>
/// <param name="Pupil">Who.</param>
/// <param name="Entries">What stands in the record, the oldest first.</param>
public sealed record ArchivedPupil(int Form, DateTime Made, ArchivedFacts Pupil, IReadOnlyList<ArchivedEntry> Entries)
{
    /// <summary>The form that is written and read today.</summary>
    public const int Today = 2;

    /// <summary>What is remembered, and when it is due.</summary>
    public IReadOnlyList<ArchivedCard> Cards { get; init; } = [];

    /// <summary>Fingerings that are pinned.</summary>
    public IReadOnlyList<ArchivedPin> Pins { get; init; } = [];

    /// <summary>First notes in an order of the pupil's own.</summary>
    public IReadOnlyList<ArchivedFirstNotes> FirstNotes { get; init; } = [];

    /// <summary>The log of settings that were changed for the pupil.</summary>
    public IReadOnlyList<ArchivedChange> Changes { get; init; } = [];

    /// <summary>Pieces that are settled for the pupil; the scores lie beside this file.</summary>
    public IReadOnlyList<ArchivedPiece> Pieces { get; init; } = [];

    private static readonly JsonSerializerOptions Options = new(Stored.FromElsewhere()) { WriteIndented = true };

    /// <summary>The text of the file.</summary>
    public byte[] Write() => JsonSerializer.SerializeToUtf8Bytes(this, Options);

    /// <summary>Reads the text of a file.</summary>
    /// <exception cref="InvalidDataException">It is none of this form; the message says why.</exception>
    public static ArchivedPupil Read(byte[] text)
    {
        try
        {
            var read = JsonSerializer.Deserialize<ArchivedPupil>(text, Options) ?? throw new InvalidDataException("pupil.json is empty.");
            return read.Form switch
            {
                1 or Today => read,
                > Today => throw new InvalidDataException("The file was made by a newer Bocca: update this one first."),
                _ => throw new InvalidDataException($"The file has the form {read.Form}, which is none."),
            };
        }
        catch (Exception problem) when (problem is JsonException or NotSupportedException)
        {
            throw new InvalidDataException($"pupil.json cannot be read: {problem.Message}", problem);
        }
    }
}

/// <summary>What is known of a pupil; reasons of health only where the guardian's consent shows them.</summary>
public sealed record ArchivedFacts(string Name, string Instrument, string Reading, LearningStage Stage, DateOnly Started)
{
    public ApproachPreset? Preset { get; init; }

    /// <summary>Points of the approach settled for this pupil, as <c>mp.share=a</c>.</summary>
    public string Points { get; init; } = "";

    /// <summary>Settings of this pupil's own, a line each.</summary>
    public string Own { get; init; } = "";

    public int? BornIn { get; init; }

    /// <summary>Breath drills are to be easy, for a reason that is not told.</summary>
    public bool EasyBreaths { get; init; }

    public bool DoctorAgrees { get; init; }

    /// <summary>Reasons, and the consent under which they are kept.</summary>
    public ArchivedHealth? Health { get; init; }

    public bool HasStand { get; init; }

    public double? ArmCm { get; init; }

    public int? HighestValve { get; init; }

    public int? FurthestPosition { get; init; }

    public string ClassName { get; init; } = "";

    public bool Invented { get; init; }

    public string Remark { get; init; } = "";
}

/// <summary>Reasons of health that a guardian consented to be kept and shown.</summary>
public sealed record ArchivedHealth(
    IReadOnlyList<BreathHealth> Reasons,
    IReadOnlyList<MouthNote> Mouth,
    string ConsentBy,
    DateOnly ConsentOn,
    DateOnly ConsentUntil,
    string ConsentFor
);

/// <summary>One thing of the record, by the names that its columns have.</summary>
public sealed record ArchivedEntry(long Id, string Kind, DateTime At, string Subject, string Summary)
{
    public string? Drill { get; init; }

    public string? Instrument { get; init; }

    public SoundStage? PlayedOn { get; init; }

    public EntrySource? Source { get; init; }

    public double? Tempo { get; init; }

    /// <summary>What came of it in short: a code and numbers by name; null for nothing.</summary>
    public JsonObject? Result { get; init; }

    /// <summary>What stood in the place of a result in files of before 2 December 2026.</summary>
    public double? Level { get; init; }

    public int? Came { get; init; }

    public int? Asked { get; init; }

    public DateTime? DoneAt { get; init; }

    public DateTime? DueAt { get; init; }

    /// <summary>The approach it was made under, as text.</summary>
    public string Approach { get; init; } = "";

    public Outcome? Outcome { get; init; }

    public double? LevelDb { get; init; }

    public double? SoundedSeconds { get; init; }

    public double? ElapsedSeconds { get; init; }

    public double? PlayedSeconds { get; init; }

    public double? HighSeconds { get; init; }

    /// <summary>The form of <see cref="Body"/>.</summary>
    public int? BodyForm { get; init; }

    /// <summary>What its kind alone has: verdict, measures, what was heard.</summary>
    public JsonNode? Body { get; init; }

    /// <summary>What a take was asked to be; null where no request was made.</summary>
    public ArchivedRequest? Request { get; init; }

    /// <summary>Whether the request was made when the take was heard.</summary>
    public bool Rebuilt { get; init; }
}

/// <summary>What a take was asked to be.</summary>
/// <param name="Kind">Whose form it has.</param>
/// <param name="Form">Which form of it.</param>
/// <param name="Body">What is asked.</param>
public sealed record ArchivedRequest(string Kind, int Form, JsonNode Body);

/// <summary>Something remembered.</summary>
public sealed record ArchivedCard(
    string Of,
    string Item,
    double StabilityDays,
    double Difficulty,
    DateTime SeenAt,
    DateTime DueAt,
    int Times
);

/// <summary>A fingering pinned for a sounding note.</summary>
public sealed record ArchivedPin(string Instrument, int Midi, string Setting, DateTime At);

/// <summary>First notes in an order of their own, sounding.</summary>
public sealed record ArchivedFirstNotes(string Instrument, string Notes);

/// <summary>A setting that was changed.</summary>
public sealed record ArchivedChange(string Path, string? Before, string? After, DateTime At);

/// <summary>A piece as the pupil plays it.</summary>
/// <param name="Title">Its title.</param>
/// <param name="File">The score's file in the archive.</param>
/// <param name="Instrument">The instrument it is settled for.</param>
/// <param name="Line">Part, staff and voice, as <c>0/1/1</c>.</param>
public sealed record ArchivedPiece(string Title, string File, string Instrument, string Line)
{
    public bool FromConcert { get; init; }

    public int Octaves { get; init; }

    public double? Tempo { get; init; }

    public string Choices { get; init; } = "";

    /// <summary>What was typed, where no file came.</summary>
    public string Text { get; init; } = "";
}
