using Bocca.Web.Frame;
using Microsoft.AspNetCore.Diagnostics;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using Microsoft.Data.Sqlite;

namespace Bocca.Web.Pages;

/// <summary>What went wrong, in one sentence, with the way back.</summary>
[IgnoreAntiforgeryToken]
public sealed class ProblemModel(Stops stops) : PageModel
{
    /// <summary>From the address alone: what was sent may be what cannot be read.</summary>
    private int Code => int.TryParse(RouteData.Values["code"]?.ToString(), out var code) ? code : 0;

    /// <summary>What the page asked for takes at most, as it was before this page stood in its place.</summary>
    private string TooMuch =>
        HttpContext.Features.Get<IStatusCodeReExecuteFeature>()?.Endpoint?.Metadata.GetMetadata<UploadLimitAttribute>()?.TooMuch
        ?? "That is more than this page takes. Send less of it.";

    /// <summary>Whether a script asked, which shows a sentence and has no use for a page.</summary>
    private bool OfScript =>
        Request.Headers.ContainsKey("X-Antiforgery")
        || (HttpContext.Features.Get<IStatusCodeReExecuteFeature>()?.OriginalQueryString ?? $"{Request.QueryString}").Contains(
            "handler=",
            StringComparison.Ordinal
        )
            && Request.Headers["Sec-Fetch-Mode"] != "navigate"
            && HttpMethods.IsGet(Request.Method);

    private bool IsFull =>
        HttpContext.Features.Get<IExceptionHandlerFeature>()?.Error is { } error
        && (error as SqliteException ?? error.InnerException as SqliteException) is { SqliteErrorCode: 13 };

    /// <summary>What is missing, by the address asked: a pupil by number, something of a pupil, or the page.</summary>
    private string Missing
    {
        get
        {
            var asked = HttpContext.Features.Get<IStatusCodeReExecuteFeature>();
            var parts = (asked?.OriginalPath ?? "").Split('/', StringSplitOptions.RemoveEmptyEntries);
            var place = stops.All.FirstOrDefault(stop => stop.Place == parts.FirstOrDefault());
            if (place is null && parts.FirstOrDefault() is not ("pupils" or "record" or "health" or "approach"))
                return "There is no such page. Check the address, or go on from the Desk.";
            if (parts.FirstOrDefault(part => int.TryParse(part, out _)) is not { } number)
                return $"There is no such page{(place is null ? "" : $" of {place.Name}")}. Check the address, or go on from the Desk.";
            if (parts[^1] != number || asked?.OriginalQueryString?.Contains('=', StringComparison.Ordinal) == true)
                return "What you asked for is not in this room: it may have been deleted. The Desk has all pupils.";
            return $"There is no pupil {number} in this room: deleted, or the address has another number. The Desk has all pupils.";
        }
    }

    public string Sentence =>
        Code switch
        {
            404 => Missing,
            400 => "The page could not be sent as it was. Go back, reload it and try once more.",
            413 => TooMuch,
            _ when IsFull => "The disk is full, so nothing was saved. Make room; then go back and send it once more.",
            _ => "Something went wrong here. What was saved is safe; what you were doing may have to be done again.",
        };

    /// <summary>Nothing was asked that could have a problem: somebody typed the address of this page.</summary>
    private bool IsTyped =>
        HttpContext.Features.Get<IStatusCodeReExecuteFeature>() is null && HttpContext.Features.Get<IExceptionHandlerFeature>() is null;

    public IActionResult OnGet() =>
        IsTyped ? NotFound()
        : OfScript ? Content(Sentence, "text/plain; charset=utf-8")
        : Page();

    public IActionResult OnPost() => OnGet();
}
