using Bocca.Core.Music;
using Bocca.Core.Score;

namespace Bocca.Core.Slurs;

/// <summary>A slur of the teacher's own, as a score has it and as this player plays it.</summary>
/// <param name="Measure">The measure it begins in, from 1.</param>
/// <param name="Written">Its notes as this player reads them.</param>
/// <param name="Slur">The slur on the first tube in use that has all its notes; null for none.</param>
/// <param name="WhyNot">Why there is none; empty where there is.</param>
public sealed record OwnSlur(int Measure, IReadOnlyList<Pitch> Written, Slur? Slur, string WhyNot)
{
    private static readonly Interval Octave = new(7, 12);

    /// <summary>Octaves above what the score has; negative below. Another octave is taken where the score's own lies on no tube.</summary>
    public int Octaves { get; init; }

    /// <summary>The most slurs of a score.</summary>
    public const int MostSlurs = 24;

    /// <summary>The longest name that a slur has in records.</summary>
    private const int LongestId = 60;

    /// <summary>The slurs that the first part of a score marks, at concert pitch, on this player's tubes.</summary>
    /// <exception cref="InvalidDataException">No slur is marked, or more than are read.</exception>
    public static IReadOnlyList<OwnSlur> Of(MusicScore score, SlurPlayer player)
    {
        var part = score.Parts[0];
        var slurs = new List<OwnSlur>();
        List<(Pitch Sounding, Rational Length)>? notes = null;
        var (began, tied, voice) = (0, false, 0);
        foreach (var (note, measure) in part.Measures.SelectMany((measure, i) => measure.Notes.Select(note => (note, i + 1))))
        {
            if (note.SlurBegins && notes is null && note.Sounds)
                (notes, began, tied, voice) = ([], measure, false, note.Voice);
            if (notes is null || note.Written is not { } written || !note.Sounds || note.InChord || note.Staff > 1 || note.Voice != voice)
                continue;
            var sounding = written.Transpose(part.ToSounding);
            if (tied)
                notes[^1] = (notes[^1].Sounding, notes[^1].Length + note.Length);
            else
                notes.Add((sounding, note.Length));
            tied = note.TiedToNext;
            if (!note.SlurEnds || tied)
                continue;
            slurs.Add(Best(player, began, notes));
            notes = null;
            if (slurs.Count > MostSlurs)
                throw new InvalidDataException($"The score marks more than {MostSlurs} slurs: leave in it those to be practised.");
        }

        return slurs.Count > 0
            ? slurs
            : throw new InvalidDataException("The score marks no slur: set a slur over what goes in one breath.");
    }

    private static OwnSlur Best(SlurPlayer player, int measure, List<(Pitch Sounding, Rational Length)> notes)
    {
        var here = On(player, measure, notes);
        if (here.Slur is not null)
            return here;
        var up = On(player, measure, notes.ConvertAll(note => (note.Sounding.Transpose(Octave), note.Length)));
        var down = On(player, measure, notes.ConvertAll(note => (note.Sounding.Transpose(Octave.Inverse), note.Length)));
        return up.Slur is not null ? up with { Octaves = 1 }
            : down.Slur is not null ? down with { Octaves = -1 }
            : here;
    }

    private static OwnSlur On(SlurPlayer player, int measure, List<(Pitch Sounding, Rational Length)> notes)
    {
        var written = notes.ConvertAll(note => player.Reading.ToWritten(note.Sounding));
        OwnSlur Not(string why) => new(measure, written, null, why);
        if (notes.Count is < 2 or > SlurShape.MostOwnNotes)
            return Not($"A slur has 2 to {SlurShape.MostOwnNotes} notes, this one has {notes.Count}.");
        if (notes.Any(note => note.Length.Value < SlurShape.ShortestBeats || note.Length.Value > SlurShape.LongestBeats))
            return Not($"Its notes last from a sixteenth to {SlurShape.LongestBeats:0} beats; one of these does not.");
        var whyNot = "";
        foreach (var tube in player.Tubes())
        {
            var partials = notes.ConvertAll(note =>
                Enumerable
                    .Range(SlurWriter.LowestPartial, SlurWriter.HighestPartial - 1)
                    .FirstOrDefault(partial => player.Instrument.NoteOf(tube, partial).Midi == note.Sounding.Midi)
            );
            if (partials.Contains(0))
                continue;
            var shape = SlurShape.Own([.. partials.Select(partial => partial - partials[0])], [.. notes.Select(note => note.Length.Value)]);
            var (slur, why) = SlurWriter.Of(player, shape, tube, partials[0]);
            if (slur?.Id.Length > LongestId)
                return Not("It is too long to be kept by name: split it.");
            if (slur is not null)
                return new OwnSlur(measure, written, slur, "");
            whyNot = $"On {tube.Setting} it {why}";
        }

        return Not(
            whyNot != "" ? whyNot : $"No one setting in use has {string.Join(" ", written.Distinct())}: a lip slur keeps its setting."
        );
    }
}
