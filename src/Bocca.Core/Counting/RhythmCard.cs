using System.Text.RegularExpressions;
using Bocca.Core.Music;
using Bocca.Core.Score;

namespace Bocca.Core.Counting;

/// <summary>
/// A rhythm card: one bar or more, exact. Written as tokens: <c>w h q e s t</c> for whole to 32nd, a dot after for each dot, <c>r</c> a
/// quarter's rest and before a value a rest of it, <c>~</c> ties to the next, <c>3(e e e)</c> three in the time of two, <c>|</c> between
/// bars where somebody likes to see them. With the notes it is played on, <c>q.:C4 e:D4</c>.
/// </summary>
public sealed partial class RhythmCard
{
    /// <summary>The most bars of a card, and the most tokens that are read (ours).</summary>
    public const int MostBars = 16,
        MostTokens = 512;

    private const string Values = "whqest";

    private const int MostDots = 3;

    private RhythmCard(Metre metre, IReadOnlyList<CardNote> notes, string text) => (Metre, Notes, Text) = (metre, notes, text);

    /// <summary>Its metre.</summary>
    public Metre Metre { get; }

    /// <summary>Its notes and rests, in order.</summary>
    public IReadOnlyList<CardNote> Notes { get; }

    /// <summary>The card as tokens, with a space between.</summary>
    public string Text { get; }

    /// <summary>Its length in quarters.</summary>
    public Rational Length => Notes[^1].At + Notes[^1].Length;

    /// <summary>How many bars it has.</summary>
    public int Bars => (int)(Length / Metre.Bar).Floor;

    /// <summary>When something begins, in quarters: what is said and clapped.</summary>
    public IEnumerable<Rational> Onsets => Notes.Where(note => note.Begins).Select(note => note.At);

    /// <summary>The notes that it is played on, one for each beginning; empty on a card of rhythm alone.</summary>
    public IReadOnlyList<Pitch> Written => [.. Notes.Select(note => note.Written).OfType<Pitch>()];

    /// <summary>How long what begins at a note sounds, its ties included, in quarters.</summary>
    /// <param name="at">Which of the notes, from 0.</param>
    public Rational Sounding(int at)
    {
        var length = Notes[at].Length;
        while (Notes[at].TiedToNext)
            length += Notes[++at].Length;
        return length;
    }

    /// <summary>The same rhythm on notes.</summary>
    /// <param name="written">One for each beginning, as it is read.</param>
    /// <exception cref="ArgumentException">There are more or fewer of them.</exception>
    public RhythmCard On(IReadOnlyList<Pitch> written)
    {
        if (Onsets.Count() != written.Count)
            throw new ArgumentException($"The card begins {Onsets.Count()} notes, not {written.Count}.", nameof(written));
        var (note, begun) = (0, 0);
        string Named(Match value) => Notes[note++].Begins ? $"{value}:{written[begun++]}" : value.Value;
        return Parse(ValueInText().Replace(Rhythm, Named), Metre);
    }

    /// <summary>The card's tokens without its notes.</summary>
    public string Rhythm => string.Join(' ', Text.Split(' ').Select(WithoutNote));

