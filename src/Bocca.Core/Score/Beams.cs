namespace Bocca.Core.Score;

/// <summary>Beams: eighths and shorter are joined within a beat (common practice).</summary>
internal static class Beams
{
    /// <summary>What stands on each beam of each note that has one, the first beam first: begin, continue, end or a hook.</summary>
    public static Dictionary<ScoreNote, IReadOnlyList<string>> Of(ScoreMeasure measure, Metre metre)
    {
        // In halves, as in cut time, what is shorter is joined by the quarter.
        var beat = metre.Beat > Rational.One && !metre.IsCompound ? Rational.One : metre.Beat;
        // A pickup is counted from its end.
        var shift = measure.IsPickup && measure.Length < metre.Bar ? metre.Bar - measure.Length : Rational.Zero;
        var all = new Dictionary<ScoreNote, IReadOnlyList<string>>(ReferenceEqualityComparer.Instance);
        foreach (var voice in measure.Notes.GroupBy(note => (note.Staff, note.Voice)))
        {
            var notes = voice.Where(note => !note.InChord && note.GraceType is null).ToList();
            var flags = notes.ConvertAll(FlagsOf);
            for (var from = 0; from < notes.Count; )
            {
                var to = from + 1;
                while (to < notes.Count && flags[from] > 0 && flags[to] > 0 && SameBeat(notes[from], notes[to], beat, shift))
                    to++;
                if (to - from > 1)
                    for (var i = from; i < to; i++)
                        all[notes[i]] = [.. Enumerable.Range(0, flags[i]).Select(level => Sign(flags, from, to, i, level))];
                from = to;
            }
        }

        return all;
    }

    private static bool SameBeat(ScoreNote one, ScoreNote other, Rational beat, Rational shift) =>
        ((one.At + shift) / beat).Floor == ((other.At + shift) / beat).Floor;

    private static int FlagsOf(ScoreNote note) =>
        note.Sounds && NoteValue.Of(note.Length / (note.Tuplet?.Share ?? Rational.One)) is [var head] ? head.Flags : 0;

    private static string Sign(List<int> flags, int from, int to, int at, int level)
    {
        var before = at > from && flags[at - 1] > level;
        var after = at + 1 < to && flags[at + 1] > level;
        return (before, after) switch
        {
            (true, true) => "continue",
            (true, false) => "end",
            (false, true) => "begin",
            _ => at > from ? "backward hook" : "forward hook",
        };
    }
}
