using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Sound;
using Bocca.Core.Tone.Notes;
using MathNet.Numerics.Statistics;

namespace Bocca.Core.Tone.Listening;

/// <summary>What makes a whole take look other than it was announced.</summary>
public enum RowDoubtKind
{
    /// <summary>Everything lies off by the same part of a semitone, or by a semitone: another reference A, or a slide far out.</summary>
    OtherTuning,

    /// <summary>Everything lies an octave or two away.</summary>
    OtherOctave,

    /// <summary>Everything lies where the same written notes lie on another instrument.</summary>
    OtherInstrument,

    /// <summary>The take has fewer notes than the row.</summary>
    TooShort,

    /// <summary>The take has many more notes than the row.</summary>
    TooMany,

    /// <summary>Two pitches sound at once.</summary>
    TwoPlayers,

    /// <summary>Most of the take belongs to none of the notes asked, nor to their tubes.</summary>
    OtherRow,
}

/// <summary>A doubt about the whole take, with what to do. The take is kept and judged as announced.</summary>
/// <param name="Kind">What it is.</param>
/// <param name="Sentence">What was heard and what to do, in words.</param>
/// <param name="InstrumentId">The instrument it looks like; null where that is not the matter.</param>
public sealed record RowDoubt(RowDoubtKind Kind, string Sentence, string? InstrumentId = null)
{
    /// <summary>Notes off by the same amount within this are off together (cents, median absolute deviation; ours, editable).</summary>
    private const double TogetherCents = 25;

    /// <summary>
    /// A shift smaller than this is the pupil's tuning, not another one (cents); on a slide, where a note counts within 25, so small a
    /// one would have every note called off its position.
    /// </summary>
    private const double LeastShiftCents = 35,
        LeastOnSlideCents = 22;

    /// <summary>From this many notes on a shift means something.</summary>
    private const int FewestNotes = 3;

    /// <summary>A sound further than this from every partial of a tube is none of it (cents).</summary>
    private const double PartialCents = 60;

    /// <summary>
    /// Whether a take on one tube holds mostly what that tube does not give, nor any other one tube: another exercise was played. Null
    /// where not.
    /// </summary>
    internal static RowDoubt? OtherRow(Tube tube, IReadOnlyList<SoundedNote> sounded, PlayerSituation player)
    {
        bool Gives(Tube each, SoundedNote sound) =>
            Enumerable
                .Range(1, HarmonicSeries.Highest)
                .Any(partial => Math.Abs(Tuning.Cents(player.Hertz(each, partial), sound.MedianHz)) <= PartialCents);
        bool Mostly(Tube each) => 2 * sounded.Count(sound => Gives(each, sound)) > sounded.Count;
        return sounded.Count < FewestNotes || Mostly(tube) || player.Instrument.Tubes.Any(Mostly)
            ? null
            : new RowDoubt(
                RowDoubtKind.OtherRow,
                "Most of what was heard belongs to none of these notes: it looks like another exercise. Choose what was played, and "
                    + "hear it again."
            );
    }

    /// <summary>The shift that all sounds share against what was meant, cents; null where they share none.</summary>
    internal static double? SharedShift(IReadOnlyList<MeantNote> meant, IReadOnlyList<SoundedNote> sounded, Tuning tuning)
    {
        if (meant.Count < FewestNotes || sounded.Count < FewestNotes || meant.Select(note => note.Sounding.Midi).Distinct().Count() < 2)
            return null;
        // Every pairing of one meant note and one sound is a guess at the shift; the best is the one that explains most notes.
        var guesses = meant
            .Take(5)
            .SelectMany(note => sounded.Take(5).Select(sound => Tuning.Cents(tuning.Frequency(note.Sounding), sound.MedianHz)));
        var best = guesses
            .Select(guess => (guess, Fits: Shifts(meant, sounded, tuning, guess)))
            .MaxBy(candidate => (candidate.Fits.Count, -Math.Abs(candidate.guess)));
        if (best.Fits.Count < FewestNotes || best.Fits.Count < 0.75 * Math.Min(meant.Count, sounded.Count))
            return null;
        return best.Fits.Median();
    }

