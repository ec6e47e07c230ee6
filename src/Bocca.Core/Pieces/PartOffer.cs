using Bocca.Core.Fingering;
using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Pieces.Lines;
using Bocca.Core.Score;

namespace Bocca.Core.Pieces;

/// <summary>A way to give a line of a score to a player.</summary>
/// <param name="Choice">The line.</param>
/// <param name="FromConcert">Whether it is taken at its concert pitch and written anew; else it is read as it stands.</param>
/// <param name="Octaves">Octaves by which it is moved, up positive.</param>
public sealed record PartOffer(LineChoice Choice, bool FromConcert, int Octaves)
{
    /// <summary>Octaves that are tried, near ones first.</summary>
    private static readonly int[] Tried = [0, -1, 1, -2, 2, -3, 3];

    /// <summary>The notes that do not lie on the instrument, as they would be written, the first of each.</summary>
    public IReadOnlyList<Pitch> Outside { get; init; } = [];

    /// <summary>The lowest and the highest note as they would be written.</summary>
    public (Pitch Lowest, Pitch Highest) Span { get; init; }

    /// <summary>Whether all of it can be played.</summary>
    public bool Fits => Outside.Count == 0;

    /// <summary>How it is given, in words.</summary>
    public string Words =>
        (FromConcert ? "transposed from concert pitch" : "as it stands")
        + Octaves switch
        {
            0 => "",
            1 => ", an octave higher",
            -1 => ", an octave lower",
            > 0 => $", {Octaves} octaves higher",
            _ => $", {-Octaves} octaves lower",
        };

    /// <summary>
    /// Every line of a score as it suits a player best: as it stands where it is written for such an instrument, else at its concert pitch
    /// in the octave in which most of it fits, the nearest of them.
    /// </summary>
    public static IReadOnlyList<PartOffer> Of(MusicScore score, Instrument instrument, Reading reading) =>
        [.. LineChoice.Of(score).Select(choice => Best(score, choice, instrument, reading))];

    private static PartOffer Best(MusicScore score, LineChoice choice, Instrument instrument, Reading reading)
    {
        var part = score.Parts[choice.Part];
        // Written for this reading: the same transposition, and the clef of it.
        var stands = part.ToSounding == reading.WrittenAboveSounding.Inverse && part.Clef == reading.Clef;
        return Tried
            .Select(octaves => Offer(score, new PartOffer(choice, !stands, octaves), instrument, reading))
            .MinBy(offer => offer.Outside.Count)!;
    }

    /// <summary>An offer with what of it does not fit.</summary>
    public static PartOffer Offer(MusicScore score, PartOffer asked, Instrument instrument, Reading reading)
    {
        PieceLine line;
        try
        {
            line = PieceLine.Of(score, asked.Choice, reading, fromConcert: asked.FromConcert, octaves: asked.Octaves);
        }
        catch (InvalidDataException)
        {
            // Moved so far it is none any more.
            return asked with { Outside = [.. Enumerable.Range(0, 128).Select(Pitch.FromMidi)] };
        }

        var outside = line
            .Notes.GroupBy(note => note.Sounding.Midi)
            .Where(group => !FingeringFinder.Plays(instrument, Pitch.FromMidi(group.Key)))
            .OrderBy(group => group.Key)
            .Select(group => group.First().Written)
            .ToList();
        return asked with
        {
            Outside = outside,
            Span = (line.Notes.MinBy(note => note.Sounding.Midi)!.Written, line.Notes.MaxBy(note => note.Sounding.Midi)!.Written),
        };
    }
}
