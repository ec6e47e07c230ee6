using Bocca.Core.Fingering;
using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Teaching;
using Bocca.Core.Tone.Notes;

namespace Bocca.Core.Tone.Drills;

/// <summary>The notes that a drill's phrases name, for one player; see <see cref="ToneSet"/>.</summary>
/// <param name="player">Who plays what.</param>
/// <param name="approach">The teacher's approach: it says which note is the first.</param>
/// <param name="sets">All phrases of the drill: together they say how many learnt notes it takes.</param>
internal sealed class DrillNotes(PlayerSituation player, Approach approach, IReadOnlyList<ToneSet> sets)
{
    /// <summary>Semitones of the degrees of a major scale over its first.</summary>
    private static readonly int[] Major = [0, 2, 4, 5, 7, 9, 11];

    /// <summary>So many notes make the first scale.</summary>
    private const int AllFive = 5;

    /// <summary>The degree of the concert B flat scale that its F is, from 0.</summary>
    private const int FifthDegree = 4;

    // Many drills name none of them.
    private readonly Lazy<IReadOnlyList<Pitch>> _firsts = new(() =>
        FirstNotes.Of(player.Instrument, player.Reading, approach, player.Hand, player.Weights)
    );

    private readonly StartNotes _start = StartNotes.Of(player.Instrument);

    private readonly PlayingRange _range = PlayingRange.OfSecondStage(player.Instrument);

    private readonly int _learntTaken = sets.SelectMany(set => set.Row.Notes).OfType<PhraseNote.OfLearnt>().Distinct().Count();

    /// <summary>The notes of a phrase; null where one lies beyond the range or the reach.</summary>
    /// <param name="set">The phrase.</param>
    /// <param name="asked">The notes chosen; null for the first note.</param>
    public List<MeantNote>? Of(ToneSet set, IReadOnlyList<MeantNote>? asked)
    {
        var notes = new List<MeantNote>();
        foreach (var named in set.Row.Notes)
        {
            if (named is PhraseNote.Chosen && asked is not null)
                notes.AddRange(asked);
            else if (Named(named) is { } note)
                notes.Add(note);
            else
                return null;
        }

        return notes;
    }

    private MeantNote? Named(PhraseNote named) =>
        named switch
        {
            PhraseNote.OpenAbove(var above) => Open(player, LowestOpen(player) + above),
            PhraseNote.Open(var partial) => Open(player, partial),
            PhraseNote.OfLearnt(var place) => OfFirsts(Learnt(place)),
            PhraseNote.OfFirsts(var place) => OfFirsts(place),
            PhraseNote.OfFive(var degree) => OfFive(degree),
            PhraseNote.OfScale scale => OfScale(scale),
            _ => First(player, approach),
        };

    /// <summary>The concert B flat, or F where an octave over the B flat leaves the range.</summary>
    private Pitch Tonic => _range.Holds(Pitch.FromMidi(_start.ConcertBb.Midi + 12)) ? _start.ConcertBb : _start.ConcertF;

    /// <summary>
    /// A degree of the five-note scale that the first notes make, from do up; null where they make none, or it is not learnt.
    /// </summary>
    private MeantNote? OfFive(int degree)
    {
        var midis = _firsts.Value.Select(note => note.Midi).ToList();
        var tonic = midis.FindIndex(midi => Major.Take(AllFive).All(over => midis.Contains(midi + over)));
        var at = tonic < 0 ? -1 : midis.IndexOf(midis[tonic] + Major[degree]);
        return at < 0 || at >= (player.Learnt ?? midis.Count) ? null : OfFirsts(at);
    }

    private MeantNote OfFirsts(int index) =>
        MeantNote.Of(
            player.Instrument,
            player.Reading,
            _firsts.Value[Math.Min(index, _firsts.Value.Count - 1)],
            player.Weights,
            player.Hand
        );

    /// <summary>Which first note stands for one of the highest learnt; where too few are learnt, the first ones do.</summary>
    private int Learnt(int place)
    {
        var learnt = Math.Clamp(player.Learnt ?? _firsts.Value.Count, Math.Min(_learntTaken, _firsts.Value.Count), _firsts.Value.Count);
        return Math.Max(0, learnt - _learntTaken) + place;
    }

    /// <summary>A degree of a scale, or a note so many semitones away; null where it lies beyond the second stage or the reach.</summary>
    private MeantNote? OfScale(PhraseNote.OfScale scale)
    {
        var (start, by, semitones) = scale;
        var (from, degree) = start switch
        {
            ScaleStart.ConcertBb => (_start.ConcertBb, 0),
            ScaleStart.ConcertF => (_start.ConcertF, FifthDegree),
            _ => (Tonic, 0),
        };
        var sounding = semitones
            ? Pitch.FromMidi(from.Midi + by)
            : from.Transpose(new Interval(by, SemitonesOver(degree + by) - SemitonesOver(degree)));
        if (!_range.Holds(sounding))
            return null;
        var written = player.Reading.ToWritten(sounding);
        written = semitones ? written.SpelledBeside(player.Reading.ToWritten(from)) : written;
        return FingeringFinder.FindSounding(player.Instrument, sounding, player.Weights, player.Hand) is [{ Barred: null } way, ..]
            ? new MeantNote(written, sounding, way.Tube, way.Partial)
            : null;
    }

    private static int SemitonesOver(int degree) => (12 * (int)Math.Floor(degree / 7.0)) + Major[((degree % 7) + 7) % 7];

    /// <summary>The first sound that the approach asks for: the higher or the lower open note, whatever speaks, or a note set.</summary>
    private static MeantNote First(PlayerSituation player, Approach approach) =>
        approach.Of(Points.FirstTarget) switch
        {
            FirstTarget.TheHigher => Open(player, LowestOpen(player) + 1),
            FirstTarget.SetNote => MeantNote.Of(
                player.Instrument,
                player.Reading,
                FirstNotes.Of(player.Instrument, player.Reading, approach, player.Hand, player.Weights)[0],
                player.Weights,
                player.Hand
            ),
            _ => Open(player, LowestOpen(player)),
        };

    /// <summary>The open partial of the instrument's chart note nearest to its first note: 2, or 4 on a horn.</summary>
    private static int LowestOpen(PlayerSituation player)
    {
        var instrument = player.Instrument;
        double first = instrument.FirstNotes[0].Midi;
        return Enumerable.Range(2, 5).MinBy(partial => Math.Abs(instrument.Midi(instrument.Tubes[0], partial) - first));
    }

    /// <summary>A partial of the open tube as a note.</summary>
    private static MeantNote Open(PlayerSituation player, int partial)
    {
        var sounding = player.Instrument.NoteOf(player.Instrument.Tubes[0], partial);
        return new MeantNote(player.Reading.ToWritten(sounding), sounding, player.Instrument.Tubes[0], partial);
    }
}
