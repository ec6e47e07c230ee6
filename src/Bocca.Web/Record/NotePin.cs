using System.ComponentModel.DataAnnotations;

namespace Bocca.Web.Record;

/// <summary>A fingering that the teacher has pinned for a pupil's note.</summary>
public sealed class NotePin
{
    public int Id { get; set; }

    public int PupilId { get; set; }

    [MaxLength(40)]
    public required string InstrumentId { get; set; }

    /// <summary>The MIDI number of the sounding note.</summary>
    public int Midi { get; set; }

    [MaxLength(20)]
    public required string Setting { get; set; }

    public DateTime At { get; set; }
}
