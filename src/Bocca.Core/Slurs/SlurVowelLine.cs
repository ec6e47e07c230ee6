using Bocca.Core.Instruments;

namespace Bocca.Core.Slurs;

/// <summary>
/// The vowels of a slur follow its contour (common practice): the lower of two notes has the lower vowel, the lowest of three the lowest,
/// and a change of valves on one partial keeps its vowel.
/// </summary>
internal static class SlurVowelLine
{
    private const string Low = "oh",
        Middle = "ah",
        High = "ee";

    /// <summary>The notes with their vowels.</summary>
    /// <param name="instrument">The instrument: a pair below its start notes is sung lower than one above.</param>
    /// <param name="notes">The notes.</param>
    public static IReadOnlyList<SlurNote> Of(Instrument instrument, IReadOnlyList<SlurNote> notes)
    {
        var partials = notes.Select(note => note.Partial).Distinct().Order().ToList();
        return [.. notes.Select(note => note with { Vowel = Vowel(partials.IndexOf(note.Partial)) })];

        string Vowel(int place) =>
            partials.Count switch
            {
                1 => Middle,
                2 when IsLow(instrument, notes) => place == 0 ? Low : Middle,
                2 => place == 0 ? Middle : High,
                _ => place == 0 ? Low
                : place == partials.Count - 1 ? High
                : Middle,
            };
    }

    /// <summary>Whether the lower of two notes lies below the lower of the notes from which drills start.</summary>
    private static bool IsLow(Instrument instrument, IReadOnlyList<SlurNote> notes)
    {
        var start = StartNotes.Of(instrument);
        return notes.Min(note => note.Sounding.Midi) < Math.Min(start.ConcertBb.Midi, start.ConcertF.Midi);
    }
}
