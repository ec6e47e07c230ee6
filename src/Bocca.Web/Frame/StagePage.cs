using Bocca.Core.Buzz;
using Bocca.Core.Practice;
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

    /// <summary>What holds for the room.</summary>
    public RoomSettings Room { get; private set; } = new();

    /// <summary>The approach in force for who is playing, or for the room.</summary>
    public Approach Approach { get; private set; } = new RoomSettings().Approach;

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

            Response.Cookies.Append(
                LastPupil,
                $"{asked}",
                new CookieOptions
                {
                    HttpOnly = true,
                    SameSite = SameSiteMode.Strict,
                    IsEssential = true,
                    MaxAge = TimeSpan.FromDays(30),
                }
            );
        }
        else if (int.TryParse(Request.Cookies[LastPupil], out var last))
        {
            Pupil = Everybody.FirstOrDefault(pupil => pupil.Id == last);
        }

        Room = await Db.RoomAsync();
        Approach = Pupil?.ApproachIn(Room) ?? Room.Approach;
        PageContext.ViewData["Frame"] = this;
        await next();
    }

    /// <summary>Takes an entry of the pupil from the record or brings it back, says so, and offers the way back.</summary>
    /// <param name="id">The entry.</param>
    /// <param name="deletedAt">When it goes; null to bring it back.</param>
    /// <param name="told">What the page says then.</param>
    /// <param name="undo">The handler of this page that does the opposite.</param>
    /// <returns>The entry; null where the pupil has none such.</returns>
    protected async Task<T?> MarkAsync<T>(int id, DateTime? deletedAt, string told, string undo)
        where T : class, IRecorded
    {
        if (
            await Db.Set<T>().IgnoreQueryFilters().FirstOrDefaultAsync(entry => entry.Id == id && entry.PupilId == PupilId) is not { } entry
        )
            return null;
        entry.DeletedAt = deletedAt;
        await Db.SaveChangesAsync();
        TempData["Told"] = told;
        TempData["UndoAt"] = $"{Request.Path}?handler={undo}&id={id}";
        return entry;
    }

    /// <summary>Accepts a step for the pupil: whatever was open before it is done with.</summary>
    protected async Task AcceptAsync(NextPlace place, NextStep next, DateTime now, int? takeId = null)
    {
        foreach (var open in await Db.Steps.Where(step => step.PupilId == PupilId && step.DoneAt == null).ToListAsync())
            open.DoneAt = now;
        Db.Steps.Add(
            new AcceptedStep
            {
                PupilId = PupilId!.Value,
                TakeId = takeId,
                Place = place,
                DrillId = next.DrillId,
                Cue = next.Cue,
                Reason = next.Reason,
                AcceptedAt = now,
            }
        );
        await Db.SaveChangesAsync();
    }

    /// <summary>Refuses what was sent, in one sentence.</summary>
    protected static ContentResult Refuse(string sentence) =>
        new()
        {
            StatusCode = StatusCodes.Status422UnprocessableEntity,
            Content = sentence,
            ContentType = "text/plain; charset=utf-8",
        };
}
