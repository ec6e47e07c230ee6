using Bocca.Core.Buzz;
using Bocca.Core.Practice;
using Bocca.Core.Slurs;
using Bocca.Web.Data;
using Bocca.Web.Frame;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Pages;

/// <summary>A pupil on the Desk.</summary>
public sealed record DeskLine(
    Pupil Pupil,
    string Playing,
    string? LastHeard,
    string? LastWhen,
    AcceptedStep? Due,
    IReadOnlyList<double> Steadiness,
    int NotesDue,
    int SlursDue
);

/// <summary>The Desk: everybody, what was heard last, and what is due.</summary>
public sealed class IndexModel(BoccaDb db, TimeProvider time) : StagePage(db)
{
    private const int PastTakes = 8;

    public IReadOnlyList<DeskLine> Lines { get; private set; } = [];

    public async Task OnGetAsync()
    {
        var now = time.GetUtcNow().UtcDateTime;
        var today = DateOnly.FromDateTime(time.GetLocalNow().Date);
        var recent = (await RecentTakesAsync()).ToLookup(take => take.PupilId);
        var played = (await LastTonesAsync()).Concat(await LastSlursAsync()).ToLookup(take => take.PupilId);
        var due = (await Db.Steps.AsNoTracking().Where(step => step.DoneAt == null).OrderBy(step => step.AcceptedAt).ToListAsync())
            .GroupBy(step => step.PupilId)
            .ToDictionary(steps => steps.Key, steps => steps.Last());
        var recall = await Db
            .Recalls.Where(card => card.DueAt <= now)
            .GroupBy(card => card.PupilId)
            .Select(cards => new { cards.Key, Count = cards.Count() })
            .ToDictionaryAsync(cards => cards.Key, cards => cards.Count);
        var slurs = (await SlursDueAsync(now.AddDays(-SlurDay.DueDays))).ToDictionary(due => due.PupilId, due => due.Count);
        Lines =
        [
            .. Everybody.Select(pupil =>
            {
                var takes = recent[pupil.Id].ToList();
                var last = takes.Take(1).Concat(played[pupil.Id]).MaxBy(take => take.RecordedAt);
                return new DeskLine(
                    pupil,
                    PlayingTime.InWords(pupil.Started, today),
                    last?.Summary,
                    last is null ? null : Say.Ago(DateTime.SpecifyKind(last.RecordedAt, DateTimeKind.Utc), now),
                    due.GetValueOrDefault(pupil.Id),
                    [.. takes.Select(take => take.SteadinessCents).OfType<double>().Reverse()],
                    recall.GetValueOrDefault(pupil.Id),
                    slurs.GetValueOrDefault(pupil.Id)
                );
            }),
        ];
    }

    /// <summary>
    /// The last few kept takes of every pupil, newest first. A window over all takes would read the whole record;
    /// this asks the index once a pupil.
    /// </summary>
    private Task<List<RecentTake>> RecentTakesAsync() =>
        Db
            .Database.SqlQuery<RecentTake>(
                $"""
                SELECT t.PupilId, t.Summary, t.RecordedAt, t.SteadinessCents
                FROM Pupils p JOIN Takes t ON t.Id IN (
                    SELECT r.Id FROM Takes r WHERE r.PupilId = p.Id AND r.Kept AND r.DeletedAt IS NULL
                        ORDER BY r.RecordedAt DESC LIMIT {PastTakes})
                WHERE p.DeletedAt IS NULL
                ORDER BY t.RecordedAt DESC
                """
            )
            .ToListAsync();

    /// <summary>The last kept take of notes of every pupil.</summary>
    private Task<List<RecentTake>> LastTonesAsync() =>
        Db
            .Database.SqlQuery<RecentTake>(
                $"""
                SELECT t.PupilId, t.Summary, t.RecordedAt, NULL AS SteadinessCents
                FROM Pupils p JOIN Tones t ON t.Id = (
                    SELECT r.Id FROM Tones r WHERE r.PupilId = p.Id AND r.Kept AND r.DeletedAt IS NULL ORDER BY r.RecordedAt DESC LIMIT 1)
                WHERE p.DeletedAt IS NULL
                """
            )
            .ToListAsync();

    /// <summary>The last kept take of a slur of every pupil.</summary>
    private Task<List<RecentTake>> LastSlursAsync() =>
        Db
            .Database.SqlQuery<RecentTake>(
                $"""
                SELECT t.PupilId, t.Summary, t.RecordedAt, NULL AS SteadinessCents
                FROM Pupils p JOIN Slurs t ON t.Id = (
                    SELECT r.Id FROM Slurs r WHERE r.PupilId = p.Id AND r.Kept AND r.DeletedAt IS NULL ORDER BY r.RecordedAt DESC LIMIT 1)
                WHERE p.DeletedAt IS NULL
                """
            )
            .ToListAsync();

    /// <summary>How many slurs each pupil could do when they were last played, before a moment.</summary>
    private Task<List<DueSlurs>> SlursDueAsync(DateTime before) =>
        Db
            .Database.SqlQuery<DueSlurs>(
                $"""
                SELECT last.PupilId, COUNT(*) AS Count
                FROM (SELECT s.PupilId, s.SlurId, s.Outcome, MAX(s.RecordedAt) AS RecordedAt
                      FROM Slurs s JOIN Pupils p ON p.Id = s.PupilId AND p.InstrumentId = s.InstrumentId
                      WHERE s.Kept AND s.DeletedAt IS NULL GROUP BY s.PupilId, s.SlurId) last
                WHERE last.RecordedAt <= {before} AND last.Outcome = {nameof(TakeOutcome.Passed)}
                GROUP BY last.PupilId
                """
            )
            .ToListAsync();

    private sealed record DueSlurs(int PupilId, int Count);

    private sealed record RecentTake(int PupilId, string Summary, DateTime RecordedAt, double? SteadinessCents);
}
