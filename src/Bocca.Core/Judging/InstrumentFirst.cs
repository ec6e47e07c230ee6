namespace Bocca.Core.Judging;

/// <summary>
/// The instrument is looked at before the child: where nothing sounds, or the same goes wrong on every note (common practice).
/// </summary>
public static class InstrumentFirst
{
    /// <summary>Where it is looked at.</summary>
    public static Place Place { get; } = new("notes");

    /// <summary>The name of the look as a step.</summary>
    public const string Look = "look";

    /// <summary>So many notes on so many settings have to go wrong in the same way (ours, editable).</summary>
    private const int FewestNotes = 3,
        FewestSettings = 2;

    private static readonly HashSet<string> NoSound = ["silence", "airOnly"];

    private static readonly HashSet<string> AnyFault = ["oneLow", "oneHigh", "wrongSetting", "wanders"];

    /// <summary>The look, where it comes first; null where the child is the matter.</summary>
    /// <param name="pupil">Who is judged.</param>
    /// <param name="findings">What the take showed.</param>
    /// <param name="asked">How many notes or tries were asked for.</param>
    /// <param name="settings">On how many valve combinations or positions.</param>
    public static NextStep? Of(JudgedPupil pupil, IReadOnlyList<Finding> findings, int asked, int settings = 1)
    {
        if (!pupil.LooksFirst || asked == 0)
            return null;
        var all = findings.FirstOrDefault(finding => finding.Tries.Count == asked);
        var silent = findings.Where(finding => NoSound.Contains(finding.Symptom.Id)).Sum(finding => finding.Tries.Count) == asked;
        var same = all is not null && AnyFault.Contains(all.Symptom.Id) && asked >= FewestNotes && settings >= FewestSettings;
        return silent ? OfSilence(pupil)
            : same ? At($"The same on every note ({all!.Symptom.Name}): before the lips, the instrument. One look a day is enough.")
            : null;
    }

    /// <summary>The look where nothing spoke; null where it was looked at today, or none is played.</summary>
    public static NextStep? OfSilence(JudgedPupil pupil) =>
        pupil.LooksFirst ? At("Nothing spoke: before the lips, the instrument. One look a day is enough.") : null;

    private static NextStep At(string reason) =>
        new(Place, Look, "Look at the instrument first: valves, slides, water, mouthpiece.", reason);
}
