using Bocca.Core.Score;

namespace Bocca.Core.Counting;

/// <summary>
/// A rhythm card: one bar or more, exact. Written as tokens: <c>w h q e s t</c> for whole to 32nd, a dot after for each dot, <c>r</c> a
/// quarter's rest and before a value a rest of it, <c>~</c> ties to the next, <c>3(e e e)</c> three in the time of two, <c>|</c> between
/// bars where somebody likes to see them.
/// </summary>
public sealed class RhythmCard
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

    /// <summary>How long what begins at a note sounds, its ties included, in quarters.</summary>
    /// <param name="at">Which of the notes, from 0.</param>
    public Rational Sounding(int at)
    {
        var length = Notes[at].Length;
        while (Notes[at].TiedToNext)
            length += Notes[++at].Length;
        return length;
    }

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
            if (!(_at / metre.Bar).IsWhole)
                throw new ArgumentException(
                    $"The card does not fill its bar: {_at} of {(new Rational((_at / metre.Bar).Floor) + 1) * metre.Bar} quarters "
                        + $"in {metre}."
                );
            return (_at / metre.Bar).Floor > MostBars ? throw new ArgumentException($"A card has at most {MostBars} bars.") : _notes;
        }

        private void Add(string token, int number)
        {
            var isRest = token[0] == 'r';
            var value = isRest
                ? token.Length == 1
                    ? "q"
                    : token[1..]
                : token;
            if (LengthOf(value) is not { } written)
                throw Wrong(number, $"'{token}' is no value such as q, h. or re");
            var tied = _notes is [.., { TiedToNext: true }];
            if (isRest && tied)
                throw Wrong(number, "a note cannot be tied to a rest");
            var length = _inTriplet ? written * new Rational(2, 3) : written;
            _notes.Add(
                new CardNote(_at, length, isRest ? $"r{value}" : value)
                {
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