    /// <summary>What makes the take doubtful; null for nothing.</summary>
    internal static RowDoubt? Of(
        IReadOnlyList<MeantNote> meant,
        IReadOnlyList<SoundedNote> sounded,
        PlayerSituation player,
        double? shiftCents,
        MainSlide? slide,
        bool timed
    )
    {
        var least = player.Instrument.Slide is null ? LeastShiftCents : LeastOnSlideCents;
        if (shiftCents is { } shift && Math.Abs(shift) >= least)
        {
            var instrument = OtherInstrument(meant, shift, player);
            if (instrument is not null)
                return new RowDoubt(
                    RowDoubtKind.OtherInstrument,
                    $"Every note came where these written notes lie on the {instrument.Name}. Is that what was played? Choose it and "
                        + $"hear the take again.",
                    instrument.Id
                );
            var octaves = (int)Math.Round(shift / 1200);
            if (octaves != 0 && Math.Abs(shift - (1200 * octaves)) < LeastShiftCents)
                return new RowDoubt(
                    RowDoubtKind.OtherOctave,
                    $"Every note came {(Math.Abs(octaves) == 1 ? "an octave" : $"{Math.Abs(octaves)} octaves")} "
                        + $"{(octaves < 0 ? "lower" : "higher")} than written. Check the clef the pupil reads."
                );
            if (slide is not null && Math.Abs(slide.Cents) >= least)
                return OfTuning(slide, player);
        }

        if (!timed && sounded.Count < meant.Count && sounded.Count > 0 && meant.Count > 1)
            return new RowDoubt(
                RowDoubtKind.TooShort,
                $"The row has {meant.Count} notes; the take holds {sounded.Count}. Those are judged, the take is kept."
            );
        return !timed && sounded.Count > (2 * meant.Count) + 2
            ? new RowDoubt(RowDoubtKind.TooMany, $"The row has {meant.Count} notes; the take holds {sounded.Count}. Is it the right row?")
            : null;
    }

    private static RowDoubt OfTuning(MainSlide slide, PlayerSituation player) =>
        new(
            RowDoubtKind.OtherTuning,
            $"{slide.Sentence} About A = {player.Tuning.A4Hz * Math.Pow(2, slide.Cents / 1200):0}: check the tuning slide first, "
                + "or set the reference A, and hear it again."
        );

    /// <summary>Shifts of the notes that a guess explains, one a note, in order.</summary>
    private static List<double> Shifts(IReadOnlyList<MeantNote> meant, IReadOnlyList<SoundedNote> sounded, Tuning tuning, double guess)
    {
        var answers = RowAligner.Align(meant, sounded, tuning, guess);
        return
        [
            .. answers
                .Select(
                    (answer, i) => answer is { } at ? Tuning.Cents(tuning.Frequency(meant[i].Sounding), sounded[at].MedianHz) : double.NaN
                )
                .Where(cents => Math.Abs(cents - guess) <= 2 * TogetherCents),
        ];
    }

    /// <summary>
    /// An instrument on which the same written notes sound so much away; those of the same family and name are not told apart.
    /// </summary>
    private static Instrument? OtherInstrument(IReadOnlyList<MeantNote> meant, double shift, PlayerSituation player)
    {
        var semitones = (int)Math.Round(shift / 100);
        if (semitones % 12 == 0 || Math.Abs(shift - (100 * semitones)) > TogetherCents)
            return null;
        var written = meant[0].Written;
        return Catalogue.All.FirstOrDefault(other =>
            other.Id != player.Instrument.Id
            && other.Readings.Any(reading =>
                reading.Clef == player.Reading.Clef
                && reading.ToSounding(written).Midi - meant[0].Sounding.Midi == semitones
                && meant.All(note =>
                    reading.ToSounding(note.Written).Midi is var midi && midi >= other.Range.Lowest.Midi && midi <= other.Range.Highest.Midi
                )
            )
        );
    }
}
