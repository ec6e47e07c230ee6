using System.ComponentModel.DataAnnotations;
using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Practice;

namespace Bocca.Web.Data;

/// <summary>A pupil.</summary>
public sealed class Pupil
{
    public int Id { get; set; }

    [MaxLength(80)]
    public required string Name { get; set; }

    [MaxLength(40)]
    public required string InstrumentId { get; set; }

    [MaxLength(20)]
    public required string ReadingId { get; set; }

    public Approach Approach { get; set; }

    public LearningStage Stage { get; set; }

    public DateOnly Started { get; set; }

    [MaxLength(500)]
    public string Remark { get; set; } = "";

    /// <summary>Changes with every edit, so that a second tab notices.</summary>
    [ConcurrencyCheck]
    public Guid Version { get; set; } = Guid.NewGuid();

    public DateTime? DeletedAt { get; set; }

    public List<Take> Takes { get; } = [];

    public List<AcceptedStep> Steps { get; } = [];

    public List<SavedNote> Notes { get; } = [];

    public Instrument Instrument => Catalogue.Get(InstrumentId);

    public Reading Reading => Instrument.ReadingOf(ReadingId);
}
