using Bocca.Core.Fingering;
using Bocca.Core.Instruments;
using Bocca.Core.Music;

namespace Bocca.Web.Drawings;

/// <summary>A rung of a tube among all tubes.</summary>
public sealed record TubeRung(double Y, int Partial, string Note, string Cents, bool Taught);

/// <summary>A tube as a column of rungs.</summary>
public sealed record TubeColumn(string Setting, double X, double LengthCm, double AddedCm, string Words, IReadOnlyList<TubeRung> Rungs)
{
    /// <summary>Its notes in words, each with its cents.</summary>
    public string Notes => string.Join(", ", Rungs.Select(rung => rung.Cents == "" ? rung.Note : $"{rung.Note}\u00A0{rung.Cents}"));
}

/// <summary>All partials of every tube at true pitch height; those that a chart takes stand out and fill the chromatic scale.</summary>
public sealed class TubeDrawing
{
    public const double Width = 860;
    public const double Height = 520;
    private const double Top = 34;
    private const double Left = 16;
    private const int HighestPartial = 12;

    public TubeDrawing(Instrument instrument, Reading reading, FingeringWeights weights, Hand hand)
    {
        var tubes = instrument.Tubes.OrderBy(tube => tube.LengthRatio).ToList();
        var taught = FingeringChart
            .Of(instrument, reading, weights: weights, hand: hand)
            .Select(note => (note.Ways[0].Setting, note.Ways[0].Partial))
            .ToHashSet();
        var (low, high) = (instrument.Range.Lowest.Midi - 1.0, instrument.Range.Highest.Midi + 1.0);
        double Y(double midi) => Top + ((high - midi) / (high - low) * (Height - Top - 12));
        Step = (Width - (2 * Left)) / tubes.Count;
        Columns =
        [
            .. tubes.Select(
                (tube, i) =>
                    new TubeColumn(
                        tube.Setting.ToString(),
                        Left + (Step * (i + 0.5)),
                        100 * instrument.OpenMetres * tube.LengthRatio,
                        100 * instrument.OpenMetres * (tube.LengthRatio - 1),
                        Frame.Wording.Setting(instrument, tube.Setting),
                        [
                            .. Rung.Of(instrument, tube, HighestPartial, Tuning.Built)
                                .Select(rung => (rung, Midi: instrument.Midi(tube, rung.Partial)))
                                .Where(each => each.Midi > low && each.Midi < high)
                                .Select(each => new TubeRung(
                                    Y(each.Midi),
                                    each.rung.Partial,
                                    Frame.Wording.Pitch(each.rung.Written(reading)),
                                    Frame.Wording.SignedCents(each.rung.Cents),
                                    taught.Contains((tube.Setting, each.rung.Partial))
                                )),
                        ]
                    )
            ),
        ];
        LongestCm = Columns.Max(column => column.LengthCm);
    }

    /// <summary>From one column to the next.</summary>
    public double Step { get; }

    public double LongestCm { get; }

    public IReadOnlyList<TubeColumn> Columns { get; }

    /// <summary>What two neighbouring open partials leave to be filled, in words.</summary>
    public static string Gap(int partial)
    {
        var semitones = HarmonicSeries.Semitones(partial + 1) - HarmonicSeries.Semitones(partial);
        return $"{semitones} semitones from partial {partial} to {partial + 1}: "
            + $"{(semitones == 1 ? "no note" : $"{semitones - 1} notes")} to "
            + $"fill{(semitones == 7 ? ", so all seven settings are needed" : "")}.";
    }
}
