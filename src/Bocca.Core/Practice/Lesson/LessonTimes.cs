namespace Bocca.Core.Practice.Lesson;

/// <summary>When a part of a lesson was begun.</summary>
/// <param name="Part">Which of its agenda, from 0.</param>
/// <param name="At">When.</param>
public readonly record struct PartBegun(int Part, DateTime At);

/// <summary>Something that sounded in a lesson.</summary>
/// <param name="End">When it ended.</param>
/// <param name="Seconds">Seconds of it that sounded.</param>
public readonly record struct SoundedInLesson(DateTime End, double Seconds);

/// <summary>How long a part of a lesson took, and how much of it was played.</summary>
/// <param name="Part">Which, from 0.</param>
/// <param name="Minutes">Minutes of it.</param>
/// <param name="PlayedMinutes">Minutes of them that sounded.</param>
public sealed record PartTime(int Part, double Minutes, double PlayedMinutes)
{
    /// <summary>Minutes in which nothing sounded: talk, rest, setting up.</summary>
    public double TalkedMinutes => Math.Max(0, Minutes - PlayedMinutes);
}

/// <summary>The minutes of a lesson by activity. Moments are absolute, so that midnight and a change of clocks are nothing to it.</summary>
public static class LessonTimes
{
    /// <summary>A lesson that nobody ended is over after so many hours (ours): it may run past midnight.</summary>
    public const double LongestHours = 3;

    /// <summary>Adds up what each part took; what a part was come back to counts for it again.</summary>
    /// <param name="begun">When the parts were begun.</param>
    /// <param name="sounded">What sounded.</param>
    /// <param name="until">Until when.</param>
    public static IReadOnlyList<PartTime> Of(IEnumerable<PartBegun> begun, IEnumerable<SoundedInLesson> sounded, DateTime until)
    {
        var spans = begun.OrderBy(each => each.At).ToList();
        var plays = sounded.ToList();
        return
        [
            .. spans
                .Select(
                    (span, at) =>
                    {
                        var end = at + 1 < spans.Count ? spans[at + 1].At : until;
                        // The last part has its end; a take at the moment of a change belongs to the part that ends with it.
                        var played = plays.Where(play => play.End > span.At && play.End <= end).Sum(play => play.Seconds) / 60;
                        return new PartTime(span.Part, Math.Max(0, (end - span.At).TotalMinutes), played);
                    }
                )
                .GroupBy(time => time.Part)
                .Select(times => new PartTime(times.Key, times.Sum(time => time.Minutes), times.Sum(time => time.PlayedMinutes)))
                .OrderBy(time => time.Part),
        ];
    }
}
