namespace Bocca.Core.Practice;

/// <summary>Something that beginners reach in a usual time (<c>milestones.json</c>; common practice).</summary>
/// <param name="Id">Its name in records.</param>
/// <param name="Name">Its name for people.</param>
/// <param name="From">The day on which the first usually reach it, counted from the first lesson.</param>
/// <param name="To">The day by which most have.</param>
/// <param name="Drills">The drills that show it, once one of them is passed, as <c>stop:drill</c>.</param>
public sealed record Milestone(string Id, string Name, int From, int To, IReadOnlyList<string> Drills)
{
    private static readonly Lazy<IReadOnlyList<Milestone>> Shipped = new(() => EmbeddedData.Read<List<Milestone>>("milestones.json"));

    /// <summary>All of them, in the order in which they come.</summary>
    public static IReadOnlyList<Milestone> All => Shipped.Value;

    /// <summary>Where a pupil stands.</summary>
    /// <param name="reached">On which day it was shown; null for not yet, or not on record.</param>
    /// <param name="day">Days since the first lesson.</param>
    public MilestoneStanding Standing(int? reached, int day)
    {
        var usual = From % 7 == 0 && To % 7 == 0 ? $"{From / 7} to {To / 7} weeks" : $"{From} to {To} days";
        return (reached, day) switch
        {
            ({ } on, _) => new(this, reached, false, $"{Upper(Name)}: shown on day {on}. Usual: {usual}.") { Home = $"{Upper(Name)}." },
            (null, _) when day <= To => new(this, null, false, $"{Upper(Name)}: usual in {usual}, and this is day {day}. There is time."),
            _ => new(
                this,
                null,
                true,
                $"{Upper(Name)}: not on record on day {day}; usual is {usual}. Hear it, and look for what stands in the way."
            ),
        };
    }

    private static string Upper(string name) => char.ToUpperInvariant(name[0]) + name[1..];
}

/// <summary>Where a pupil stands to a milestone.</summary>
/// <param name="Of">Which.</param>
/// <param name="Reached">The day on which it was shown; null for not yet.</param>
/// <param name="TeacherOnly">Whether it is a word to the teacher alone: outside the usual time the pupil is reassured, not told.</param>
/// <param name="Words">The same in words for the teacher, with the usual span.</param>
public sealed record MilestoneStanding(Milestone Of, int? Reached, bool TeacherOnly, string Words)
{
    /// <summary>What goes home: what was reached, beside nobody else's days; empty where it was not.</summary>
    public string Home { get; init; } = "";
}
