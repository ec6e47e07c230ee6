using Bocca.Core.Counting;
using Bocca.Core.Pieces.Lines;
using Bocca.Core.Score;

namespace Bocca.Core.Pieces;

/// <summary>A bar of a piece as a rhythm card, to be said and clapped, then played on one note and on its own.</summary>
public static class BarCard
{
    private static readonly Dictionary<string, char> Letters = new()
    {
        ["whole"] = 'w',
        ["half"] = 'h',
        ["quarter"] = 'q',
        ["eighth"] = 'e',
        ["16th"] = 's',
        ["32nd"] = 't',
    };

    /// <summary>The card of each bar; null where it has none: a pickup, no note, or tuplets other than triplets.</summary>
    public static IReadOnlyList<RhythmCard?> Of(PieceLine line)
    {
        var notes = line.Notes.ToLookup(note => note.Bar);
        return [.. line.Bars.Select(bar => Of(bar, [.. notes[bar.Index]]))];
    }

    private static RhythmCard? Of(LineBar bar, List<LineNote> notes)
    {
        var (begin, metre) = (bar.At, bar.Metre);
        var end = begin + metre.Bar;
        if (bar.Length != metre.Bar || notes.Count == 0)
            return null;
        try
        {
            return RhythmCard.Parse(string.Join(' ', Tokens(notes, begin, end)), metre);
        }
        catch (ArgumentException)
        {
            return null;
        }
    }

    private static List<string> Tokens(List<LineNote> notes, Rational begin, Rational end)
    {
        var tokens = new List<string>();
        var at = begin;
        for (var i = 0; i < notes.Count; i++)
        {
            // What still sounds from the bar before is silent on the card: nothing begins there.
            if (notes[i].At > at)
                tokens.AddRange(Written(notes[i].At - at, isRest: true));
            if (notes[i].InTuplet)
            {
                tokens.Add(Triplet(notes, i));
                (at, i) = (notes[i + 2].End, i + 2);
                continue;
            }

            at = notes[i].End < end ? notes[i].End : end;
            var values = Written(at - notes[i].At, isRest: false).ToList();
            tokens.Add(string.Join("~ ", values.Select((value, head) => head == 0 ? $"{value}:{notes[i].Written}" : value)));
        }

        if (end > at)
            tokens.AddRange(Written(end - at, isRest: true));
        return tokens;
    }

    /// <summary>A length as tokens, the longest first.</summary>
    private static IEnumerable<string> Written(Rational length, bool isRest) => NoteValue.Of(length).Select(value => Token(value, isRest));

    private static string Token(NoteValue value, bool isRest) =>
        Letters.TryGetValue(value.Type, out var letter)
            ? $"{(isRest ? "r" : "")}{letter}{new string('.', value.Dots)}"
            : throw new ArgumentException($"A card has no {value.Type}.");

    private static string Triplet(List<LineNote> notes, int from)
    {
        var three = notes.Skip(from).Take(3).ToList();
        if (three.Count < 3 || three.Exists(note => !note.InTuplet || note.Length != three[0].Length || note.Heads.Count > 1))
            throw new ArgumentException("A card has triplets of three like notes.");
        var token = Token(NoteValue.Of(three[0].Length * new Rational(3, 2))[0], isRest: false);
        return $"3({string.Join(' ', three.Select(note => $"{token}:{note.Written}"))})";
    }
}
