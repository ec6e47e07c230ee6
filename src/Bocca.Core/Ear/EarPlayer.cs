using Bocca.Core.Fingering;
using Bocca.Core.Instruments;
using Bocca.Core.Music;

namespace Bocca.Core.Ear;

/// <summary>Who is asked: the instrument, how it is read, and how far its notes reach.</summary>
/// <param name="Instrument">The instrument.</param>
/// <param name="Reading">How it is read.</param>
/// <param name="Range">The notes in range, sounding.</param>
public sealed record EarPlayer(Instrument Instrument, Reading Reading, PlayingRange Range)
{
    /// <summary>What the hand may do.</summary>
    public Hand Hand { get; init; } = Hand.Free;

    /// <summary>Semitones of the major scale.</summary>
    private static readonly int[] Major = [0, 2, 4, 5, 7];

    /// <summary>The pitches from which drills start.</summary>
    public StartNotes Start => StartNotes.Of(Instrument);

    /// <summary>
    /// The open notes in range, sounding, from the lowest: partials of the tube with nothing pressed, none that is avoided.
    /// </summary>
    public IReadOnlyList<Pitch> OpenNotes
    {
        get
        {
            var open = Instrument.TubeOf(Instrument.Slide is null ? Setting.Open : Setting.OfSlide(1)) ?? Instrument.Tubes[0];
            return
            [
                .. Enumerable
                    .Range(2, 7)
                    .Where(partial => !HarmonicSeries.IsAvoided(partial))
                    .Select(partial => Flat((int)Math.Round(Instrument.Midi(open, partial))))
                    .Where(Range.Holds),
            ];
        }
    }

    /// <summary>
    /// Do to so, sounding: from whichever of the two start notes has room for five notes above it in range; as many of them as there are.
    /// </summary>
    public IReadOnlyList<Pitch> DoToSo
    {
        get
        {
            var root = new[] { Start.ConcertBb, Start.ConcertF }.MaxBy(each => Scale(each).Count);
            return Scale(root);
        }
    }

    /// <summary>Whether a sounding note can be asked: in range, and the hand can do it.</summary>
    public bool Holds(Pitch sounding) =>
        Range.Holds(sounding)
        && FingeringFinder.FindSounding(Instrument, sounding, FingeringWeights.Default, Hand) is [{ Barred: null }, ..];

    /// <summary>A sounding pitch as flats name it: concert keys of brass have flats.</summary>
    public static Pitch Flat(int midi)
    {
        (Letter Letter, int Alter)[] names =
        [
            (Letter.C, 0),
            (Letter.D, -1),
            (Letter.D, 0),
            (Letter.E, -1),
            (Letter.E, 0),
            (Letter.F, 0),
            (Letter.G, -1),
            (Letter.G, 0),
            (Letter.A, -1),
            (Letter.A, 0),
            (Letter.B, -1),
            (Letter.B, 0),
        ];
        var (letter, alter) = names[midi % 12];
        return new Pitch(letter, alter, (midi / 12) - 1);
    }

    private List<Pitch> Scale(Pitch root) => [.. Major.Select(step => Flat(root.Midi + step)).TakeWhile(Holds)];
}
