using Bocca.Core.Practice;
using Bocca.Web.Record;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Pages.Ear;

/// <summary>What was missed comes back: rhythm values and questions for the ear on the schedule that the hand's notes have.</summary>
public static class Recalled
{
    /// <summary>The cards of a pupil of one sort.</summary>
    /// <param name="journal">The record.</param>
    /// <param name="pupilId">Whose.</param>
    /// <param name="of"><see cref="EarStop.OfValues"/> or <see cref="EarStop.OfEar"/>.</param>
    public static IQueryable<RecallCard> RecalledOf(this Journal journal, int pupilId, string of) =>
        journal.Db.Recalls.Where(card => card.PupilId == pupilId && card.InstrumentId == of);

    /// <summary>Takes answers in.</summary>
    /// <param name="journal">The record.</param>
    /// <param name="pupilId">Whose.</param>
    /// <param name="of">Of what sort.</param>
    /// <param name="answers">What was asked, and whether it came.</param>
    /// <param name="onlyMissed">Whether what was never missed needs no card.</param>
    public static Task RecallAsync(
        this Journal journal,
        int pupilId,
        string of,
        IReadOnlyList<(string Item, bool Came)> answers,
        bool onlyMissed
    ) =>
        journal.Db.SavingAsync(async () =>
        {
            foreach (var (item, came) in answers)
            {
                var card = await journal.RecalledOf(pupilId, of).AsTracking().FirstOrDefaultAsync(known => known.Item == item);
                if (card is null && came && onlyMissed)
                    continue;
                if (card is null)
                    journal.Db.Recalls.Add(
                        card = new RecallCard
                        {
                            PupilId = pupilId,
                            InstrumentId = of,
                            Item = item,
                        }
                    );
                card.Answer(came ? RecallGrade.Good : RecallGrade.Again, journal.Clock.Now, journal.Clock);
            }
        });
}
