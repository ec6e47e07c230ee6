using Bocca.Core.Instruments;
using Bocca.Core.Music;

namespace Bocca.Core.Fingering;

/// <summary>What a setting tried by hand gives for a written note.</summary>
/// <param name="Fits">Whether the note can be played with it.</param>
/// <param name="Sentence">What it gives, in words.</param>
public sealed record SettingTrial(bool Fits, string Sentence)
{
    /// <summary>Tries a tube for a written note.</summary>
    public static SettingTrial Of(Instrument instrument, Reading reading, Pitch written, Tube tube, FingeringWeights? weights = null)
    {
        var ways = FingeringFinder.FindSounding(instrument, reading.ToSounding(written), weights);
        var place = ways.ToList().FindIndex(way => way.Tube.Setting == tube.Setting);
        if (place == 0)
            return new SettingTrial(true, $"{tube.Setting}: that plays {written}, on partial {ways[0].Partial}.");
        if (place > 0)
            return new SettingTrial(
                true,
                $"{tube.Setting}: that plays {written} too, on partial {ways[place].Partial}; {ways[0].Setting} comes first."
            );
        var wanted = reading.ToSounding(written).Midi;
        var nearest = Enumerable.Range(1, HarmonicSeries.Highest).MinBy(partial => Math.Abs(instrument.Midi(tube, partial) - wanted));
        var note = Rung.At(instrument, tube, nearest, Tuning.Built).Written(reading, written);
        return new SettingTrial(false, $"{tube.Setting}: nearest is {note}, partial {nearest}; not {written}.");
    }
}
