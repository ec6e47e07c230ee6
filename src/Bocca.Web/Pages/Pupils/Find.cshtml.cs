using Bocca.Web.Frame;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Pages.Pupils;

/// <summary>Pupils by a part of their name, each with where the present stop is for them: what the finder shows.</summary>
public sealed class FindModel(BoccaDb db, Stops stops) : PageModel
{
    private const int AtMost = 30;

    /// <summary>A part of the name, in any case; nothing for everybody.</summary>
    [BindProperty(SupportsGet = true, Name = "name")]
    public string? Sought { get; set; }

    /// <summary>The stop that links lead to.</summary>
    [BindProperty(SupportsGet = true, Name = "place")]
    public string? Place { get; set; }

    public IReadOnlyList<(Pupil Pupil, string Address)> Found { get; private set; } = [];

    /// <summary>How many more there are than shown.</summary>
    public int More { get; private set; }

    public async Task OnGetAsync()
    {
        var all = await db.Pupils.AsNoTracking().OrderBy(pupil => pupil.Name).ThenBy(pupil => pupil.Id).ToListAsync();
        var fitting = all.FindAll(pupil => pupil.Name.Contains(Sought?.Trim() ?? "", StringComparison.OrdinalIgnoreCase));
        // At the Desk a pupil's work begins with the buzz.
        var stop = stops.At(Place ?? "") is { Path: not "" } here ? here : stops.At("buzz")!;
        Found = [.. fitting.Take(AtMost).Select(pupil => (pupil, stop.Address(pupil.Id)))];
        More = fitting.Count - Found.Count;
    }
}
