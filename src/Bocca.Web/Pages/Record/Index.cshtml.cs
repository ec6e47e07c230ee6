using Bocca.Web.Data;
using Bocca.Web.Frame;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Pages.Record;

/// <summary>Everything kept about a pupil.</summary>
public sealed class IndexModel(BoccaDb db) : StagePage(db)
{
    private const int Most = 200;

    public IReadOnlyList<Take> Takes { get; private set; } = [];

    public IReadOnlyList<ToneTake> Tones { get; private set; } = [];

    public IReadOnlyList<SavedNote> Notes { get; private set; } = [];

    public IReadOnlyList<AcceptedStep> Steps { get; private set; } = [];

    public async Task OnGetAsync()
    {
        Takes = await Db
            .Takes.AsNoTracking()
            .Where(take => take.PupilId == PupilId && take.Kept)
            .OrderByDescending(take => take.RecordedAt)
            .Take(Most)
            .ToListAsync();
        Tones = await Db
            .Tones.AsNoTracking()
            .Where(take => take.PupilId == PupilId && take.Kept)
            .OrderByDescending(take => take.RecordedAt)
            .Take(Most)
            .ToListAsync();
        Notes = await Db
            .Notes.AsNoTracking()
            .Where(note => note.PupilId == PupilId)
            .OrderByDescending(note => note.SavedAt)
            .Take(Most)
            .ToListAsync();
        Steps = await Db
            .Steps.AsNoTracking()
            .Where(step => step.PupilId == PupilId)
            .OrderByDescending(step => step.AcceptedAt)
            .Take(Most)
            .ToListAsync();
    }
}
