using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Teaching;

namespace Bocca.Core.Simulation;

/// <summary>
/// How lips move on one note, from the lip model: the opening between them over a few swings. What is shown slowed must be slowed alike for
/// every register, so that a higher note is seen to be quicker. The model says how openings compare, not how many millimetres they are.
/// </summary>
/// <param name="Written">The note as read.</param>
/// <param name="Partial">Its partial on the open tube.</param>
/// <param name="Hertz">Swings a second.</param>
/// <param name="Opening">
/// Height of the opening every <see cref="StepMs"/>, as a share of the widest of all registers; 0 while they touch.
/// </param>
/// <param name="ClosedShare">Share of a swing in which they touch, 0 to 1.</param>
public sealed record LipMotion(Pitch Written, int Partial, double Hertz, IReadOnlyList<double> Opening, double ClosedShare)
{
    private const int StepSamples = 4;

    /// <summary>Milliseconds from one opening to the next.</summary>
    public const double StepMs = 1000.0 * StepSamples / LipModel.Rate;

    /// <summary>How much slower it is shown: a swing of a low note then takes a second or two.</summary>
    public const double Slowed = 150;

    /// <summary>The lips settle for so long before they are looked at (s).</summary>
    private const double SettleSeconds = 0.4;

    /// <summary>How much is looked at (s).</summary>
    private const double ShownSeconds = 0.06;

    /// <summary>The largest opening, as such a share.</summary>
    public double Widest => Opening.Max();

    /// <summary>Three open notes of a beginner: the lowest open partial in use, the next, and the one two above that.</summary>
    /// <param name="instrument">Whose lips and tube.</param>
    /// <param name="reading">How it is read.</param>
    public static IReadOnlyList<LipMotion> ByRegister(Instrument instrument, Reading reading)
    {
        double first = instrument.FirstNotes[0].Midi;
        var lowest = Enumerable.Range(2, 5).MinBy(partial => Math.Abs(instrument.Midi(instrument.Tubes[0], partial) - first));
        var registers = new[] { lowest, lowest + 1, lowest + 3 }.Select(partial => Of(instrument, reading, partial)).ToList();
        var widest = registers.Max(register => register.Widest);
        return [.. registers.Select(register => register with { Opening = [.. register.Opening.Select(opening => opening / widest)] })];
    }

    /// <summary>The lips on a partial of the open tube; the opening in the model's own measure.</summary>
    private static LipMotion Of(Instrument instrument, Reading reading, int partial)
    {
        var tube = instrument.Tubes[0];
        var hertz = instrument.Frequency(tube, partial, Tuning.Built);
        var tuning = LipTuning.For(instrument, SoundStage.Instrument, tube, hertz);
        var model = new LipModel(
            LipBuild.Of(instrument.Family),
            AirColumn.Of(SoundStage.Instrument, instrument, tube).Scaled(tuning.ColumnRatio)
        );
        var handles = new LipHandles(tuning.TensionHz, 1, LipTuning.UsualPressure);
        var opening = new List<double>();
        var from = (int)(LipModel.Rate * SettleSeconds);
        for (var i = 0; i < from + (int)(LipModel.Rate * ShownSeconds); i++)
        {
            model.Next(handles);
            if (i >= from && (i - from) % StepSamples == 0)
                opening.Add(Math.Max(0, model.Lift));
        }

        var sounding = Pitch.FromMidi(instrument.PartialOne.Midi + HarmonicSeries.Semitones(partial));
        var swing = Math.Max(1, (int)Math.Round(1000 / hertz / StepMs));
        var swings = Math.Max(1, opening.Count / swing);
        return new LipMotion(
            reading.ToWritten(sounding),
            partial,
            hertz,
            opening,
            (double)opening.Take(swings * swing).Count(height => height <= 0) / (swings * swing)
        );
    }
}
