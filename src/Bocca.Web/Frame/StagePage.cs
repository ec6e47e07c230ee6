using Bocca.Core;
using Bocca.Core.Buzz.Measures;
using Bocca.Core.Health;
using Bocca.Core.Judging;
using Bocca.Core.Practice.Lesson;
using Bocca.Core.Slurs;
using Bocca.Core.Sound;
using Bocca.Core.Teaching;
using Bocca.Web.Live;
using Bocca.Web.Pages.Practice;
using Bocca.Web.Record;
using Bocca.Web.Record.Shapes;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.Filters;
using Microsoft.AspNetCore.Mvc.RazorPages;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Frame;

/// <summary>
/// A page of the frame: it knows who is playing. The pupil stands in the address; without one, the pupil chosen last
/// is taken, from a cookie.
/// </summary>
public abstract class StagePage(Journal journal) : PageModel
{
    private const string LastPupil = "bocca.pupil";

    protected Journal Journal { get; } = journal;

    protected BoccaDb Db { get; } = journal.Db;

    /// <summary>What time and what day it is in the room.</summary>
    public RoomClock Clock { get; } = journal.Clock;

    /// <summary>The path.</summary>
    public Stops Stops { get; } = journal.Stops;

    /// <summary>The pupil in the address: no field of a form stands for it.</summary>
    [BindProperty(SupportsGet = true)]
    [FromRoute]
    public int? PupilId { get; set; }

    /// <summary>Who is playing, or nobody yet.</summary>
    public Pupil? Pupil { get; private set; }

    /// <summary>What holds for the room.</summary>
    public RoomSettings Room { get; private set; } = new();

    /// <summary>The approach in force for who is playing, or for the room.</summary>
    public Approach Approach { get; protected set; } = new RoomSettings().Approach;

    /// <summary>What the teacher has set otherwise than it ships: for the pupil, over the room's.</summary>
    public OwnSettings TeachersOwn { get; protected set; } = OwnSettings.None;

    /// <summary>The symptoms and cues that hold.</summary>
    public SymptomTable Symptoms => TeachersOwn.Symptoms();

    /// <summary>What is good enough at each stage.</summary>
    public BandTable Bands => BandTable.Shipped.With(TeachersOwn);

    /// <summary>What the changes of a slur may cost at each stage.</summary>
    public SlurBandTable SlurBands => SlurBandTable.Shipped.With(TeachersOwn);

    /// <summary>What notes and note values are called here, by what is printed; empty where that is the same.</summary>
    public IReadOnlyDictionary<string, string> Names => Wording.Names(Approach, Pupil);

    /// <summary>What today's complaints leave of the pupil's day.</summary>
    public HealthDay Health { get; private set; } = HealthDay.Well;

    /// <summary>How long the pupil has played since the last rest; null where it is not shown.</summary>
    public PlayingClock? Playing { get; protected set; }

    /// <summary>The lesson that is on with the pupil; null for none.</summary>
    public Shown<LessonPayload>? Lesson { get; private set; }

    /// <summary>The round of a class that is on; null for none.</summary>
    public ClassRound? Round { get; private set; }

    /// <summary>What to do after the third time through in a lesson; null where there is nothing to say.</summary>
    public ThirdTime? Third { get; protected set; }

    /// <summary>The page that answers a request; what is shown without the frame has no other way to it.</summary>
    public static StagePage? Of(HttpContext context) => context.Items[typeof(StagePage)] as StagePage;

    /// <summary>Whether anybody is there yet.</summary>
    public bool HasPupils { get; private set; }

