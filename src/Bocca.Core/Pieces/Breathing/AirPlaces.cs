using Bocca.Core.Pieces.Lines;
using Bocca.Core.Pieces.Study;
using Bocca.Core.Score;
using Bocca.Core.Teaching;

namespace Bocca.Core.Pieces.Breathing;

/// <summary>Where a line can be breathed in, and what each place costs.</summary>
public sealed class AirPlaces
{
    /// <summary>Thousandths of a point.</summary>
    public const double Unit = 1000;

    /// <summary>A note that is shortened for a breath lasts at least so many times the breath.</summary>
    private const int LeastTimes = 2;

    /// <summary>How many notes of one length make a group whose last may be left out.</summary>
    private const int GroupNotes = 4;

    /// <summary>What is taken off a note, quarters: a sixteenth to a half, as it can be written.</summary>
    private static readonly Rational[] Cuts = [new(1, 4), new(1, 2), 1, 2];

    private readonly PieceLine _line;
    private readonly PieceBreather _breather;
    private readonly AirCosts _costs;
    private readonly HashSet<int> _phraseEnds;
    private readonly double _high;

    /// <param name="line">The line.</param>
    /// <param name="breather">Who breathes.</param>
    /// <param name="phrases">Its phrases.</param>
    public AirPlaces(PieceLine line, PieceBreather breather, IReadOnlyList<Phrase> phrases)
    {
        (_line, _breather, _costs) = (line, breather, breather.Costs);
        _phraseEnds = [.. phrases.Select(phrase => phrase.To)];
        var pitches = line.Notes.Select(note => note.Sounding.Midi).ToList();
        _high = pitches.Min() + (_costs.HighShare * (pitches.Max() - pitches.Min()));
    }

    private double Quickest => _breather.QuickestSeconds ?? _costs.QuickestSeconds;

    /// <summary>The ways to breathe after a note; empty where there is none.</summary>
    public IReadOnlyList<AirPlace> After(int i)
    {
        if (i + 1 >= _line.Notes.Count || _breather.Forbidden.Contains(i))
            return [];
        var note = _line.Notes[i];
        if (note.RestSeconds >= _costs.LeastSeconds)
            return [new AirPlace(i, PlaceKind.Rest, note.RestSeconds, 0)];
        var asked = _breather.Asked.Contains(i);
        var kind = KindOf(i);
        if (kind is null && !asked)
            return [];
        var places = Cut(i, kind, asked).ToList();
        if (Dropped(i) is { } drop)
            places.Add(drop);
        // What is asked for comes, however little time there is.
        if (asked && places.Count == 0)
            places.Add(new AirPlace(i, PlaceKind.Asked, _costs.LeastSeconds, Whole(_costs.AskedWhereNone)));
        return places;
    }

    /// <summary>Whether a note begins a high passage before which the teacher wants a breath.</summary>
    public bool WantsBreath(int i) =>
        _breather.Commas == BreathMarks.OneMoreBeforeHeight
        && i + 1 < _line.Notes.Count
        && (_phraseEnds.Contains(i) || IsComma(i))
        && HighFollows(i);

    private bool HighFollows(int i)
    {
        for (var next = i + 1; next < _line.Notes.Count && next <= i + 8; next++)
        {
            if (IsHigh(next))
                return true;
            if (_phraseEnds.Contains(next))
                return false;
        }

        return false;
    }

    private bool IsHigh(int i) => _line.Notes[i].Sounding.Midi >= _high;

    private bool IsComma(int i) => _line.Notes[i].Marks.HasFlag(NoteMarks.Breath);

    /// <summary>What makes it legal to breathe after a note; null for nothing.</summary>
    private PlaceKind? KindOf(int i)
    {
        var (note, next) = (_line.Notes[i], _line.Notes[i + 1]);
        if (next.Slurred || (note.InTuplet && next.InTuplet && !next.IsOnBeat))
            return null;
        if (IsComma(i))
            return PlaceKind.Comma;
        if (next.Sounding.Midi - note.Sounding.Midi >= _costs.LeapUpSemitones || _breather.MissedAfterBreath.Contains(i + 1))
            return null;
        return _phraseEnds.Contains(i) ? PlaceKind.Phrase : PlaceKind.Shorten;
    }

    private IEnumerable<AirPlace> Cut(int i, PlaceKind? kind, bool asked)
    {
        var note = _line.Notes[i];
        var points = kind is { } known ? PointsOf(i, known) : _costs.AskedWhereNone;
        var enough = false;
        foreach (var cut in Cuts)
        {
            var seconds = note.Held * (cut / note.Length).Value;
            if (enough || seconds < _costs.LeastSeconds || cut * LeastTimes > note.Length)
                continue;
            enough = seconds >= Quickest;
            yield return new AirPlace(
                i,
                kind is null || (asked && kind == PlaceKind.Shorten) ? PlaceKind.Asked : kind.Value,
                seconds,
                Whole(points + Hurried(seconds) + (_costs.PerShareLost * (cut / note.Length).Value))
            )
            {
                Shortens = (i, cut),
            };
        }
    }

    private double PointsOf(int i, PlaceKind kind)
    {
        var (note, next) = (_line.Notes[i], _line.Notes[i + 1]);
        var sectionEnds = _line.Bars[note.Bar].EndsSection && next.Bar > note.Bar;
        var points = kind switch
        {
            _ when sectionEnds => _costs.SectionEnd,
            PlaceKind.Comma => _breather.Commas switch
            {
                BreathMarks.MayBePassedOver => _costs.CommaSkipped,
                BreathMarks.RestsOnly => _costs.CommaNever,
                _ => _costs.CommaAlways,
            },
            PlaceKind.Phrase => _costs.PhraseEnd,
            _ when note.Length >= _line.Bars[note.Bar].Metre.Beat * new Rational((long)(2 * _costs.LongNoteBeats), 2) => _costs.LongNote,
            _ => _costs.AnyNote,
        };
        if (!next.IsOnBeat)
            points += _costs.OffTheBeat;
        // Where a phrase or a comma is, the bar line says nothing.
        if (kind == PlaceKind.Shorten && next.Bar == note.Bar)
            points += _costs.InsideTheBar;
        if (IsHigh(i) && IsHigh(i + 1))
            points += _costs.InHighPassage;
        return points;
    }

    /// <summary>The last of a group of short notes left out: the breath has its time.</summary>
    private AirPlace? Dropped(int i)
    {
        var notes = _line.Notes;
        var last = i + 1;
        if (i < GroupNotes - 2 || last + 1 >= notes.Count || notes[last].Held < _costs.LeastSeconds)
            return null;
        var length = notes[last].Length;
        if (
            length.Value > 0.5
            || notes[last].InTuplet
            || notes[last].Slurred
            || notes[last + 1].Slurred
            || notes[last].RestAfter > Rational.Zero
        )
            return null;
        for (var before = last - GroupNotes + 1; before < last; before++)
            if (notes[before].Length != length || notes[before].RestAfter > Rational.Zero)
                return null;
        return notes[last + 1].IsOnBeat
            ? new AirPlace(i, PlaceKind.Drop, notes[last].Held, Whole(_costs.Drop + Hurried(notes[last].Held)))
            {
                Shortens = (last, length),
            }
            : null;
    }

    private double Hurried(double seconds) => _costs.Hurried * Math.Max(0, 1 - (seconds / Quickest));

    private static long Whole(double points) => (long)Math.Round(points * Unit);
}
