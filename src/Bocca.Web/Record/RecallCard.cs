using System.ComponentModel.DataAnnotations;
using Bocca.Core.Practice;

namespace Bocca.Web.Record;

/// <summary>
/// How firmly a pupil remembers something, and when it is due again: the fingering of a written note, a value counted, a question heard.
/// </summary>
public sealed class RecallCard
{
    public int Id { get; set; }

    public int PupilId { get; set; }

    /// <summary>The name under which the notes of the instrument in hand are due.</summary>
    public const string Notes = "notes";

    /// <summary>The instrument it belongs to, or what a stop calls its own cards where it is none of an instrument's.</summary>
    [MaxLength(40)]
    public required string InstrumentId { get; set; }

    /// <summary>The written note, or what else is remembered.</summary>
    [MaxLength(20)]
    public required string Item { get; set; }

    public double StabilityDays { get; set; }

    public double Difficulty { get; set; }

    public DateTime SeenAt { get; set; }

    public DateTime DueAt { get; set; }

    public int Times { get; set; }

    public Recall Recall => new(StabilityDays, Difficulty);

    /// <summary>Takes an answer in; it is due again from the beginning of a day of the room.</summary>
    public void Answer(RecallGrade grade, DateTime at, RoomClock clock)
    {
        var (recall, due) = Recall.Answered(Times == 0 ? null : Recall, clock.DayOf(SeenAt), clock.DayOf(at), grade);
        (StabilityDays, Difficulty) = (recall.StabilityDays, recall.Difficulty);
        (SeenAt, DueAt, Times) = (at, clock.StartOf(due), Times + 1);
    }
}
