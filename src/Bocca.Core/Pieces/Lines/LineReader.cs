using Bocca.Core.Music;
using Bocca.Core.Score;

namespace Bocca.Core.Pieces.Lines;

/// <summary>Reads one player's line out of a score.</summary>
internal sealed class LineReader(MusicScore score, LineChoice choice, Reading reading, bool fromConcert, int octaves)
{
    private readonly ScorePart _part = score.Parts[choice.Part];
    private readonly List<LineBar> _bars = [];
    private readonly List<LineNote> _notes = [];
    private readonly Interval _octaves = new(7 * octaves, 12 * octaves);
    private int _slurs;
    private bool _tied;
    private bool _grace;
    private string _level = "";

    public PieceLine Read(double? tempo)
    {
        ReadBars();
        var toSounding = _part.ToSounding;
        for (var i = 0; i < _bars.Count; i++)
        {
            toSounding = _part.Measures[i].ToSounding ?? toSounding;
            ReadBar(i, toSounding);
        }

        var beat = _bars.Count > 0 ? _bars[0].Metre.Beat.Value : 1;
        var clock = new TempoLine(score, choice.Part, _bars);
        // What the score says, brought to the tempo asked: changes within the piece go with it.
        var own = score.HasTempo ? clock.QuartersAt(Rational.Zero) / beat : PieceLine.UsualTempo;
        var asked = tempo ?? own;
        var scale = score.HasTempo ? asked / own : asked * beat / clock.QuartersAt(Rational.Zero);
        return new PieceLine(score.Title, choice.Name, reading, asked, _bars, Timed(clock, scale)) { Choice = choice };
    }

    private void ReadBars()
    {
        var at = Rational.Zero;
        var metre = Metre.Common;
        var fifths = _part.Fifths;
        foreach (var (measure, i) in _part.Measures.Select((measure, i) => (measure, i)))
        {
            metre = measure.Metre ?? metre;
            fifths = measure.Fifths ?? fifths;
            // The longest part says how long a measure is; one that is empty everywhere is full.
            var length = score.Parts.Where(part => i < part.Measures.Count).Max(part => part.Measures[i].Length);
            length = length > Rational.Zero ? length : metre.Bar;
            _bars.Add(
                new LineBar(i, measure.Number == "" ? $"{i + 1}" : measure.Number, at, length, metre)
                {
                    Fifths = fifths,
                    RepeatBegins = measure.RepeatBegins,
                    Repeats = measure.RepeatTimes > 0,
                    EndsSection = measure.RepeatTimes > 0 || measure.EndsSection || measure.EndingEnds,
                }
            );
            at += length;
        }
    }

    private void ReadBar(int bar, Interval toSounding)
    {
        var measure = _part.Measures[bar];
        var levels = new Queue<ScoreMark>(measure.Marks.Where(mark => mark.Kind == MarkKind.Dynamic).OrderBy(mark => mark.At));
        foreach (var (note, top) in Line(measure))
        {
            while (levels.TryPeek(out var level) && level.At <= note.At)
                _level = levels.Dequeue().Text;
            if (note.IsCue)
                continue;
            if (note.GraceType is not null)
            {
                _grace = true;
                continue;
            }

            if (note.IsRest)
                _tied = false;
            else if (top.Written is { } written)
                Take(note, written, bar, toSounding);
        }

        while (levels.TryDequeue(out var level))
            _level = level.Text;
    }

    /// <summary>The notes of the line in a measure, each with the uppermost of its chord.</summary>
    private IEnumerable<(ScoreNote First, ScoreNote Top)> Line(ScoreMeasure measure)
    {
        var own = measure.Notes.Where(note => note.Staff == choice.Staff && note.Voice == choice.Voice).ToList();
        for (var i = 0; i < own.Count; i++)
        {
            if (own[i].InChord)
                continue;
            var top = own[i];
            for (var j = i + 1; j < own.Count && own[j].InChord; j++)
                if (own[j].Written?.Midi > top.Written?.Midi)
                    top = own[j];
            yield return (own[i], top);
        }
    }

    private void Take(ScoreNote note, Pitch written, int bar, Interval toSounding)
    {
        var (read, sounding) = Pitches(written, toSounding, bar);
        var at = _bars[bar].At + note.At;
        var last = _notes.Count > 0 ? _notes[^1] : null;
        if (_tied && last is not null && last.Sounding.Midi == sounding.Midi && last.End == at)
            _notes[^1] = last with
            {
                Length = last.Length + note.Length,
                Heads = [.. last.Heads, note.Length],
                Marks = last.Marks | note.Marks,
                Source = (last.Source.First, note.Source),
            };
        else
            _notes.Add(
                new LineNote(_notes.Count, bar, at, note.Length, read, sounding)
                {
                    Beat = BeatOf(bar, note.At),
                    Slurred = _slurs > 0 && last is not null && last.End == at,
                    Marks = note.Marks,
                    Level = _level,
                    InTuplet = note.Tuplet is not null,
                    HasGrace = _grace,
                    Heads = [note.Length],
                    Source = (note.Source, note.Source),
                }
            );
        _tied = note.TiedToNext;
        _grace = false;
        _slurs = Math.Max(0, _slurs - note.SlursEnded) + note.SlursBegun;
    }

    private (Pitch Read, Pitch Sounding) Pitches(Pitch written, Interval toSounding, int bar)
    {
        var read = fromConcert ? reading.ToWritten(written.Transpose(toSounding)) : written;
        read = read.Transpose(_octaves);
        var sounding = reading.ToSounding(read);
        return sounding.Midi is >= 0 and <= 127 && read.Midi is >= 0 and <= 127
            ? (read, sounding)
            : throw new InvalidDataException($"Bar {_bars[bar].Number} has {written}, which moved so is no note any more.");
    }

    /// <summary>The beat of a place in a bar, from 1; a pickup is counted as the end of a bar.</summary>
    private double BeatOf(int bar, Rational at)
    {
        var (metre, length) = (_bars[bar].Metre, _bars[bar].Length);
        var before = bar == 0 && length < metre.Bar ? metre.Bar - length : Rational.Zero;
        return 1 + ((before + at) / metre.Beat).Value;
    }

    private List<LineNote> Timed(TempoLine clock, double scale)
    {
        var end = _bars.Count > 0 ? _bars[^1].At + _bars[^1].Length : Rational.Zero;
        var timed = new List<LineNote>(_notes.Count);
        for (var i = 0; i < _notes.Count; i++)
        {
            var note = _notes[i];
            var next = i + 1 < _notes.Count ? _notes[i + 1].At : end;
            var (from, to) = (clock.SecondsAt(note.At) / scale, clock.SecondsAt(note.End) / scale);
            var rest = next > note.End ? next - note.End : Rational.Zero;
            timed.Add(
                note with
                {
                    Seconds = from,
                    Held = to - from,
                    RestAfter = rest,
                    RestSeconds = (clock.SecondsAt(note.End + rest) / scale) - to,
                }
            );
        }

        return timed;
    }
}
