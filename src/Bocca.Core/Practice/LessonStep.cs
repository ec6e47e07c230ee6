using Bocca.Core.Teaching;

namespace Bocca.Core.Practice;

/// <summary>A step of the way from opening the case to playing pieces, as data (<c>steps.json</c>).</summary>
/// <param name="Id">Its name in records.</param>
/// <param name="Name">Its name for people.</param>
/// <param name="Aim">What it is for.</param>
/// <param name="DoneWhen">Its gate (ours, editable).</param>
/// <param name="UsualTime">How long it usually takes (common practice).</param>
/// <param name="Families">The instruments that have it; null for all.</param>
public sealed record LessonStep(
    string Id,
    string Name,
    string Aim,
    string DoneWhen,
    string UsualTime,
    IReadOnlyList<string>? Families = null
)
{
    private static readonly Lazy<IReadOnlyList<LessonStep>> Shipped = new(() => EmbeddedData.Read<List<LessonStep>>("steps.json"));

    /// <summary>All steps, in the order in which no approach has moved them.</summary>
    public static IReadOnlyList<LessonStep> All => Shipped.Value;
}

/// <summary>A step as an approach places it.</summary>
/// <param name="Step">The step.</param>
/// <param name="Optional">Whether it may be passed over.</param>
public sealed record PlacedStep(LessonStep Step, bool Optional);

/// <summary>The order of steps under an approach.</summary>
public static class LessonPath
{
    /// <summary>The steps of an instrument's family in the order of an approach; those it leaves out are not there.</summary>
    public static IReadOnlyList<PlacedStep> Of(Approach approach, string family)
    {
        var steps = LessonStep
            .All.Where(step => step.Families is null || step.Families.Contains(family))
            .Select(step => new PlacedStep(step, false))
            .ToList();
        if (approach.Of(Points.LipsAlone) == LipsAlone.WhenWanted)
            Replace(steps, "lips", step => step with { Optional = true });
        if (approach.Of(Points.LipsAlone) == LipsAlone.LeftOut)
            steps.RemoveAll(step => step.Step.Id == "lips");
        if (approach.Of(Points.MouthpieceAlone) == MouthpieceAlone.LeftOut)
            steps.RemoveAll(step => step.Step.Id == "mouthpiece");
        if (approach.Of(Points.FirstOfLesson) == FirstOfLesson.Buzz)
            Move(steps, "breath", after: steps.Any(step => step.Step.Id == "mouthpiece") ? "mouthpiece" : "first-sound");
        if (approach.Of(Points.FirstStart) == FirstStart.TongueAtOnce)
            Move(steps, "tongue", after: "assemble");
        if (approach.Of(Points.SettingsLearnt) == SettingsLearnt.AllSevenSilently)
            Move(steps, "silent-settings", after: "assemble");
        if (approach.Of(Points.SettingsLearnt) == SettingsLearnt.OneWithEachNote)
            steps.RemoveAll(step => step.Step.Id == "silent-settings");
        if (approach.Of(Points.SettingsLearnt) == SettingsLearnt.DownwardWithSound)
            Move(steps, "silent-settings", after: "first-notes");
        return steps;
    }

    private static void Replace(List<PlacedStep> steps, string id, Func<PlacedStep, PlacedStep> change)
    {
        var at = steps.FindIndex(step => step.Step.Id == id);
        steps[at] = change(steps[at]);
    }

    private static void Move(List<PlacedStep> steps, string id, string after)
    {
        var moved = steps.Single(step => step.Step.Id == id);
        steps.Remove(moved);
        steps.Insert(steps.FindIndex(step => step.Step.Id == after) + 1, moved);
    }
}
