using Bocca.Web.Data;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.Filters;
using Microsoft.AspNetCore.Mvc.RazorPages;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Frame;

/// <summary>
/// A page of the frame: it knows who is playing. The pupil stands in the address; without one, the pupil chosen last
/// is taken, from a cookie.
/// </summary>
public abstract class StagePage(BoccaDb db) : PageModel
{
    private const string LastPupil = "bocca.pupil";

    protected BoccaDb Db { get; } = db;

    [BindProperty(SupportsGet = true)]
    public int? PupilId { get; set; }

    /// <summary>Who is playing, or nobody yet.</summary>
    public Pupil? Pupil { get; private set; }

    /// <summary>Everybody, for the finder.</summary>
    public IReadOnlyList<Pupil> Everybody { get; private set; } = [];

    public override async Task OnPageHandlerExecutionAsync(PageHandlerExecutingContext context, PageHandlerExecutionDelegate next)
    {
        Everybody = await Db.Pupils.AsNoTracking().OrderBy(pupil => pupil.Name).ToListAsync();
        if (PupilId is { } asked)
        {
            Pupil = Everybody.FirstOrDefault(pupil => pupil.Id == asked);
            if (Pupil is null)
            {
                context.Result = NotFound();
                return;
            }

            Response.Cookies.Append(LastPupil, $"{asked}", new CookieOptions { HttpOnly = true, SameSite = SameSiteMode.Strict, IsEssential = true, MaxAge = TimeSpan.FromDays(30) });
        }
        else if (int.TryParse(Request.Cookies[LastPupil], out var last))
        {
            Pupil = Everybody.FirstOrDefault(pupil => pupil.Id == last);
        }

        PageContext.ViewData["Frame"] = this;
        await next();
    }
}
