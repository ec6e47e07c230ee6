using Microsoft.AspNetCore.Diagnostics;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using Microsoft.Data.Sqlite;

namespace Bocca.Web.Pages;

/// <summary>What went wrong, in one sentence, with the way back.</summary>
[IgnoreAntiforgeryToken]
public sealed class ProblemModel : PageModel
{
    [BindProperty(SupportsGet = true)]
    public int Code { get; set; }

    private bool IsFull =>
        HttpContext.Features.Get<IExceptionHandlerFeature>()?.Error is { } error
        && (error as SqliteException ?? error.InnerException as SqliteException) is { SqliteErrorCode: 13 };

    public string Sentence =>
        Code switch
        {
            404 => "There is nothing at this address; the pupil or take may have been deleted.",
            400 => "The page could not be sent as it was. Go back, reload it and try once more.",
            413 => "That file is larger than 60 MB. Cut it into takes of at most 10 minutes.",
            _ when IsFull => "The disk is full, so nothing was saved. Make room; then go back and send it once more.",
            _ => "Something went wrong here. What was saved is safe; what you were doing may have to be done again.",
        };

    public void OnGet() { }

    public void OnPost() { }
}
