using System.Globalization;
using System.Text.RegularExpressions;
using Bocca.Core.Music;
using Bocca.Core.Pieces.Lines;
using Bocca.Core.Score;

namespace Bocca.Core.Pieces;

/// <summary>
/// A piece typed as a short text, such as <c>4/4 Bb: q F4 e G4 A4 | h Bb4 r |</c>. Tokens stand apart by spaces:
/// a metre; a key with a colon (<c>Bb:</c>, <c>Gm:</c>); a value that holds until the next (<c>w h q e s t</c>, with dots);
/// a note with its octave and signs behind it (<c>.</c> staccato, <c>-</c> tenuto, <c>&gt;</c> accent, <c>^</c> strong accent, <c>!</c>
/// staccatissimo, <c>@</c> fermata, <c>~</c> tie); <c>/C5</c> a grace note; <c>r</c> a rest, <c>R</c> one of a whole bar; <c>(</c>
/// and <c>)</c> slurs; <c>3{ }</c> tuplets; <c>,</c> a breath; <c>|</c> <c>||</c> <c>|:</c> <c>:|</c> <c>|1</c> bar lines (a plain one
/// may be left out where a bar is full), repeats and endings; <c>=96</c> a tempo in beats; levels (<c>mf</c>), <c>&lt;</c> <c>&gt;</c>
/// <c>=</c> hairpins and their end; <c>"words"</c>; <c>[Bb7]</c> a chord symbol.
/// </summary>
public sealed partial class PieceText
{
    /// <summary>The longest text.</summary>
    public const int MostLetters = 20_000;

    private static readonly Dictionary<char, Rational> Values = new()
    {
        ['w'] = 4,
        ['h'] = 2,
        ['q'] = 1,
        ['e'] = new(1, 2),
        ['s'] = new(1, 4),
        ['t'] = new(1, 8),
    };

    private static readonly Dictionary<char, NoteMarks> Signs = new()
    {
        ['.'] = NoteMarks.Staccato,
        ['-'] = NoteMarks.Tenuto,
        ['>'] = NoteMarks.Accent,
        ['^'] = NoteMarks.Marcato,
        ['!'] = NoteMarks.Staccatissimo,
        ['@'] = NoteMarks.Fermata,
    };

    private static readonly HashSet<string> Levels = ["ppp", "pp", "p", "mp", "mf", "f", "ff", "fff", "fp", "sf", "sfz"];

    /// <summary>In whose time so many notes are played (common practice).</summary>
    private static readonly Dictionary<int, int> InTheTimeOf = new()
    {
        [2] = 3,
        [3] = 2,
        [4] = 3,
        [5] = 4,
        [6] = 4,
        [7] = 4,
        [9] = 8,
    };

    private readonly PieceBars _bars = new();
    private Rational _value = 1;

    private PieceText() { }

    /// <summary>Reads a piece.</summary>
    /// <param name="text">The text.</param>
    /// <param name="title">Its title.</param>
    /// <param name="reading">How it is read: clef and transposition of the part.</param>
    /// <exception cref="EntrySlip">Something does not fit; where, and what would do.</exception>
    public static MusicScore Read(string text, string title, Reading reading)
    {
        if (text.Length > MostLetters)
            throw new EntrySlip(MostLetters, 1, $"A typed piece has at most {MostLetters} letters; import a longer one as MusicXML.");
        var reader = new PieceText();
        foreach (var token in Token().Matches(text).Cast<Match>())
            reader.Take(token.Value, token.Index);
        return reader._bars.Finish(text.TrimEnd().Length, title, reading);
    }

    [GeneratedRegex("\"[^\"]*\"?|\\[[^\\]\\s]*\\]?|\\|\\||\\|:|:\\||\\|\\d|\\||\\d\\{|[(){},]|[^\\s\"\\[|(){},:]+(?::(?!\\|))?|\\S")]
    private static partial Regex Token();

    [GeneratedRegex("^[whqest]\\.{0,3}$")]
    private static partial Regex ValueToken();

    [GeneratedRegex("^/?[A-G][#b]{0,2}\\d([.\\->^!@~]*)$")]
    private static partial Regex NoteToken();

    private void Take(string token, int at)
    {
        switch (token)
        {
            case "|" or "||" or "|:" or ":|":
                _bars.EndBar(token, at);
                return;
            case "(":
                _bars.BeginSlur();
                return;
            case ")":
                _bars.EndSlur(at);
                return;
            case "}":
                _bars.EndTuplet(at);
                return;
            case ",":
                _bars.ChangeLast(at, "a breath", note => note with { Marks = note.Marks | NoteMarks.Breath });
                return;
            case "r":
                _bars.Add(new ScoreNote(null, _value), at);
                return;
            case "R":
                _bars.AddMeasureRest(at);
                return;
            case "<" or ">" or "=":
                _bars.Hairpin(token);
                return;
        }

        if (token[0] is '"' or '[')
            Said(token, at);
        else if (token.Length == 2 && token[0] == '|')
            Ending(token, at);
        else if (token.EndsWith('{'))
            BeginTuplet(token, at);
        else if (ValueToken().IsMatch(token))
            _value = Values[token[0]] * new Rational((2 << (token.Length - 1)) - 1, 1 << (token.Length - 1));
        else if (Levels.Contains(token))
            _bars.Mark(MarkKind.Dynamic, token);
        else if (NoteToken().IsMatch(token))
            Note(token, at);
        else
            Sign(token, at);
    }

