namespace Bocca.Core.Health;

/// <summary>What a complaint does to the day.</summary>
public enum HealthEffect
{
    /// <summary>Something to heed; the day goes on.</summary>
    Notes,

    /// <summary>Half as long, with twice the rest.</summary>
    Shortens,

    /// <summary>No breath drill for the rest of the day.</summary>
    LocksBreath,

    /// <summary>No more breath and no more sound today; the fingers may go on silently.</summary>
    EndsPlaying,

    /// <summary>Nothing more today.</summary>
    EndsDay,
}

/// <summary>
/// Something that hurts or is not right, told with one tap (<c>complaints.json</c>). What it does is a limit: it cannot be lifted by a
/// setting, its words may be changed and not weakened. It teaches and never diagnoses.
/// </summary>
/// <param name="Id">Its name in records.</param>
/// <param name="Name">Its name for people.</param>
/// <param name="Group">What it is about: <c>lips</c>, <c>teeth</c>, <c>head</c> or <c>body</c>.</param>
/// <param name="Effect">What it does to the day.</param>
/// <param name="Say">What is said at once.</param>
/// <param name="Tell">Whom to tell or ask; empty for nobody.</param>
/// <param name="Basis">Where this comes from.</param>
/// <param name="RestSeconds">Seconds of rest before anything at all; 0 for none.</param>
public sealed record Complaint(
    string Id,
    string Name,
    string Group,
    HealthEffect Effect,
    string Say,
    string Tell,
    string Basis,
    double RestSeconds = 0
)
{
    private static readonly Lazy<IReadOnlyList<Complaint>> Shipped = new(() => EmbeddedData.Read<List<Complaint>>("complaints.json"));

    /// <summary>All complaints, by what they are about.</summary>
    public static IReadOnlyList<Complaint> All => Shipped.Value;

    /// <summary>All that is said of it.</summary>
    public string Words => $"{Say} {Tell}".Trim();

    /// <summary>The complaint with this id; null for none.</summary>
    public static Complaint? Find(string id) => All.FirstOrDefault(complaint => complaint.Id == id);
}

/// <summary>A complaint as it was told.</summary>
/// <param name="Complaint">What.</param>
/// <param name="At">When.</param>
public readonly record struct HealthTap(Complaint Complaint, DateTime At);
