using Bocca.Core.Tone.Listening;

namespace Bocca.Web.Record;

/// <summary>Columns of entries that hold a row of notes.</summary>
public static class Rows
{
    /// <summary>How loud and how long a row sounded, and how long it was.</summary>
    public static void FillIn(this RowTrace row, Entry entry)
    {
        var levels = row.Notes.Select(note => note.LevelDb).OfType<double>().ToList();
        entry.LevelDb = levels.Count == 0 ? null : levels.Average();
        entry.SoundedSeconds = row.Notes.Sum(note => (note.EndSeconds ?? 0) - (note.StartSeconds ?? 0));
        entry.ElapsedSeconds = row.Seconds;
    }
}