    // Named as handlers are, it would be one for whoever sends a request of the method PAGE.
    [NonHandler]
    public override async Task OnPageHandlerExecutionAsync(PageHandlerExecutingContext context, PageHandlerExecutionDelegate next)
    {
        // A page that has nothing for what was sent was asked for something else: shown without its handler it would be empty.
        if (context.HandlerMethod is null && (!HttpMethods.IsGet(Request.Method) || Request.Query.ContainsKey("handler")))
        {
            context.Result = NotFound();
            return;
        }

        if (PupilId is { } asked)
        {
            Pupil = await PupilAsync(asked);
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
            Pupil = await PupilAsync(last);
        }

        // What is done to a pupil names the pupil: whoever was chosen last, in another tab, may be somebody else.
        if (PupilId is null && IsDoneToPupil && !HttpMethods.IsGet(Request.Method))
        {
            context.Result = NotFound();
            return;
        }

        if (!ModelState.IsValid && !ChecksItself)
        {
            // Who opens a page sees one; what a script asked for is answered in a sentence.
            var opened = HttpMethods.IsGet(Request.Method) && !Request.Query.ContainsKey("handler");
            context.Result = opened
                ? StatusCode(StatusCodes.Status400BadRequest)
                : await BackToFormAsync(Refuse(WhatIsWrong()), ModelState.First(field => field.Value!.Errors.Count > 0).Key);
            return;
        }

        HasPupils = Pupil is not null || await Db.Pupils.AnyAsync();
        Room = await Db.RoomAsync();
        Approach = Pupil?.ApproachIn(Room) ?? Room.Approach;
        TeachersOwn = Pupil?.SettingsIn(Room) ?? StoredOwn.Read(Room.Own);
        Health = Pupil is null ? HealthDay.Well : await Journal.HealthDayAsync(Pupil);
        Lesson = Pupil is null ? null : await Journal.LessonAsync(Pupil.Id);
        Round = Request.Cookies[ClassRound.Cookie] is { } round ? await ClassRound.OfCookieAsync(Journal, round) : null;
        PageContext.ViewData["Frame"] = this;
        HttpContext.Items[typeof(StagePage)] = this;
        var done = await next();
        if (done is { Exception: BusyException busy, ExceptionHandled: false })
        {
            done.ExceptionHandled = true;
            Response.Headers.RetryAfter = "10";
            done.Result = Refuse(busy.Message, StatusCodes.Status503ServiceUnavailable);
        }

        // Two at once at the same thing: whoever comes second is asked, and nothing of the first is lost.
        if (done is { Exception: DbUpdateException problem, ExceptionHandled: false } && !IsFull(problem))
        {
            done.ExceptionHandled = true;
            done.Result = Refuse(
                "The same was saved somewhere else at this moment. Reload the page, and send yours once more if it is still wanted.",
                StatusCodes.Status409Conflict
            );
        }

        if (done is { Result: ContentResult { StatusCode: >= StatusCodes.Status400BadRequest } refused })
            done.Result = await BackToFormAsync(refused, "");
    }

    /// <summary>
    /// Leads back to the page whose form was refused, where it stands as it was typed with the sentence beside it. What a script sent is
    /// answered in the sentence alone.
    /// </summary>
    private async Task<IActionResult> BackToFormAsync(ContentResult refused, string field)
    {
        if (!RefusedForms.IsForm(Request))
            return refused;
        var forms = HttpContext.RequestServices.GetRequiredService<RefusedForms>();
        TempData["Refused"] = await forms.HoldAsync(Request, refused.Content ?? "", field);
        return Uri.TryCreate(Request.Headers.Referer, UriKind.Absolute, out var from) && from.Authority == Request.Host.Value
            ? LocalRedirect(from.PathAndQuery)
            : LocalRedirect(Request.Path);
    }

    /// <summary>Whether what is sent to the page is about a pupil: where the address can hold one, it needs one.</summary>
    protected virtual bool IsDoneToPupil => PageContext.ActionDescriptor.AttributeRouteInfo?.Template?.Contains("{pupilId") == true;

    /// <summary>Whether the page itself says what is wrong with what it was sent.</summary>
    protected virtual bool ChecksItself => false;

    private string WhatIsWrong()
    {
        var (name, entry) = ModelState.First(field => field.Value!.Errors.Count > 0);
        return string.IsNullOrEmpty(entry!.AttemptedValue) ? $"The {name} is missing." : $"'{entry.AttemptedValue}' cannot be the {name}.";
    }

