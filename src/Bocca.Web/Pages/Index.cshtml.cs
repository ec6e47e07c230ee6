using Bocca.Core.Practice;
using Bocca.Web.Data;
using Bocca.Web.Frame;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Pages;

/// <summary>A pupil on the Desk.</summary>
public sealed record DeskLine(Pupil Pupil, string Playing, string? LastHeard, string? LastWhen, AcceptedStep? Due, IReadOnlyList<double> Steadiness);

/// <summary>The Desk: everybody, what was heard last, and what is due.</summary>
public sealed class IndexModel(BoccaDb db, TimeProvider time) : StagePage(db)
{
    private const int PastTakes = 8;

    public IReadOnlyList<DeskLine> Lines { get; private set; } = [];

    public async Task OnGetAsync()
    {
        var now = time.GetUtcNow().UtcDateTime;
        var today = DateOnly.FromDateTime(time.GetLocalNow().Date);
        var heard = (await Db.Pupils.AsNoTracking()
            .Select(pupil => new
            {
                pupil.Id,
                Takes = pupil.Takes.Where(take => take.Kept).OrderByDescending(take => take.RecordedAt).Take(PastTakes).Select(take => new { take.Summary, take.RecordedAt, take.SteadinessCents }).ToList(),
                Due = pupil.Steps.Where(step => step.DoneAt == null).OrderByDescending(step => step.AcceptedAt).FirstOrDefault(),
            }).ToListAsync()).ToDictionary(line => line.Id);
        Lines = [.. Everybody.Select(pupil =>
        {
            var line = heard[pupil.Id];
            var last = line.Takes.FirstOrDefault();
            return new DeskLine(
                pupil,
                PlayingTime.InWords(pupil.Started, today),
                last?.Summary,
                last is null ? null : Say.Ago(last.RecordedAt, now),
                line.Due,
                [.. line.Takes.Select(take => take.SteadinessCents).OfType<double>().Reverse()]);
        })];
    }
}
