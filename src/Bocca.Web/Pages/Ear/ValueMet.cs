using Bocca.Core.Counting;
using Bocca.Web.Record;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Pages.Ear;

/// <summary>What may stand in a pupil's cards.</summary>
/// <param name="Value">The value.</param>
/// <param name="Met">Whether it was introduced.</param>
/// <param name="Due">Whether it is due again.</param>
/// <param name="Said">How much of it was said in its place lately, 0 to 1; null for nothing yet.</param>
/// <param name="Clapped">The same of the hands.</param>
public sealed record ValueMet(RhythmValue Value, bool Met, bool Due, double? Said, double? Clapped);

/// <summary>Which values a pupil has met, and how they come.</summary>
public static class ValuesMet
{
    private const int FiguresThatCount = 400;

    /// <summary>The values that may stand in a pupil's cards: those introduced, or the first of the stage.</summary>
    private static async Task<IReadOnlyList<RhythmValue>> IntroducedAsync(this Journal journal, Pupil pupil)
    {
        var known = await journal.RecalledOf(pupil.Id, EarStop.OfValues).Select(card => card.Item).ToListAsync();
        return known.Count > 0 ? [.. RhythmValue.All.Where(value => known.Contains(value.Id))] : RhythmValue.MetBy(pupil.Stage);
    }

    /// <summary>Introduces a value, or takes it back.</summary>
    public static async Task IntroduceAsync(this Journal journal, Pupil pupil, RhythmValue value, bool met)
    {
        await journal.NameIntroducedAsync(pupil);
        // What is new is due at once.
        await journal.SetAsync(pupil, value, met, journal.Clock.Now);
        await journal.Db.SaveChangesAsync();
    }

    /// <summary>What holds by the stage alone holds by name from now on, so that one value more does not put the others out.</summary>
    public static async Task NameIntroducedAsync(this Journal journal, Pupil pupil)
    {
        var tomorrow = journal.Clock.StartOf(journal.Clock.Today.AddDays(1));
        foreach (var known in await journal.IntroducedAsync(pupil))
            await journal.SetAsync(pupil, known, met: true, tomorrow);
        await journal.Db.SaveChangesAsync();
    }

    private static async Task SetAsync(this Journal journal, Pupil pupil, RhythmValue value, bool met, DateTime due)
    {
        var card = await journal.RecalledOf(pupil.Id, EarStop.OfValues).FirstOrDefaultAsync(known => known.Item == value.Id);
        if (card is not null && !met)
            journal.Db.Recalls.Remove(card);
        if (card is null && met)
            journal.Db.Recalls.Add(
                new RecallCard
                {
                    PupilId = pupil.Id,
                    InstrumentId = EarStop.OfValues,
                    Item = value.Id,
                    SeenAt = journal.Clock.Now,
                    DueAt = due,
                }
            );
    }

    /// <summary>All values, with how much of each was said and clapped in its place lately.</summary>
    public static async Task<IReadOnlyList<ValueMet>> ValuesMetAsync(this Journal journal, Pupil pupil)
    {
        var known = await journal.IntroducedAsync(pupil);
        var now = journal.Clock.Now;
        var due = await journal
            .RecalledOf(pupil.Id, EarStop.OfValues)
            .Where(card => card.DueAt <= now)
            .Select(card => card.Item)
            .ToListAsync();
        var names = new[] { CountFigures.Said.Name, CountFigures.Clapped.Name };
        var figures = await journal
            .Db.Figures.AsNoTracking()
            .Where(figure => figure.PupilId == pupil.Id && names.Contains(figure.Name))
            .OrderByDescending(figure => figure.At)
            .Take(FiguresThatCount)
            .Select(figure => new
            {
                figure.Name,
                figure.Item,
                figure.Value,
                figure.Count,
            })
            .ToListAsync();
        double? Share(RhythmValue value, string name)
        {
            var own = figures.Where(figure => figure.Item == value.Id && figure.Name == name).ToList();
            return own.Count == 0 ? null : own.Sum(figure => figure.Value * figure.Count) / own.Sum(figure => figure.Count);
        }

        return
        [
            .. RhythmValue.All.Select(value => new ValueMet(
                value,
                known.Contains(value),
                due.Contains(value.Id),
                Share(value, CountFigures.Said.Name),
                Share(value, CountFigures.Clapped.Name)
            )),
        ];
    }
}
