namespace Bocca.Core.Practice.Lesson;

/// <summary>What a part of a lesson is for.</summary>
public enum LessonPart
{
    /// <summary>Breath and one long note.</summary>
    WarmUp,

    /// <summary>The open fault, or what was agreed on.</summary>
    Fault,

    /// <summary>Something new.</summary>
    New,

    /// <summary>A tune or a slur.</summary>
    Piece,

    /// <summary>One good thing, the week, stow and latch.</summary>
    Close,
}

/// <summary>A part of a lesson.</summary>
/// <param name="Part">What it is for.</param>
/// <param name="What">What is done.</param>
/// <param name="Why">Why that.</param>
/// <param name="Address">Where, as <c>stop:drill</c> or a stop alone; null for nowhere.</param>
/// <param name="Minutes">How long, whole minutes.</param>
public sealed record AgendaPart(LessonPart Part, string What, string Why, string? Address, int Minutes = 0);

/// <summary>The parts of a lesson with their minutes (common practice for the order; the shares are ours).</summary>
public static class Agenda
{
    /// <summary>The usual lesson, minutes (common practice).</summary>
    public const int UsualMinutes = 30;

    /// <summary>Of thirty minutes so many.</summary>
    private static double Share(LessonPart part) =>
        part switch
        {
            LessonPart.WarmUp => 5,
            LessonPart.Fault => 8,
            LessonPart.New => 7,
            LessonPart.Piece => 8,
            _ => 2,
        };

    /// <summary>
    /// Lays out a lesson: every part has whole minutes, at least one, and together they are the lesson's. What is missing leaves its
    /// minutes to the others; where there are fewer minutes than parts, the close stays and the last before it go.
    /// </summary>
    /// <param name="minutes">Minutes of the lesson.</param>
    /// <param name="parts">Its parts.</param>
    /// <exception cref="ArgumentException">A lesson cannot be that long.</exception>
    public static IReadOnlyList<AgendaPart> Of(int minutes, IReadOnlyList<AgendaPart> parts)
    {
        if (minutes is < Timetable.LessonSlot.FewestMinutes or > Timetable.LessonSlot.MostMinutes)
            throw new ArgumentException(
                $"A lesson lasts {Timetable.LessonSlot.FewestMinutes} to {Timetable.LessonSlot.MostMinutes} minutes."
            );
        var ordered = parts.OrderBy(part => part.Part).ToList();
        while (ordered.Count > minutes)
            ordered.RemoveAt(Math.Max(0, ordered.Count - 2));
        var all = ordered.Sum(part => Share(part.Part));
        // Each has one minute, the rest goes by share; what is left over after whole minutes goes to whom most is missing.
        var exact = ordered.ConvertAll(part => 1 + ((minutes - ordered.Count) * Share(part.Part) / all));
        var whole = exact.ConvertAll(each => (int)Math.Floor(each + 1e-9));
        foreach (
            var at in exact
                .Select((each, at) => (Missing: each - whole[at], at))
                .OrderByDescending(each => each.Missing)
                .ThenBy(each => each.at)
                .Take(minutes - whole.Sum())
                .Select(each => each.at)
                .ToList()
        )
            whole[at]++;
        return [.. ordered.Select((part, at) => part with { Minutes = whole[at] })];
    }
}
