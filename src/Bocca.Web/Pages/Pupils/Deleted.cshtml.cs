using Bocca.Web.Frame;
using Bocca.Web.Record;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Pages.Pupils;

/// <summary>Pupils who were deleted and can still be brought back.</summary>
public sealed class DeletedModel(Journal journal) : StagePage(journal)
{
    private const int AtMost = 200;

    /// <summary>They, the last deleted first.</summary>
    public IReadOnlyList<Pupil> Gone { get; private set; } = [];

    /// <summary>The day on which a deleted pupil is erased.</summary>
    public DateOnly ErasedOn(Pupil pupil) => Clock.DayOf(pupil.DeletedAt!.Value.AddDays(Erasing.Days));

    public async Task OnGetAsync() =>
        Gone = await Db
            .Pupils.IgnoreQueryFilters()
            .AsNoTracking()
            .Where(pupil => pupil.DeletedAt != null)
            .OrderByDescending(pupil => pupil.DeletedAt)
            .Take(AtMost)
            .ToListAsync();
}
