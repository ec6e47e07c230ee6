using System.Text.RegularExpressions;

namespace Bocca.Core.Judging;

/// <summary>A rung of a teacher's own ladder: one that ships, in other words or another place, or a new one.</summary>
/// <param name="Id">Its name within the symptom; kept when it is reworded, so that what it brought still counts.</param>
/// <param name="Cue">The words for the pupil.</param>
/// <param name="Pull">Which way it pulls.</param>
/// <param name="Drill">The drill that mends it; null for the one that ships with it, or none.</param>
public sealed record OwnRung(string Id, string Cue, Pull Pull, string? Drill = null);

/// <summary>What a teacher's own ladders may be.</summary>
public static partial class OwnLadder
{
    /// <summary>The most rungs of a ladder (ours, editable).</summary>
    public const int MostRungs = 12;

    /// <summary>The longest cue, letters (ours): twelve words fit.</summary>
    public const int MostLetters = 120;

    /// <summary>The rungs of a symptom as they may be changed.</summary>
    public static IReadOnlyList<OwnRung> Of(Symptom symptom) =>
        [.. symptom.Fixes.Select(fix => new OwnRung(fix.Id, fix.Cue, fix.Pull, fix.Drill))];

    /// <summary>A ladder that can be said.</summary>
    /// <param name="symptom">Against what.</param>
    /// <param name="ladder">As it was typed; a rung without words is taken out.</param>
    /// <exception cref="ArgumentException">A rung has two actions or too many words, two are the same, or none is left.</exception>
    public static IReadOnlyList<OwnRung> Checked(Symptom symptom, IEnumerable<OwnRung> ladder)
    {
        if (symptom.IsHealth)
            throw new ArgumentException("What is said where somebody may be hurt stays as it is.");
        var rungs = ladder.Select(rung => rung with { Cue = rung.Cue.Trim() }).Where(rung => rung.Cue != "").ToList();
        if (rungs.Count == 0)
            throw new ArgumentException($"Against '{symptom.Name}' something has to be left to say.");
        if (rungs.Count > MostRungs)
            throw new ArgumentException($"{MostRungs} cues against one symptom are the most.");
        // What ships may say the same under two options of an approach.
        var own = rungs.Where(rung => symptom.Fixes.All(fix => fix.Id != rung.Id));
        if (rungs.DistinctBy(rung => rung.Id).Count() < rungs.Count || own.Any(rung => rungs.Count(other => other.Cue == rung.Cue) > 1))
            throw new ArgumentException("Two cues are the same: one of them is enough.");
        foreach (var rung in rungs)
            Check(rung);
        return rungs;
    }

    private static void Check(OwnRung rung)
    {
        if (rung.Cue.Split(' ', StringSplitOptions.RemoveEmptyEntries).Length is var words && words > Fix.MostWords)
            throw new ArgumentException($"'{rung.Cue}' has {words} words; {Fix.MostWords} are the most that is heard while playing.");
        if (rung.Cue.Length > MostLetters || rung.Cue.Any(char.IsControl))
            throw new ArgumentException("A cue is a short line of plain letters.");
        if (SecondSentence().IsMatch(rung.Cue))
            throw new ArgumentException($"'{rung.Cue}' says two things. One action a cue: make two of them.");
        if (!Id().IsMatch(rung.Id))
            throw new ArgumentException($"'{rung.Id}' is no name of a cue.");
        if (!Enum.IsDefined(rung.Pull))
            throw new ArgumentException("A cue firms, eases, or neither.");
    }

    [GeneratedRegex(@"[.!?;]\s+\S")]
    private static partial Regex SecondSentence();

    [GeneratedRegex("^[a-z0-9-]{1,24}$")]
    private static partial Regex Id();
}
