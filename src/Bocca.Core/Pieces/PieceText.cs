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
/// and <c>)</c> slurs; <c>3{ }</c> tuplets; <c>,</c> a breath; <c>|</c> <c>||</c> <c>|:</c> <c>:|</c> <c>|1</c> bar lines, repeats and
/// endings; <c>=96</c> a tempo in beats; levels (<c>mf</c>), <c>&lt;</c> <c>&gt;</c> <c>=</c> hairpins and their end; <c>"words"</c>;
/// <c>[Bb7]</c> a chord symbol.
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

    private readonly List<ScoreMeasure> _measures = [];
    private List<ScoreNote> _notes = [];
    private List<ScoreMark> _marks = [];
    private ScoreMeasure _measure = new([]);
    private Metre _metre = Metre.Common;
    private Rational _value = 1;
    private Rational _at;
    private Tuplet? _tuplet;
    private bool _tupletBegins;
    private int _slurs;
    private int _slursOpen;
    private double? _tempo;
    private bool _metreSaid;
    private int _lastEnding;
    private bool _hairpin;

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
        return reader.Finish(text, title, reading);
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
                Bar(token, at);
                return;
            case "(":
                _slurs++;
                return;
            case ")":
                EndSlur(at);
                return;
            case "}":
                EndTuplet(at);
                return;
            case ",":
                Last(at, "a breath", note => note with { Marks = note.Marks | NoteMarks.Breath });
                return;
            case "r":
                Add(new ScoreNote(null, Length()), at);
                return;
            case "R":
                MeasureRest(at);
                return;
            case "<" or ">" or "=":
                Hairpin(token);
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
            _marks.Add(new ScoreMark(_at, MarkKind.Dynamic, token));
        else if (NoteToken().IsMatch(token))
            Note(token, at);
        else
            Sign(token, at);
    }

    /// <summary>A hairpin that begins, or one that ends; where one is open it ends first.</summary>
    private void Hairpin(string token)
    {
        if (_hairpin || token == "=")
            _marks.Add(new ScoreMark(_at, MarkKind.HairpinEnd));
        _hairpin = token != "=";
        if (_hairpin)
            _marks.Add(new ScoreMark(_at, token == "<" ? MarkKind.Crescendo : MarkKind.Diminuendo));
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

    private Rational Length() => _value * (_tuplet?.Share ?? Rational.One);

    private void Note(string token, int at)
    {
        var grace = token[0] == '/';
        var name = token.TrimStart('/').TrimEnd('.', '-', '>', '^', '!', '@', '~');
        if (!Pitch.TryParse(name, out var pitch) || pitch.Midi is < 12 or > 108)
            throw new EntrySlip(at, token.Length, $"{name} is no note that anybody plays: octaves go from 0 to 8.");
        var marks = token[(name.Length + (grace ? 1 : 0))..]
            .Where(Signs.ContainsKey)
            .Aggregate(NoteMarks.None, (all, sign) => all | Signs[sign]);
        Add(
            new ScoreNote(pitch, grace ? Rational.Zero : Length())
            {
                GraceType = grace ? "eighth" : null,
                IsSlashed = grace,
                Marks = marks,
                TiedToNext = token.EndsWith('~') && !grace,
                SlursBegun = grace ? 0 : _slurs,
            },
            at
        );
        if (grace)
            return;
        (_slursOpen, _slurs) = (_slursOpen + _slurs, 0);
    }

    private void Add(ScoreNote note, int at)
    {
        if (note.IsRest && _slurs > 0)
            throw new EntrySlip(at, 1, "A slur begins on a note, not on a rest.");
        var inTuplet = note.GraceType is null ? _tuplet : null;
        _notes.Add(note with { At = _at, Tuplet = inTuplet is { } tuplet ? tuplet with { Begins = _tupletBegins } : null });
        if (inTuplet is not null)
            _tupletBegins = false;
        _at += note.Length;
        if (_at > _metre.Bar)
            throw new EntrySlip(
                at,
                1,
                $"Bar {_measures.Count + 1} is full before this: it has {_metre.Bar} quarters in {_metre}. Is a | missing?"
            );
    }

    private void MeasureRest(int at)
    {
        if (_at > Rational.Zero)
            throw new EntrySlip(at, 1, "R is a rest of the whole bar; in a bar with notes write r.");
        _notes.Add(new ScoreNote(null, _metre.Bar) { IsMeasureRest = true });
        _at = _metre.Bar;
    }

    private void Last(int at, string what, Func<ScoreNote, ScoreNote> change)
    {
        var (notes, last) = (_notes, _notes.FindLastIndex(note => note.Sounds));
        if (last >= 0)
        {
            notes[last] = change(notes[last]);
            return;
        }

        var measure = _measures.FindLastIndex(each => each.Notes.Any(note => note.Sounds));
        if (measure < 0)
            throw new EntrySlip(at, 1, $"There is no note yet for {what}.");
        notes = [.. _measures[measure].Notes];
        last = notes.FindLastIndex(note => note.Sounds);
        notes[last] = change(notes[last]);
        _measures[measure] = _measures[measure] with { Notes = notes };
    }

    private void EndSlur(int at)
    {
        if (_slursOpen == 0)
            throw new EntrySlip(at, 1, "No slur is open here: write ( before its first note.");
        _slursOpen--;
        Last(at, "the end of a slur", note => note with { SlursEnded = note.SlursEnded + 1 });
    }

    private void BeginTuplet(string token, int at)
    {
        var count = token[0] - '0';
        if (_tuplet is not null)
            throw new EntrySlip(at, token.Length, "A tuplet is open already: end it with }.");
        if (!InTheTimeOf.TryGetValue(count, out var normal))
            throw new EntrySlip(at, token.Length, $"Tuplets are of {string.Join(", ", InTheTimeOf.Keys.Order())} notes.");
        (_tuplet, _tupletBegins) = (new Tuplet(count, normal), true);
    }

    private void EndTuplet(int at)
    {
        if (_tuplet is null || _tupletBegins)
            throw new EntrySlip(at, 1, _tuplet is null ? "No tuplet is open here." : "There is no note in this tuplet.");
        _notes[^1] = _notes[^1] with { Tuplet = _notes[^1].Tuplet!.Value with { Ends = true } };
        _tuplet = null;
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
        _marks.Add(new ScoreMark(_at, token[0] == '[' ? MarkKind.Chord : MarkKind.Words, text));
    }

    private void Key(string token, int at)
    {
        var name = token[..^1];
        var minor = name.EndsWith('m');
        var tonic = minor ? name[..^1] : name;
        var fifths = Pitch.TryParse($"{tonic}4", out var pitch) ? pitch.MajorKeyFifths - (minor ? 3 : 0) : 99;
        if (Math.Abs(fifths) > 7 || tonic.Length == 0 || char.IsLower(tonic[0]))
            throw new EntrySlip(at, token.Length, $"'{name}' is no key: write Bb: or Gm:, such as have up to seven sharps or flats.");
        AtBarStart(at, token.Length, "A key changes");
        _measure = _measure with { Fifths = fifths };
    }

    private void NewMetre(string token, int at)
    {
        AtBarStart(at, token.Length, "A metre changes");
        try
        {
            _metre = Metre.Parse(token);
        }
        catch (ArgumentException problem)
        {
            throw new EntrySlip(at, token.Length, problem.Message);
        }

        (_measure, _metreSaid) = (_measure with { Metre = _metre }, true);
    }

    private void AtBarStart(int at, int length, string what)
    {
        if (_at > Rational.Zero)
            throw new EntrySlip(at, length, $"{what} at the beginning of a bar.");
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
        var quarters = beats * _metre.Beat.Value;
        _tempo ??= quarters;
        _marks.Add(new ScoreMark(_at, MarkKind.Tempo, "", quarters));
    }

    private void Ending(string token, int at)
    {
        if (_at > Rational.Zero || _notes.Count > 0)
            Bar("|", at);
        _lastEnding = token[1] - '0';
        if (_lastEnding is < 1 or > 4)
            throw new EntrySlip(at, token.Length, "Endings are |1 to |4.");
        _measure = _measure with { EndingBegins = [_lastEnding] };
    }

    private void Bar(string token, int at)
    {
        if (_tuplet is not null)
            throw new EntrySlip(at, token.Length, "A tuplet is open at the bar line: end it with }.");
        if (_at == Rational.Zero && _notes.Count == 0)
        {
            // A repeat may begin where a bar line stands already, and lines may be doubled.
            if (token == "|:")
                _measure = _measure with { RepeatBegins = true };
            else if (token != "|" && _measures.Count > 0)
                _measures[^1] = Closed(_measures[^1], token);
            else if (_measures.Count > 0)
                throw new EntrySlip(at, token.Length, "There is no bar between these two bar lines.");
            return;
        }

        CloseMeasure(token, at);
        _measure = token == "|:" ? new ScoreMeasure([]) { RepeatBegins = true } : new ScoreMeasure([]);
    }

    private void CloseMeasure(string token, int at)
    {
        var isFirst = _measures.Count == 0;
        var completes = _measures.Count > 0 && _measures[0].IsPickup && _measures[0].Length + _at == _metre.Bar;
        var repeats = token is ":|" or "|:" || _measure.RepeatBegins;
        if (_at < _metre.Bar && !isFirst && !completes && !repeats)
            throw new EntrySlip(
                at,
                token.Length,
                $"Bar {_measures.Count + 1} has {_at} of {_metre.Bar} quarters: {_metre.Bar - _at} are missing before this bar line."
            );
        _measure = _measure with { Notes = _notes, Marks = _marks, IsPickup = _at < _metre.Bar };
        _measures.Add(Closed(_measure, token));
        (_notes, _marks, _at) = ([], [], Rational.Zero);
    }

    private ScoreMeasure Closed(ScoreMeasure measure, string token)
    {
        var ends = _lastEnding > 0 && token is ":|" or "||";
        var times = Math.Max(2, _lastEnding + 1);
        if (ends)
            _lastEnding = 0;
        return token switch
        {
            ":|" => measure with { RepeatTimes = times, EndingEnds = ends },
            "||" => measure with { EndsSection = true, EndingEnds = ends },
            _ => measure,
        };
    }

    private MusicScore Finish(string text, string title, Reading reading)
    {
        var end = text.TrimEnd().Length;
        if (_slurs + _slursOpen > 0)
            throw new EntrySlip(Math.Max(0, end - 1), 1, "A slur is open at the end: write ) after its last note.");
        if (_tuplet is not null)
            throw new EntrySlip(Math.Max(0, end - 1), 1, "A tuplet is open at the end: write }.");
        if (_hairpin)
            Hairpin("=");
        if (_notes.Count > 0)
        {
            // The last bar may still be growing: it is read as far as it goes.
            _measure = _measure with
            {
                Notes = _notes,
                Marks = _marks,
            };
            _measures.Add(_lastEnding > 0 ? _measure with { EndingEnds = true } : _measure);
        }
        else if (_marks.Count > 0 && _measures.Count > 0)
        {
            var length = _measures[^1].Length;
            _measures[^1] = _measures[^1] with { Marks = [.. _measures[^1].Marks, .. _marks.Select(mark => mark with { At = length })] };
        }

        if (!_measures.Exists(measure => measure.Notes.Any(note => note.Sounds)))
            throw new EntrySlip(0, Math.Max(1, end), "There is no note yet: write a value and a note, such as q F4.");
        _measures[0] = _measures[0] with { Metre = _measures[0].Metre ?? (_metreSaid ? Metre.Common : _metre) };
        var fifths = _measures[0].Fifths ?? 0;
        return new MusicScore(
            title,
            _tempo ?? MusicScore.UsualTempo * _measures[0].Metre!.Value.Beat.Value,
            [new ScorePart("", reading.Clef, reading.WrittenAboveSounding.Inverse, Numbered()) { Fifths = fifths }]
        )
        {
            HasTempo = _tempo is not null,
            ShowsTempo = false,
        };
    }

    private List<ScoreMeasure> Numbered()
    {
        var number = _measures[0].IsPickup ? 0 : 1;
        return _measures.ConvertAll(measure => measure with { Number = $"{number++}" });
    }
}
