using BenchmarkDotNet.Attributes;
using Bocca.Core.Fingering;
using Bocca.Core.Instruments;
using Bocca.Core.Music;

namespace Bocca.Bench;

/// <summary>Fingerings of all instruments; holding every partial of every tube against every note in hertz is the reference.</summary>
[MemoryDiagnoser]
public class FingeringBenchmarks
{
    [Benchmark(Baseline = true, Description = "every partial of every tube against every note, 21 instruments")]
    public int Plain()
    {
        var found = 0;
        foreach (var instrument in Catalogue.All)
            for (var midi = instrument.Range.Lowest.Midi; midi <= instrument.Range.Highest.Midi; midi++)
            {
                var wanted = Tuning.Standard.Frequency((double)midi);
                foreach (var tube in instrument.Tubes)
                    for (var partial = 1; partial <= HarmonicSeries.Highest; partial++)
                        if (Math.Abs(Tuning.Cents(wanted, instrument.Frequency(tube, partial, Tuning.Standard))) <= 80)
                            found++;
            }

        return found;
    }

    [Benchmark(Description = "charts of 21 instruments, every way judged and sorted")]
    public int Charts() =>
        Catalogue.All.Sum(instrument => FingeringChart.Of(instrument, instrument.Readings[0]).Sum(note => note.Ways.Count));

    [Benchmark(Description = "one note of a double horn, with its reasons in words")]
    public int Note()
    {
        var horn = Catalogue.Get("horn-double");
        return FingeringFinder.Find(horn, horn.Readings[0], new Pitch(Letter.A, 0, 4)).Sum(way => way.Reason.Length);
    }
}
