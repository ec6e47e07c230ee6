namespace Bocca.Core.Practice;

/// <summary>How long a pupil has played.</summary>
public static class PlayingTime
{
    private static readonly string[] Years = ["", "", "second", "third", "fourth", "fifth", "sixth"];

    /// <summary>In the words of a lesson: <c>week 2</c>, counted from 1, up to a year; then <c>second year</c>.</summary>
    /// <param name="started">The day of the first lesson.</param>
    /// <param name="today">Today; a start in the future counts as not begun.</param>
    public static string InWords(DateOnly started, DateOnly today)
    {
        var days = today.DayNumber - started.DayNumber;
        if (days < 0)
            return $"starts {started:d MMMM}";
        if (days < 365)
            return $"week {(days / 7) + 1}";
        var year = (days / 365) + 1;
        return year < Years.Length ? $"{Years[year]} year" : $"year {year}";
    }
}
