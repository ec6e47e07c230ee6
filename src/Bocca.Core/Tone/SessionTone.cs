namespace Bocca.Core.Tone;

/// <summary>What the takes of one session add up to.</summary>
/// <param name="SoundedMinutes">Minutes of tone.</param>
/// <param name="ElapsedMinutes">Minutes from the first take's start to the last one's end.</param>
/// <param name="FadeDb">How much softer the last third of the notes was than the first; negative louder. Null for too few.</param>
public sealed record SessionTone(double SoundedMinutes, double ElapsedMinutes, double? FadeDb)
{
    private const int FewestNotes = 9;

    /// <summary>Adds up the takes of a session; null for none.</summary>
    /// <param name="takes">The takes, in any order.</param>
    public static SessionTone? Of(IEnumerable<SessionTake> takes)
    {
        var ordered = takes.OrderBy(take => take.At).ToList();
        if (ordered.Count == 0)
            return null;
        var levels = ordered
            .Where(take => take.LevelDb is not null)
            .SelectMany(take => Enumerable.Repeat(take.LevelDb!.Value, take.Notes))
            .ToList();
        var third = levels.Count / 3;
        return new SessionTone(
            ordered.Sum(take => take.SoundedSeconds) / 60,
            (ordered[^1].At - ordered[0].At).TotalMinutes + (ordered[0].Seconds / 60),
            levels.Count < FewestNotes ? null : levels.Take(third).Average() - levels.TakeLast(third).Average()
        );
    }
}

/// <summary>A take of a session.</summary>
/// <param name="At">When it was heard.</param>
/// <param name="Seconds">How long it lasted.</param>
/// <param name="SoundedSeconds">Seconds of it that sounded.</param>
/// <param name="Notes">How many notes sounded.</param>
/// <param name="LevelDb">Their mean level, decibels below full scale; null where nothing sounded.</param>
public readonly record struct SessionTake(DateTime At, double Seconds, double SoundedSeconds, int Notes, double? LevelDb);
