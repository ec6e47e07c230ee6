using Bocca.Core;
using Bocca.Core.Counting;
using Bocca.Core.Score;
using Bocca.Core.Teaching;
using Bocca.Web.Frame;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;

namespace Bocca.Web.Pages.Ear;

/// <summary>Rhythm cards for a class: one at a time, large; all say and clap, nobody is scored.</summary>
public sealed class ClassCardsModel(Journal journal) : StagePage(journal)
{
    private const int Cards = 30;

    [BindProperty(SupportsGet = true, Name = "metre")]
    public string? MetreText { get; set; }

    /// <summary>The hardest value that may come, by its place in the order in which they are taught, from 1.</summary>
    [BindProperty(SupportsGet = true, Name = "upto")]
    public int? UpTo { get; set; }

    [BindProperty(SupportsGet = true, Name = "tempo")]
    public double? Tempo { get; set; }

    [BindProperty(SupportsGet = true, Name = "bars")]
    public int? Bars { get; set; }

    [BindProperty(SupportsGet = true, Name = "seed")]
    public int? Seed { get; set; }

    /// <summary>The cards, the easiest first, with what is counted under them.</summary>
    public IReadOnlyList<(RhythmCard Card, string ScoreXml)> All { get; private set; } = [];

    public Metre Metre { get; private set; } = Metre.Common;

    public double Beat => Math.Clamp(Tempo ?? 72, CuePlan.TempoRange.Slowest, CuePlan.TempoRange.Fastest);

    public int Last => Math.Clamp(UpTo ?? 5, 1, RhythmValue.All.Count);

    public string? Trouble { get; private set; }

    public IActionResult OnGet()
    {
        try
        {
            Metre = Metre.Parse(MetreText ?? $"{Metre.Common}");
            var values = RhythmValue.All.Take(Last).ToList();
            var bars = Math.Clamp(Bars ?? 1, 1, 4);
            var seed = Seed ?? 1;
            var names = Approach.Of(Points.TimeNames);
            All =
            [
                .. Enumerable
                    .Range(0, Cards)
                    .Select(i => CardWriter.Write(Metre, values, bars, (seed * Cards) + i, [values[i % values.Count]]))
                    .DistinctBy(card => card.Text)
                    .OrderBy(card => CardDifficulty.Of(card).Points)
                    .Select(card => (card, CardScore.Write(card, Counts.Of(card, names)))),
            ];
        }
        catch (ArgumentException problem)
        {
            Trouble = OneLine.Of(problem);
        }

        return Page();
    }
}
