using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Tone.Drills;

namespace Bocca.Core.Slurs;

/// <summary>A note of a slur.</summary>
/// <param name="Tube">The tube it is played on.</param>
/// <param name="Partial">Its partial.</param>
/// <param name="Sounding">What sounds.</param>
/// <param name="Written">What is read.</param>
/// <param name="Beats">How long it lasts.</param>
/// <param name="Vowel">Its vowel, by the contour of the slur; empty where none is printed.</param>
public sealed record SlurNote(Tube Tube, int Partial, Pitch Sounding, Pitch Written, double Beats, string Vowel);

/// <summary>A written slur: one breath, one start of the tongue, the lips do the rest.</summary>
/// <param name="Shape">The way it goes.</param>
/// <param name="Notes">Its notes.</param>
public sealed record Slur(SlurShape Shape, IReadOnlyList<SlurNote> Notes)
{
    /// <summary>Notes that are slurred from the first to the last on one tube, as a slur; null where they are not.</summary>
    public static Slur? Of(RowPlan row)
    {
        var meant = row.Meant;
        if (meant.Count < 2 || !meant.SkipLast(1).All(note => note.SlurredToNext) || meant.Any(note => note.Tube != meant[0].Tube))
            return null;
        var lengths = row.Notes.Select(note => note.Beats).ToList();
        return new Slur(
            SlurShape.Own([.. meant.Select(note => note.Partial - meant[0].Partial)], lengths),
            [.. meant.Select((note, i) => new SlurNote(note.Tube, note.Partial, note.Sounding, note.Written, lengths[i], ""))]
        );
    }

    /// <summary>The setting it is played on, or the first where it changes.</summary>
    public Setting Setting => Notes[0].Tube.Setting;

    /// <summary>Its name in records: shape, setting, first partial.</summary>
    public string Id => $"{Shape.Id}:{Setting}:{Notes[0].Partial}";

    /// <summary>Beats of the whole.</summary>
    public double Beats => Notes.Sum(note => note.Beats);

    /// <summary>Its written notes with slurs between them, such as <c>G4~C5~G4</c>.</summary>
    public string Text => string.Join('~', Notes.Select(note => note.Written));

    /// <summary>What sounds whatever its octave: two slurs along tubes with the same can be played together by a class.</summary>
    internal string Melody
    {
        get
        {
            var first = Notes[0].Sounding.Midi;
            var steps = Notes.Select(note => note.Sounding.Midi - first);
            return $"{first % 12} {string.Join(' ', steps)}";
        }
    }

    /// <summary>A setting for each of its notes.</summary>
    public string Settings => string.Join(' ', Notes.Select(note => note.Tube.Setting));

    /// <summary>The pairs of partials it changes between, the lower one first.</summary>
    public IEnumerable<(int Low, int High)> Pairs =>
        Notes
            .Zip(Notes.Skip(1))
            .Select(pair => (Math.Min(pair.First.Partial, pair.Second.Partial), Math.Max(pair.First.Partial, pair.Second.Partial)));

    /// <summary>Seconds at a tempo.</summary>
    public double Seconds(double tempo) => Beats * 60 / tempo;
}
