namespace Bocca.Core.Health;

/// <summary>
/// A guardian's consent that something about a pupil's health is kept. Without one in force a complaint holds for its day and is not
/// kept, and of what is known only the care stays that it asks for, not the reason.
/// </summary>
/// <param name="By">Who gave it.</param>
/// <param name="On">When.</param>
/// <param name="Until">Its last day.</param>
/// <param name="For">What for.</param>
/// <param name="SaysWhy">Whether teachers may see the reasons, and not only what follows from them.</param>
public sealed record HealthConsent(string By, DateOnly On, DateOnly Until, string For, bool SaysWhy)
{
    /// <summary>The longest that one holds, in years: a school year is asked for anew (ours, editable).</summary>
    public const int MostYears = 2;

    /// <summary>Whether it holds on a day.</summary>
    public bool InForce(DateOnly day) => day >= On && day <= Until;
}
