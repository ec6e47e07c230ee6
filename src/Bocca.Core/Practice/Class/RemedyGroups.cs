namespace Bocca.Core.Practice.Class;

/// <summary>What a teacher marks of a pupil in a round of a class.</summary>
public enum RoundMark
{
    /// <summary>It came.</summary>
    Came,

    /// <summary>Partly.</summary>
    Partly,

    /// <summary>Not yet.</summary>
    NotYet,

    /// <summary>The pupil was not there.</summary>
    Absent,
}

/// <summary>What is known of a pupil of a class.</summary>
/// <param name="Name">The name.</param>
/// <param name="Mark">The last mark of the round; null for none.</param>
/// <param name="Symptoms">Symptoms of late that have not gone, the newest first.</param>
public sealed record ClassNeed(string Name, RoundMark? Mark, IReadOnlyList<string> Symptoms);

/// <summary>Pupils who need the same.</summary>
/// <param name="Symptom">The symptom; empty for those of whom nothing more is known.</param>
/// <param name="Names">Who, by name.</param>
public sealed record RemedyGroup(string Symptom, IReadOnlyList<string> Names);

/// <summary>
/// Who of a class needs what, as groups for a remedy (for the teacher only; ours). Groups come by their symptom's name, and so do pupils:
/// nobody is ranked.
/// </summary>
public static class RemedyGroups
{
    /// <summary>
    /// Groups whoever has not got it yet. A pupil goes to the symptom that most of them share, so that there are few groups; whoever shares
    /// none is told apart.
    /// </summary>
    public static IReadOnlyList<RemedyGroup> Of(IEnumerable<ClassNeed> needs)
    {
        var left = needs.Where(need => need.Mark is RoundMark.Partly or RoundMark.NotYet).ToList();
        var groups = new List<RemedyGroup>();
        while (
            left.SelectMany(need => need.Symptoms.Distinct())
                .GroupBy(symptom => symptom)
                .OrderByDescending(same => same.Count())
                .ThenBy(same => same.Key, StringComparer.Ordinal)
                .FirstOrDefault()
                is { Key: var symptom }
        )
        {
            groups.Add(new RemedyGroup(symptom, Names(left.Where(need => need.Symptoms.Contains(symptom)))));
            left.RemoveAll(need => need.Symptoms.Contains(symptom));
        }

        groups.Sort((one, other) => string.CompareOrdinal(one.Symptom, other.Symptom));
        if (left.Count > 0)
            groups.Add(new RemedyGroup("", Names(left)));
        return groups;
    }

    private static List<string> Names(IEnumerable<ClassNeed> needs) =>
        [.. needs.Select(need => need.Name).Order(StringComparer.CurrentCulture)];
}
