using Bocca.Core.Fingering;
using Bocca.Core.Instruments;
using Bocca.Core.Music;

namespace Bocca.Core.Tone.Notes;

/// <summary>A note that was meant: what was read, and what lips and hand were to do for it.</summary>
/// <param name="Written">The note as read.</param>
/// <param name="Sounding">The concert pitch.</param>
/// <param name="Tube">The tube that the hand was to leave in use.</param>
/// <param name="Partial">The partial that the lips were to find.</param>
/// <param name="SlurredToNext">Whether the next note follows without the tongue.</param>
public sealed record MeantNote(Pitch Written, Pitch Sounding, Tube Tube, int Partial, bool SlurredToNext = false)
{
    /// <summary>The most notes in a row.</summary>
    public const int MostNotes = 400;

    /// <summary>What the hand was to do.</summary>
    public Setting Setting => Tube.Setting;

    /// <summary>A note on the fingering that comes first for it.</summary>
    /// <exception cref="ArgumentException">The instrument cannot play it; the message says what it reaches.</exception>
    public static MeantNote Of(Instrument instrument, Reading reading, Pitch written, FingeringWeights? weights = null, Hand? hand = null)
    {
        var way = FingeringFinder.Find(instrument, reading, written, weights, hand)[0];
        return new MeantNote(written, way.Sounding, way.Tube, way.Partial);
    }

    /// <summary>A note on a setting that was chosen for it.</summary>
    /// <exception cref="ArgumentException">The instrument has no such setting, or the setting does not give the note.</exception>
    public static MeantNote On(Instrument instrument, Reading reading, Pitch written, Setting setting)
    {
        var tube = instrument.TubeOf(setting) ?? throw new ArgumentException($"'{setting}' cannot be set on {instrument.Id}.");
        var sounding = reading.ToSounding(written);
        double Off(int partial) => 100 * Math.Abs(instrument.Midi(tube, partial) - sounding.Midi);
        var partial = Enumerable.Range(1, HarmonicSeries.Highest).MinBy(Off);
        return Off(partial) <= HarmonicSeries.WithinCents
            ? new MeantNote(written, sounding, tube, partial)
            : throw new ArgumentException($"{setting} does not give {written} on {instrument.Id}.");
    }

    /// <summary>A row of notes as text: <c>D4 E4 F4</c>, or <c>G4~C5~G4</c> where <c>~</c> slurs to the next.</summary>
    /// <param name="instrument">The instrument.</param>
    /// <param name="reading">How its player reads.</param>
    /// <param name="notes">The notes.</param>
    /// <param name="settings">A setting for each, apart by spaces; null for those that come first.</param>
    /// <param name="weights">What ranks fingerings; those that ship by default.</param>
    /// <exception cref="ArgumentException">A note or setting is none, cannot be played, or the counts differ; the message says
    /// which.</exception>
    public static IReadOnlyList<MeantNote> Row(
        Instrument instrument,
        Reading reading,
        string notes,
        string? settings = null,
        FingeringWeights? weights = null
    )
    {
        var marked = notes.Replace("~", "~ ", StringComparison.Ordinal).Split(' ', StringSplitOptions.RemoveEmptyEntries);
        if (marked.Length is 0 or > MostNotes)
            throw new ArgumentException($"A row holds 1 to {MostNotes} notes, not {marked.Length}.");
        var set = settings?.Split(' ', StringSplitOptions.RemoveEmptyEntries);
        if (set is not null && set.Length != marked.Length)
            throw new ArgumentException($"{marked.Length} notes need {marked.Length} settings, not {set.Length}.");
        if (marked[^1].EndsWith('~'))
            throw new ArgumentException("The last note of a row slurs to nothing: leave out its '~'.");
        return
        [
            .. marked.Select(
                (mark, i) =>
                {
                    if (!Pitch.TryParse(mark.TrimEnd('~'), out var written))
                        throw new ArgumentException(
                            $"'{mark}', note {i + 1} of the row, is not a note: write a letter, # or b if altered, and the octave, "
                                + $"such as C4, F#4 or Bb3."
                        );
                    var note = set is null
                        ? Of(instrument, reading, written, weights)
                        : On(instrument, reading, written, ParseSetting(instrument, set[i]));
                    return note with { SlurredToNext = mark.EndsWith('~') };
                }
            ),
        ];
    }

    private static Setting ParseSetting(Instrument instrument, string text) =>
        Setting.TryParse(text, instrument.Slide is not null, out var setting)
            ? setting
            : throw new ArgumentException(
                $"'{text}' is not a {(instrument.Slide is null ? "valve combination such as 0 or 1-3" : "slide position such as 4 or T1")}."
            );
}
