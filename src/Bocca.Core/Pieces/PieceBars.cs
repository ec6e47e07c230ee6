using Bocca.Core.Music;
using Bocca.Core.Score;

namespace Bocca.Core.Pieces;

/// <summary>
/// The bars of a typed piece as they grow: what fits into a bar, where slurs, tuplets, endings and hairpins begin and end, and what is
/// missing. Where is told in letters of the text, for whoever typed it.
/// </summary>
internal sealed class PieceBars
{
    private readonly List<ScoreMeasure> _measures = [];
    private List<ScoreNote> _notes = [];
    private List<ScoreMark> _marks = [];
    private ScoreMeasure _measure = new([]);
    private Metre _metre = Metre.Common;
    private Rational _at;
    private Tuplet? _tuplet;
    private bool _tupletBegins;
    private int _slurs;
    private int _slursOpen;
    private double? _tempo;
    private bool _metreSaid;
    private int _lastEnding;
    private bool _hairpin;

    /// <summary>Puts a mark where the next note will be.</summary>
    public void Mark(MarkKind kind, string text) => _marks.Add(new ScoreMark(_at, kind, text));

    /// <summary>A hairpin that begins, or one that ends; where one is open it ends first.</summary>
    public void Hairpin(string token)
    {
        if (_hairpin || token == "=")
            _marks.Add(new ScoreMark(_at, MarkKind.HairpinEnd));
        _hairpin = token != "=";
        if (_hairpin)
            _marks.Add(new ScoreMark(_at, token == "<" ? MarkKind.Crescendo : MarkKind.Diminuendo));
    }

    /// <summary>A tempo from here on.</summary>
    /// <param name="beats">Beats of the metre a minute.</param>
    public void Tempo(double beats)
    {
        var quarters = beats * _metre.Beat.Value;
        _tempo ??= quarters;
        _marks.Add(new ScoreMark(_at, MarkKind.Tempo, "", quarters));
    }

    /// <summary>A key from this bar on: sharps, or flats as negative numbers.</summary>
    public void Key(int fifths, int at, int length)
    {
        AtBarStart(at, length, "A key changes");
        _measure = _measure with { Fifths = fifths };
    }

    /// <summary>A metre from this bar on.</summary>
    public void NewMetre(Metre metre, int at, int length)
    {
        AtBarStart(at, length, "A metre changes");
        (_metre, _measure, _metreSaid) = (metre, _measure with { Metre = metre }, true);
    }

    private void AtBarStart(int at, int length, string what)
    {
        BarIfFull(at);
        if (_at > Rational.Zero)
            throw new EntrySlip(at, length, $"{what} at the beginning of a bar.");
    }

    /// <summary>Adds a grace note, or a note or rest that lasts its value, in a tuplet the tuplet's share of it.</summary>
    public void Add(ScoreNote note, int at)
    {
        if (note.GraceType is null)
            BarIfFull(at);
        if (note.IsRest && _slurs > 0)
            throw new EntrySlip(at, 1, "A slur begins on a note, not on a rest.");
        if (note.GraceType is null)
        {
            note = note with
            {
                Length = note.Length * (_tuplet?.Share ?? Rational.One),
                Tuplet = _tuplet is { } tuplet ? tuplet with { Begins = _tupletBegins } : null,
                SlursBegun = _slurs,
            };
            (_slursOpen, _slurs, _tupletBegins) = (_slursOpen + _slurs, 0, false);
        }

        _notes.Add(note with { At = _at });
        _at += note.Length;
        if (_at > _metre.Bar)
            throw new EntrySlip(
                at,
                1,
                $"This goes over the end of bar {_measures.Count + 1}, which has {_metre.Bar} quarters in {_metre}: split it with a tie."
            );
    }

    /// <summary>
    /// Ends a bar that is full before its next note, where no bar line was typed. Grace notes and marks that stand at its very end belong
    /// to what comes.
    /// </summary>
    private void BarIfFull(int at)
    {
        if (_at < _metre.Bar || _tuplet is not null)
            return;
        var graces = Enumerable.Reverse(_notes).TakeWhile(note => note.GraceType is not null).Reverse().ToList();
        _notes = _notes[..^graces.Count];
        var ahead = _marks.FindAll(mark => mark.At == _at && mark.Kind != MarkKind.HairpinEnd);
        _marks = _marks.FindAll(mark => !ahead.Contains(mark));
        EndBar("|", at);
        _notes.AddRange(graces.Select(grace => grace with { At = Rational.Zero }));
        _marks.AddRange(ahead.Select(mark => mark with { At = Rational.Zero }));
    }

    /// <summary>Adds a rest of the whole bar.</summary>
    public void AddMeasureRest(int at)
    {
        BarIfFull(at);
        if (_at > Rational.Zero)
            throw new EntrySlip(at, 1, "R is a rest of the whole bar; in a bar with notes write r.");
        _notes.Add(new ScoreNote(null, _metre.Bar) { IsMeasureRest = true });
        _at = _metre.Bar;
    }

    /// <summary>Changes the last note, also where its bar is over.</summary>
    public void ChangeLast(int at, string what, Func<ScoreNote, ScoreNote> change)
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

    /// <summary>Begins a slur on the next note.</summary>
    public void BeginSlur() => _slurs++;

    /// <summary>Ends the slur begun last on the last note.</summary>
    public void EndSlur(int at)
    {
        if (_slursOpen == 0)
            throw new EntrySlip(at, 1, "No slur is open here: write ( before its first note.");
        _slursOpen--;
        ChangeLast(at, "the end of a slur", note => note with { SlursEnded = note.SlursEnded + 1 });
    }

    /// <summary>Begins a tuplet with the next note.</summary>
    public void BeginTuplet(Tuplet tuplet, int at)
    {
        if (_tuplet is not null)
            throw new EntrySlip(at, 2, "A tuplet is open already: end it with }.");
        (_tuplet, _tupletBegins) = (tuplet, true);
    }

    /// <summary>Ends the tuplet with the last note.</summary>
    public void EndTuplet(int at)
    {
        if (_tuplet is null || _tupletBegins)
            throw new EntrySlip(at, 1, _tuplet is null ? "No tuplet is open here." : "There is no note in this tuplet.");
        _notes[^1] = _notes[^1] with { Tuplet = _notes[^1].Tuplet!.Value with { Ends = true } };
        _tuplet = null;
    }

    /// <summary>Begins an ending, at a bar line where none was written.</summary>
    public void BeginEnding(int number, int at)
    {
        if (_at > Rational.Zero || _notes.Count > 0)
            EndBar("|", at);
        _lastEnding = number;
        _measure = _measure with { EndingBegins = [number] };
    }

    /// <summary>Ends a bar at a bar line, by its sign in the text.</summary>
    public void EndBar(string token, int at)
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

    /// <summary>The piece, when its text is at its end.</summary>
    /// <param name="end">Where the text ends, in letters.</param>
    /// <param name="title">Its title.</param>
    /// <param name="reading">How it is read.</param>
    /// <exception cref="EntrySlip">Something is open still, or there is no note.</exception>
    public MusicScore Finish(int end, string title, Reading reading)
    {
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
