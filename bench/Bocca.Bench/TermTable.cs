using System.Globalization;
using Bocca.Core.Simulation;

namespace Bocca.Bench;

/// <summary>Simulated terms with planned weeks beside the same every day, over many simulated pupils.</summary>
internal static class TermTable
{
    public static void Run(int pupils)
    {
        var terms = Enum.GetValues<TermPlan>()
            .ToDictionary(
                by => by,
                by => Enumerable.Range(0, pupils).AsParallel().AsOrdered().Select(seed => PracticeTerm.Run(seed, by)).ToList()
            );
        Console.WriteLine($"{pupils} simulated pupils, {PracticeTerm.Weeks} weeks; mean ± standard deviation over pupils");
        Console.WriteLine($"{"", -32} {string.Join(" ", terms.Keys.Select(by => $"{by, 14}"))}");
        Row("items retained of 12", term => term.Retained);
        Row("minutes above the ceiling", term => term.HighMinutes);
        Row("days over the ceiling's minutes", term => term.OverCapDays);
        Row("minutes of practice", term => term.Minutes);
        foreach (var by in new[] { TermPlan.SameList, TermPlan.SameNewest })
        {
            List<double> more = [.. terms[TermPlan.Planned].Zip(terms[by], (one, other) => one.Retained - other.Retained)];
            Console.WriteLine($"planned retains {Spread(more)} more than {by}, more for {more.Count(each => each > 0)} of {pupils}");
        }

        void Row(string name, Func<TermOutcome, double> of) =>
            Console.WriteLine(
                $"{name, -32} {string.Join(" ", terms.Values.Select(each => $"{Spread(each.ConvertAll(term => of(term))), 14}"))}"
            );
    }

    private static string Spread(List<double> values)
    {
        var mean = values.Average();
        var spread = Math.Sqrt(values.Sum(value => (value - mean) * (value - mean)) / (values.Count - 1));
        return string.Format(CultureInfo.InvariantCulture, "{0:0.0} ± {1:0.0}", mean, spread);
    }
}