    /// <summary>Reads a card.</summary>
    /// <param name="text">Its tokens.</param>
    /// <param name="metre">Its metre.</param>
    /// <exception cref="ArgumentException">It is none; the message says what is wrong and where.</exception>
    public static RhythmCard Parse(string text, Metre metre)
    {
        var reader = new Reader(metre);
        var tokens = text.Replace("(", "( ", StringComparison.Ordinal)
            .Replace(")", " )", StringComparison.Ordinal)
            .Replace("~", " ~", StringComparison.Ordinal)
            .Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries);
        if (tokens.Length > MostTokens)
            throw new ArgumentException($"A card has at most {MostTokens} values.");
        for (var at = 0; at < tokens.Length; at++)
            reader.Take(tokens[at], at + 1);
        return new RhythmCard(metre, reader.Finished(), string.Join(' ', tokens).Replace(" ~", "~").Replace("( ", "(").Replace(" )", ")"));
    }

    /// <summary>The length of a value in quarters, its dots included; null for what is none.</summary>
    /// <param name="token">Such as <c>q.</c>.</param>
    public static Rational? LengthOf(string token)
    {
        var dots = token.Length - 1;
        if (token.Length == 0 || Values.IndexOf(token[0], StringComparison.Ordinal) is var value && value < 0)
            return null;
        if (dots > MostDots || token[1..].Any(sign => sign != '.'))
            return null;
        // A dot adds half of what stands before it (common practice).
        return new Rational(4, 1L << value) * new Rational((1L << (dots + 1)) - 1, 1L << dots);
    }

    private static string WithoutNote(string token) =>
        token.IndexOf(':', StringComparison.Ordinal) is var colon and >= 0
            ? token[..colon] + string.Concat(token[colon..].Where(sign => sign is '~' or ')'))
            : token;

    [GeneratedRegex(@"r?[whqest]\.*|r")]
    private static partial Regex ValueInText();

    private sealed class Reader(Metre metre)
    {
        private readonly List<CardNote> _notes = [];
        private Rational _at = Rational.Zero;
        private Rational _triplet = Rational.Zero;
        private bool _inTriplet;

        public void Take(string token, int number)
        {
            switch (token)
            {
                case "|":
                    if (!(_at / metre.Bar).IsWhole || _inTriplet)
                        throw Wrong(number, $"the bar line stands after {_at} quarters, not at the end of a bar of {metre.Bar}");
                    break;
                case "3(":
                    if (_inTriplet)
                        throw Wrong(number, "a triplet cannot stand in a triplet");
                    (_inTriplet, _triplet) = (true, _at);
                    break;
                case ")":
                    Close(number);
                    break;
                case "~":
                    if (_notes is not [.., { IsRest: false, TiedToNext: false } last])
                        throw Wrong(number, "only a note can be tied to the next");
                    _notes[^1] = last with { TiedToNext = true };
                    break;
                default:
                    Add(token, number);
                    break;
            }
        }

        public List<CardNote> Finished()
        {
            if (_inTriplet)
                throw new ArgumentException("The triplet has no end: close it with ')'.");
            if (_notes.Count == 0)
                throw new ArgumentException("The card is empty: write values such as 'q. e q q'.");
            if (_notes[^1].TiedToNext)
                throw new ArgumentException("The last note is tied to nothing.");
            if (_notes.Exists(note => note.Written is not null) && _notes.Exists(note => note.Begins && note.Written is null))
                throw new ArgumentException("Name the note of every value of the card, as in q:C4, or of none.");
            if (!(_at / metre.Bar).IsWhole)
                throw new ArgumentException(
                    $"The card does not fill its bar: {_at} of {(new Rational((_at / metre.Bar).Floor) + 1) * metre.Bar} quarters "
                        + $"in {metre}."
                );
            return (_at / metre.Bar).Floor > MostBars ? throw new ArgumentException($"A card has at most {MostBars} bars.") : _notes;
        }

        private void Add(string token, int number)
        {
            var (named, written) = Apart(token, number);
            var isRest = named[0] == 'r';
            var value = isRest
                ? named.Length == 1
                    ? "q"
                    : named[1..]
                : named;
            if (LengthOf(value) is not { } whole)
                throw Wrong(number, $"'{token}' is not a value I know; use q, h. or re");
            var tied = _notes is [.., { TiedToNext: true }];
            if (isRest && tied)
                throw Wrong(number, "a note cannot be tied to a rest");
            if (written is not null && (isRest || tied))
                throw Wrong(number, isRest ? "a rest has no note" : "what is tied goes on with its note: name it once, where it begins");
            var length = _inTriplet ? whole * new Rational(2, 3) : whole;
            _notes.Add(
                new CardNote(_at, length, isRest ? $"r{value}" : value)
                {
                    Written = written,
                    IsRest = isRest,
                    TiedFromBefore = tied,
                    InTriplet = _inTriplet,
                }
            );
            _at += length;
            // A note over a bar line is written as two with a tie.
            if (_at > metre.Bar * (new Rational((_notes[^1].At / metre.Bar).Floor) + 1))
                throw Wrong(number, "it reaches over the end of its bar: write two values with ~ between");
        }

        /// <summary>A value and the note it is played on.</summary>
        private static (string Value, Pitch? Written) Apart(string token, int number)
        {
            var colon = token.IndexOf(':', StringComparison.Ordinal);
            if (colon < 0)
                return (token, null);
            if (colon == 0 || !Pitch.TryParse(token[(colon + 1)..], out var written))
                throw Wrong(number, $"'{token}' is no value on a note, such as q:C4");
            return (token[..colon], written);
        }

        private void Close(int number)
        {
            if (!_inTriplet)
                throw Wrong(number, "there is no triplet to close");
            _inTriplet = false;
            // Three in the time of two: what stands between lasts as long as two of something that can be written.
            var of = (_at - _triplet) / 2;
            if (of == Rational.Zero || !Values.Any(value => LengthOf($"{value}") == of))
                throw Wrong(number, "a triplet is three of one value, or what fills their time");
        }

        private static ArgumentException Wrong(int number, string what) => new($"Value {number}: {what}.");
    }
}