    private static bool IsFull(DbUpdateException problem) => problem.InnerException is SqliteException { SqliteErrorCode: 13 };

    private Task<Pupil?> PupilAsync(int id) => Db.Pupils.AsNoTracking().FirstOrDefaultAsync(pupil => pupil.Id == id);

    /// <summary>Hears a recording in its turn; what is waiting already may be too much.</summary>
    /// <param name="sound">The recording.</param>
    /// <param name="hear">What is done with it.</param>
    protected Task<IActionResult> InTurnAsync(IFormFile sound, Func<Task<IActionResult>> hear)
    {
        // At two bytes a sample; a sound of fewer samples a second lasts longer, and is no more work.
        const double BytesASecond = 2 * 44100;
        return HttpContext
            .RequestServices.GetRequiredService<HeavyWork>()
            .RunAsync(sound.Length / BytesASecond, hear, HttpContext.RequestAborted);
    }

    /// <summary>Makes a sound, or refuses it in a sentence, in its turn as well.</summary>
    /// <param name="seconds">How much sound it is.</param>
    /// <param name="play">What makes it.</param>
    protected Task<IActionResult> PlayedInTurnAsync(double seconds, Func<IActionResult> play) =>
        RefusingAsync(() =>
        {
            RefuseTooLong(seconds);
            return HttpContext
                .RequestServices.GetRequiredService<HeavyWork>()
                .RunAsync(seconds, () => Task.Run(() => Refusing(play)), HttpContext.RequestAborted);
        });

    /// <summary>Sees to it that a take can be recorded at all, with its count-in and its end.</summary>
    /// <param name="seconds">How long it lasts.</param>
    /// <exception cref="ArgumentException">No recording holds it.</exception>
    protected static void RefuseTooLong(double seconds)
    {
        if (seconds > WavFile.MaximumTakeSeconds)
            throw new ArgumentException(
                $"This would last {seconds / 60:0.0} minutes. A take lasts at most {WavFile.MaximumTakeSeconds / 60:0.0} minutes: "
                    + "choose fewer notes, fewer times or a faster tempo."
            );
    }

    /// <summary>Refuses what was sent, in one sentence.</summary>
    protected static ContentResult Refuse(string sentence, int code = StatusCodes.Status422UnprocessableEntity) =>
        new()
        {
            StatusCode = code,
            Content = OneLine.Of(sentence),
            ContentType = "text/plain; charset=utf-8",
        };

    /// <summary>The field in which a form says what it was shown from, so that a change from another tab is told and not lost.</summary>
    public const string SeenField = "seen";

    /// <summary>A refusal where what a form was shown from has been changed since by somebody else; null where it has not.</summary>
    /// <param name="what">What it is, in words: <c>the approach</c>.</param>
    /// <param name="now">How it stands now, as the form was shown it.</param>
    /// <param name="since">What differs from how it was shown, in words.</param>
    protected ContentResult? ChangedSince(string what, string now, Func<string, string> since)
    {
        if (!Request.HasFormContentType || !Request.Form.TryGetValue(SeenField, out var seen) || seen.ToString() == now)
            return null;
        return Refuse(
            $"{what} was changed in another tab meanwhile: {since(seen.ToString())}. Your changes are not saved yet. Save again to "
                + "replace the other version, or reload the page to keep it.",
            StatusCodes.Status409Conflict
        );
    }

    /// <summary>Does what was asked, or refuses it in the sentence of what stood against it.</summary>
    protected static async Task<IActionResult> RefusingAsync(Func<Task<IActionResult>> act)
    {
        try
        {
            return await act();
        }
        catch (Exception problem) when (problem is ArgumentException or InvalidDataException or FormatException)
        {
            return Refuse(OneLine.Of(problem));
        }
    }

    /// <summary>The same for what is there at once.</summary>
    protected static IActionResult Refusing(Func<IActionResult> act)
    {
        try
        {
            return act();
        }
        catch (Exception problem) when (problem is ArgumentException or InvalidDataException or FormatException)
        {
            return Refuse(OneLine.Of(problem));
        }
    }
}
