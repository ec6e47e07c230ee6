using System.ComponentModel.DataAnnotations;
using System.ComponentModel.DataAnnotations.Schema;
using Bocca.Core.Judging;
using Bocca.Core.Teaching;
using Bocca.Web.Record.Requests;

namespace Bocca.Web.Record;

/// <summary>Where what was heard or seen came from.</summary>
public enum EntrySource
{
    Microphone,
    File,

    /// <summary>Nobody: a demonstration. It stands in records of earlier versions alone, hidden.</summary>
    PracticePlayer,
    Camera,
    Photo,
    Drawing,
}

/// <summary>
/// One thing of a pupil's record: a take, a placement, a tick, an accepted step. What all kinds have stands in columns, so that
/// lists, counts and trends read nothing else; what a kind alone has is its <see cref="EntryPayload"/>.
/// </summary>
public sealed class Entry
{
    public const int LongestSummary = 800;

    public long Id { get; set; }

    public int PupilId { get; set; }

    /// <summary>What it is, as a stop has registered it.</summary>
    [MaxLength(20)]
    public required string Kind { get; set; }

    /// <summary>What was done: the drill, the slur, the check.</summary>
    [MaxLength(200)]
    public string? DrillId { get; set; }

    /// <summary>What it was about, in its own words: the notes played, the signal seen, the place of a step.</summary>
    [MaxLength(2000)]
    public string Subject { get; set; } = "";

    /// <summary>The instrument then; null where it is not known or not the matter.</summary>
    [MaxLength(40)]
    public string? InstrumentId { get; set; }

    /// <summary>What it was played on.</summary>
    public SoundStage? Stage { get; set; }

    public EntrySource? Source { get; set; }

    /// <summary>Beats a minute.</summary>
    public double? Tempo { get; set; }

    /// <summary>What came of it in short, as it is stored; null for nothing.</summary>
    [MaxLength(EntryResult.LongestText)]
    [Column("Result")]
    public string? ResultText { get; set; }

    /// <summary>What came of it in short.</summary>
    /// <exception cref="InvalidDataException">It is too long, or what is stored is none.</exception>
    [NotMapped]
    public EntryResult Result
    {
        get => EntryResult.Parse(ResultText);
        set => ResultText = value.Written();
    }

    /// <summary>How many came, of how many: tries, notes, changes, answers.</summary>
    public int? Came { get; set; }

    public int? Asked { get; set; }

    public DateTime At { get; set; }

    /// <summary>False until somebody saves it; what is not saved goes an hour after its day has ended.</summary>
    public bool Kept { get; set; }

    public DateTime? DeletedAt { get; set; }

    /// <summary>When a step was done; null while it is open.</summary>
    public DateTime? DoneAt { get; set; }

    /// <summary>When it wants to be done again; null where it does not, or something newer stands in its place.</summary>
    public DateTime? DueAt { get; set; }

    /// <summary>Made by the page, so that the same thing sent twice is one entry.</summary>
    public Guid? Key { get; set; }

    public int? ApproachId { get; set; }

    /// <summary>The approach it was made under.</summary>
    public ApproachText? Approach { get; set; }

    public Outcome? Outcome { get; set; }

    /// <summary>What came of it, in a sentence.</summary>
    [MaxLength(LongestSummary)]
    public string Summary { get; set; } = "";

    /// <summary>Mean level of what sounded, decibels below full scale.</summary>
    public double? LevelDb { get; set; }

    /// <summary>Seconds of it that sounded.</summary>
    public double? SoundedSeconds { get; set; }

    /// <summary>Seconds that it lasted, rests included.</summary>
    public double? ElapsedSeconds { get; set; }

    /// <summary>
    /// Seconds of it that count as playing, with rests shorter than the sound before them; null where no lips were at work, as in a file.
    /// </summary>
    public double? PlayedSeconds { get; set; }

    /// <summary>Seconds of them above the ceiling of the pupil's stage.</summary>
    public double? HighSeconds { get; set; }

    public EntryPayload? Payload { get; set; }

    public int? RequestId { get; set; }

    /// <summary>What the take was asked to be; null for what no request was made for.</summary>
    public TakeRequest? Request { get; set; }

    /// <summary>Whether the request was made when the take was heard, for none came with its sound.</summary>
    public bool Rebuilt { get; set; }

    public List<EntryFigure> Figures { get; } = [];

    /// <summary>A sentence that fits its column.</summary>
    public static string Short(string sentence, int most = LongestSummary) => sentence.Length <= most ? sentence : sentence[..most];
}

/// <summary>What a kind of entry alone has, as text of its own form; read when the entry is shown, and never for a list.</summary>
public sealed class EntryPayload
{
    public long EntryId { get; set; }

    /// <summary>Which form the body has: an older one is brought up when it is read.</summary>
    public int Version { get; set; }

    public required string Body { get; set; }
}

/// <summary>A named figure of an entry, for trends. It stands only while the entry is kept and can be made anew from it.</summary>
public sealed class EntryFigure
{
    public long EntryId { get; set; }

    public int PupilId { get; set; }

    [MaxLength(40)]
    public required string Name { get; set; }

    /// <summary>Of which note, change or the like; empty for the whole entry.</summary>
    [MaxLength(60)]
    public required string Item { get; set; }

    [MaxLength(40)]
    public string? InstrumentId { get; set; }

    public SoundStage? Stage { get; set; }

    public DateTime At { get; set; }

    public double Value { get; set; }

    /// <summary>Standard deviation of the repeats.</summary>
    public double Spread { get; set; }

    /// <summary>How many repeats.</summary>
    public int Count { get; set; }
}

/// <summary>An approach as text, once for all entries made under it.</summary>
public sealed class ApproachText
{
    public int Id { get; set; }

    [MaxLength(1500)]
    public required string Text { get; set; }
}
