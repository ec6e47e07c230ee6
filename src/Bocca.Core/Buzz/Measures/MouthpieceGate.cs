using Bocca.Core.Judging;
using Bocca.Core.Teaching;

namespace Bocca.Core.Buzz.Measures;

/// <summary>A take as the mouthpiece's gate sees it.</summary>
/// <param name="Day">The day it was played.</param>
/// <param name="Tries">Its tries.</param>
/// <param name="Good">Those that spoke and that no finding names.</param>
/// <param name="Passed">Whether it passed as a whole.</param>
public sealed record GateTake(DateOnly Day, int Tries, int Good, bool Passed)
{
    /// <summary>A take for the gate.</summary>
    public static GateTake Of(TakeMeasures take, IEnumerable<IReadOnlyList<int>> named, DateOnly day, Outcome outcome)
    {
        var bad = named.SelectMany(tries => tries).ToHashSet();
        return new GateTake(
            day,
            take.Asked.Count(),
            take.Spoken.Count(attempt => !bad.Contains(attempt.Number)),
            outcome == Outcome.Passed
        );
    }
}

/// <summary>Whether a pupil is ready to leave the mouthpiece, by the approach.</summary>
/// <param name="Open">Ready.</param>
/// <param name="Reason">Why, with the takes that decide it.</param>
/// <param name="Next">What is still to be done; empty when open.</param>
/// <param name="Deciding">The takes that decide it.</param>
public sealed record MouthpieceGate(bool Open, string Reason, string Next, IReadOnlyList<GateTake> Deciding)
{
    /// <summary>Tries that must be good of how many, and on how many days (ours, editable).</summary>
    public const int GoodTries = 8,
        OfTries = 10,
        OnDays = 2;

    /// <summary>The most days that the mouthpiece alone is given (common practice).</summary>
    public const int MostDays = 7;

    /// <summary>Asks the gate.</summary>
    /// <param name="approach">The teacher's approach: <c>stage.mouthpiece</c> and <c>advance</c>.</param>
    /// <param name="takes">All takes on the mouthpiece, in order.</param>
    /// <param name="today">Today.</param>
    public static MouthpieceGate Of(Approach approach, IReadOnlyList<GateTake> takes, DateOnly today) =>
        (approach.Of(Points.MouthpieceAlone), approach.Of(Points.Advancing)) switch
        {
            (MouthpieceAlone.LeftOut, _) => new MouthpieceGate(true, "The mouthpiece alone is left out here.", "", []),
            (MouthpieceAlone.SameLesson, _) or (_, Advancing.OnceItWorks) => Once(takes),
            (MouthpieceAlone.Days, Advancing.AfterItsTime) => Days(takes, today),
            _ => Repeats(takes),
        };

    private static MouthpieceGate Once(IReadOnlyList<GateTake> takes) =>
        takes.LastOrDefault(take => take.Passed) is { } passed
            ? new MouthpieceGate(true, $"It worked on {passed.Day:d MMMM}, and once is enough here.", "", [passed])
            : new MouthpieceGate(false, "No take has passed yet.", "One more take like this.", []);

    private static MouthpieceGate Days(IReadOnlyList<GateTake> takes, DateOnly today)
    {
        if (takes.Count == 0)
            return new MouthpieceGate(false, "Nothing was played on the mouthpiece yet.", "A first take.", []);
        var days = today.DayNumber - takes[0].Day.DayNumber;
        if (days >= MostDays)
            return new MouthpieceGate(
                true,
                $"{days} days since the first take on {takes[0].Day:d MMMM}; {MostDays} are the most here.",
                "",
                [takes[0]]
            );
        return days >= 1 && takes[^1].Passed
            ? new MouthpieceGate(
                true,
                $"{days} {(days == 1 ? "day" : "days")} since the first take, and the last one passed.",
                "",
                [takes[0], takes[^1]]
            )
            : new MouthpieceGate(
                false,
                days < 1 ? "The mouthpiece is given at least a day here." : "The last take did not pass.",
                days < 1 ? "Rest now, and play it again tomorrow." : "One more take like this.",
                [takes[^1]]
            );
    }

    /// <summary>Eight of the last ten tries of a day, on two days.</summary>
    private static MouthpieceGate Repeats(IReadOnlyList<GateTake> takes)
    {
        var good = new List<(DateOnly Day, int Good, int Tries, List<GateTake> Takes)>();
        foreach (var day in takes.GroupBy(take => take.Day))
        {
            var (tries, right, used) = (0, 0, new List<GateTake>());
            foreach (var take in day.Reverse().TakeWhile(_ => tries < OfTries))
            {
                tries += take.Tries;
                right += take.Good;
                used.Add(take);
            }

            if (tries >= OfTries && right * OfTries >= GoodTries * tries)
                good.Add((day.Key, right, tries, used));
        }

        if (good.Count >= OnDays)
            return new MouthpieceGate(
                true,
                $"{string.Join(", ", good.TakeLast(OnDays).Select(day => $"{day.Good} of {day.Tries} good on {day.Day:d MMMM}"))}.",
                "",
                [.. good.TakeLast(OnDays).SelectMany(day => day.Takes)]
            );
        var today = takes.Count == 0 ? [] : takes.Where(take => take.Day == takes[^1].Day).ToList();
        var so = good.Count == 0 ? "none so far" : $"one so far, {good[0].Day:d MMMM}";
        return new MouthpieceGate(
            false,
            $"Needs {GoodTries} good tries out of {OfTries} on {OnDays} days; {so}. Today: {today.Sum(take => take.Good)} of "
                + $"{today.Sum(take => take.Tries)}.",
            good.Any(day => takes.Count > 0 && day.Day == takes[^1].Day)
                ? "Enough for today: the same again on another day."
                : "The same again, after a rest.",
            today
        );
    }
}
