using System.ComponentModel.DataAnnotations;
using Bocca.Core.Music;

namespace Bocca.Web.Record;

/// <summary>The first notes in a teacher's own order: for one pupil, or for all of the room who play an instrument.</summary>
public sealed class FirstNoteOrder
{
    /// <summary>The most notes that are first ones.</summary>
    public const int MostNotes = 12;

    public int Id { get; set; }

    /// <summary>The pupil; null for the room.</summary>
    public int? PupilId { get; set; }

    [MaxLength(40)]
    public required string InstrumentId { get; set; }

    /// <summary>The notes, sounding, apart by spaces.</summary>
    [MaxLength(100)]
    public required string Notes { get; set; }

    /// <summary>The notes, sounding, in order.</summary>
    public IReadOnlyList<Pitch> Sounding => [.. Notes.Split(' ', StringSplitOptions.RemoveEmptyEntries).Select(Pitch.Parse)];
}
