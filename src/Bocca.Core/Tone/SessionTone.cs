namespace Bocca.Core.Tone;

/// <summary>What the takes of one session add up to.</summary>
/// <param name="SoundedMinutes">Minutes of tone.</param>
/// <param name="ElapsedMinutes">Minutes from the first take's start to the last one's end.</param>
/// <param name="FadeDb">How much softer the last third of the notes was than the first; negative louder. Null for too few.</param>
public sealed record SessionTone(double SoundedMinutes, double ElapsedMinutes, double? FadeDb)
{
    private const int FewestNotes = 9;

    /// <summary>Adds up the takes of a session; null for none.</summary>
    /// <param name="takes">When each was heard and what it held, in any order.</param>
    public static SessionTone? Of(IEnumerable<(DateTime At, RowTrace Trace)> takes)
    {
        var ordered = takes.OrderBy(take => take.At).ToList();
        if (ordered.Count == 0)
            return null;
        var notes = ordered.SelectMany(take => take.Trace.Notes).Where(note => note.StartSeconds is not null).ToList();
        var levels = notes.Select(note => note.LevelDb).OfType<double>().ToList();
        var third = levels.Count / 3;
        return new SessionTone(
            notes.Sum(note => note.EndSeconds!.Value - note.StartSeconds!.Value) / 60,
            (ordered[^1].At - ordered[0].At).TotalMinutes + (ordered[0].Trace.Seconds / 60),
            levels.Count < FewestNotes ? null : levels.Take(third).Average() - levels.TakeLast(third).Average()
        );
    }
}
