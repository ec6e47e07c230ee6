using System.Globalization;

namespace Bocca.Core.Tone.Drills;

/// <summary>Where the notes of a scale are counted from.</summary>
public enum ScaleStart
{
    /// <summary>The concert B flat from which classes start.</summary>
    ConcertBb,

    /// <summary>The concert F, as the fifth degree of the B flat scale.</summary>
    ConcertF,

    /// <summary>Whichever of the two has an octave of its own major scale in range.</summary>
    Tonic,
}

/// <summary>A note of a phrase, before it is known who plays it on what.</summary>
public abstract record PhraseNote
{
    private PhraseNote() { }

    /// <summary>The notes chosen for the drill.</summary>
    public sealed record Chosen : PhraseNote;

    /// <summary>The first sound that the approach asks for.</summary>
    public sealed record FirstSound : PhraseNote;

    /// <summary>An open partial, so many above the first one taught.</summary>
    /// <param name="Above">0 for the first one taught.</param>
    public sealed record OpenAbove(int Above) : PhraseNote;

    /// <summary>An open partial.</summary>
    /// <param name="Partial">From 1.</param>
    public sealed record Open(int Partial) : PhraseNote;

    /// <summary>One of the beginner's first notes.</summary>
    /// <param name="Place">From 0, in the order in which they are learnt.</param>
    public sealed record OfFirsts(int Place) : PhraseNote;

    /// <summary>One of the highest notes learnt so far.</summary>
    /// <param name="Place">From 0, the lowest of them first.</param>
    public sealed record OfLearnt(int Place) : PhraseNote;

    /// <summary>A note of the five-note scale that the first notes make.</summary>
    /// <param name="Degree">From 0 for do to 4 for so.</param>
    public sealed record OfFive(int Degree) : PhraseNote;

    /// <summary>A note so far from where a scale starts.</summary>
    /// <param name="From">The start.</param>
    /// <param name="Away">Degrees of its major scale, or semitones; below it negative.</param>
    /// <param name="InSemitones">Whether they are semitones.</param>
    public sealed record OfScale(ScaleStart From, int Away, bool InSemitones) : PhraseNote;
}

/// <summary>The notes of a phrase, in order.</summary>
/// <param name="Notes">At least one.</param>
public sealed record Phrase(IReadOnlyList<PhraseNote> Notes)
{
    /// <summary>Whether the notes are chosen for it.</summary>
    public bool TakesChosen => Notes.Any(note => note is PhraseNote.Chosen);

    /// <summary>
    /// Reads a phrase as the data have it, the notes apart by spaces: <c>asked</c> for the notes chosen, <c>first</c> for the first sound,
    /// <c>low</c>, <c>next</c> and <c>third</c> for open partials from the first one taught upwards, <c>open2</c> for a partial, <c>1</c>
    /// for the first of the first notes, <c>learnt1</c> for the lowest of the highest learnt, <c>so1</c> for do of the five-note scale,
    /// <c>bb</c>, <c>f</c> and <c>do</c> for starts of a scale, <c>bb+2</c> for degrees from there, <c>bb-1s</c> for semitones; <c>1*8</c>
    /// for the same note eight times.
    /// </summary>
    /// <exception cref="FormatException">It is no such phrase.</exception>
    public static Phrase Parse(string text)
    {
        var notes = new List<PhraseNote>();
        foreach (var word in text.Split(' '))
        {
            var (name, times) = word.Split('*') is [var once, var count] ? (once, Number(count)) : (word, 1);
            notes.AddRange(Enumerable.Repeat(NoteOf(name), times));
        }

        return notes.Count > 0 ? new Phrase(notes) : throw new FormatException("A phrase has a note at least.");
    }

    private static PhraseNote NoteOf(string name) =>
        name switch
        {
            "asked" => new PhraseNote.Chosen(),
            "first" => new PhraseNote.FirstSound(),
            "low" => new PhraseNote.OpenAbove(0),
            "next" => new PhraseNote.OpenAbove(1),
            "third" => new PhraseNote.OpenAbove(2),
            _ when After("open", name) is { } partial => new PhraseNote.Open(Number(partial)),
            _ when After("learnt", name) is { } place => new PhraseNote.OfLearnt(Number(place) - 1),
            _ when After("so", name) is { } degree => new PhraseNote.OfFive(Number(degree) - 1),
            _ when After("do", name) is { } away => Away(ScaleStart.Tonic, away),
            _ when After("bb", name) is { } away => Away(ScaleStart.ConcertBb, away),
            _ when After("f", name) is { } away => Away(ScaleStart.ConcertF, away),
            _ => new PhraseNote.OfFirsts(Number(name) - 1),
        };

    private static string? After(string start, string name) =>
        name.StartsWith(start, StringComparison.Ordinal) ? name[start.Length..] : null;

    private static PhraseNote.OfScale Away(ScaleStart from, string away) =>
        new(from, away.Length == 0 ? 0 : Number(away.TrimEnd('s')), away.EndsWith('s'));

    private static int Number(string digits) => int.Parse(digits, NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture);
}
