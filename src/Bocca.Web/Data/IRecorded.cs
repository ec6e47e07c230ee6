namespace Bocca.Web.Data;

/// <summary>An entry of a pupil's record. Deleting hides it, so that it can be brought back.</summary>
public interface IRecorded
{
    public int Id { get; }

    public int PupilId { get; }

    /// <summary>When it was taken from the record; null while it stands there.</summary>
    public DateTime? DeletedAt { get; set; }
}
