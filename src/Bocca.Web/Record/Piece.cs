using System.ComponentModel.DataAnnotations;
using System.Globalization;
using Bocca.Core.Pieces.Lines;

namespace Bocca.Web.Record;

/// <summary>A piece of the room's library.</summary>
public sealed class Piece
{
    public const int LongestTitle = 120,
        LongestTags = 200,
        HighestLevel = 10;

    public int Id { get; set; }

    [MaxLength(LongestTitle)]
    public required string Title { get; set; }

    /// <summary>Who made it, as the score says it.</summary>
    [MaxLength(LongestTitle)]
    public string Composer { get; set; } = "";

    /// <summary>How hard it is by the teacher's reckoning, 1 to 10; null where that is not said.</summary>
    public int? Level { get; set; }

    /// <summary>Words to find it by, with commas between.</summary>
    [MaxLength(LongestTags)]
    public string Tags { get; set; } = "";

    public DateTime AddedAt { get; set; }

    public DateTime? DeletedAt { get; set; }
}

/// <summary>A piece as it came, byte by byte: the first time, and whenever it came in otherwise.</summary>
public sealed class PieceVersion
{
    public int Id { get; set; }

    public int PieceId { get; set; }

    /// <summary>1, 2 ...; the highest is the one in use.</summary>
    public int Number { get; set; }

    /// <summary>The file.</summary>
    public required byte[] File { get; set; }

    /// <summary>What tells it from any other file: its SHA-256.</summary>
    [MaxLength(64)]
    public required string Hash { get; set; }

    /// <summary>The name of the file; empty for a typed piece.</summary>
    [MaxLength(120)]
    public string FileName { get; set; } = "";

    /// <summary>What was typed; empty where a file came.</summary>
    public string Text { get; set; } = "";

    public DateTime AddedAt { get; set; }

    public DateTime? DeletedAt { get; set; }
}

/// <summary>A piece as one pupil plays it: which line, how it is written, and what the teacher settled.</summary>
public sealed class PieceFor
{
    public int Id { get; set; }

    public int PupilId { get; set; }

    public int PieceId { get; set; }

    /// <summary>The instrument it is settled for: on another one it is looked at anew.</summary>
    [MaxLength(40)]
    public required string InstrumentId { get; set; }

    /// <summary>The line: part, staff and voice, as <c>0/1/1</c>.</summary>
    [MaxLength(20)]
    public string Line { get; set; } = "";

    public bool FromConcert { get; set; }

    public int Octaves { get; set; }

    /// <summary>Beats a minute; null for the piece's own.</summary>
    public double? Tempo { get; set; }

    /// <summary>What is settled, as the core writes it.</summary>
    [MaxLength(Core.Pieces.PieceChoices.MostLetters)]
    public string Choices { get; set; } = "";

    public DateTime At { get; set; }

    /// <summary>The line as it is stored.</summary>
    public static string Stored(LineChoice choice) =>
        string.Create(CultureInfo.InvariantCulture, $"{choice.Part}/{choice.Staff}/{choice.Voice}");
}