    private void Sign(string token, int at)
    {
        if (token.EndsWith(':'))
            Key(token, at);
        else if (token[0] == '=')
            Tempo(token, at);
        else if (token.Contains('/', StringComparison.Ordinal) && char.IsAsciiDigit(token[0]))
            NewMetre(token, at);
        else
            throw new EntrySlip(at, token.Length, Unknown(token));
    }

    private static string Unknown(string token) =>
        char.ToUpperInvariant(token[0]) is >= 'A' and <= 'G' && token.Length == 1 || token.Length == 2 && token[1] is '#' or 'b'
            ? $"'{token}' lacks its octave: write {char.ToUpperInvariant(token[0])}{token[1..]}4, or the octave meant."
        : token[0] is >= 'a' and <= 'g' && token.Any(char.IsAsciiDigit)
            ? $"Notes have capital letters: {char.ToUpperInvariant(token[0])}{token[1..]}."
        : $"'{token}' is no note, value, rest or sign: a note is F4 or Bb4, a value w h q e s t, a rest r.";

    private void Note(string token, int at)
    {
        var grace = token[0] == '/';
        var name = token.TrimStart('/').TrimEnd('.', '-', '>', '^', '!', '@', '~');
        if (!Pitch.TryParse(name, out var pitch) || pitch.Midi is < 12 or > 108)
            throw new EntrySlip(at, token.Length, $"{name} is no note that anybody plays: octaves go from 0 to 8.");
        var marks = token[(name.Length + (grace ? 1 : 0))..]
            .Where(Signs.ContainsKey)
            .Aggregate(NoteMarks.None, (all, sign) => all | Signs[sign]);
        _bars.Add(
            new ScoreNote(pitch, grace ? Rational.Zero : _value)
            {
                GraceType = grace ? "eighth" : null,
                IsSlashed = grace,
                Marks = marks,
                TiedToNext = token.EndsWith('~') && !grace,
            },
            at
        );
    }

    private void BeginTuplet(string token, int at)
    {
        var count = token[0] - '0';
        if (!InTheTimeOf.TryGetValue(count, out var normal))
            throw new EntrySlip(at, token.Length, $"Tuplets are of {string.Join(", ", InTheTimeOf.Keys.Order())} notes.");
        _bars.BeginTuplet(new Tuplet(count, normal), at);
    }

    private void Said(string token, int at)
    {
        var closed = token.Length > 2 && token[^1] == (token[0] == '"' ? '"' : ']');
        if (!closed)
            throw new EntrySlip(
                at,
                token.Length,
                token[0] == '"' ? "Words end with a second \"." : "A chord symbol stands in brackets: [Bb7]."
            );
        var text = token[1..^1];
        if (token[0] == '[' && text[0] is < 'A' or > 'G')
            throw new EntrySlip(at, token.Length, $"'{text}' is no chord symbol: it begins with its root, such as Bb7.");
        _bars.Mark(token[0] == '[' ? MarkKind.Chord : MarkKind.Words, text);
    }

    private void Key(string token, int at)
    {
        var name = token[..^1];
        var minor = name.EndsWith('m');
        var tonic = minor ? name[..^1] : name;
        var fifths = Pitch.TryParse($"{tonic}4", out var pitch) ? pitch.MajorKeyFifths - (minor ? 3 : 0) : 99;
        if (Math.Abs(fifths) > 7 || tonic.Length == 0 || char.IsLower(tonic[0]))
            throw new EntrySlip(at, token.Length, $"'{name}' is not a key; try Bb: or Gm:, up to seven sharps or flats.");
        _bars.Key(fifths, at, token.Length);
    }

    private void NewMetre(string token, int at)
    {
        try
        {
            _bars.NewMetre(Metre.Parse(token), at, token.Length);
        }
        catch (ArgumentException problem)
        {
            throw new EntrySlip(at, token.Length, problem.Message);
        }
    }

    private void Tempo(string token, int at)
    {
        if (
            !double.TryParse(token[1..], NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var beats)
            || beats is < PieceLine.SlowestTempo or > PieceLine.FastestTempo
        )
            throw new EntrySlip(
                at,
                token.Length,
                $"A tempo is = and {PieceLine.SlowestTempo} to {PieceLine.FastestTempo} beats a minute, such as =96."
            );
        _bars.Tempo(beats);
    }

    private void Ending(string token, int at)
    {
        var number = token[1] - '0';
        if (number is < 1 or > 4)
            throw new EntrySlip(at, token.Length, "Endings are |1 to |4.");
        _bars.BeginEnding(number, at);
    }
}
