using System.Security.Cryptography;
using System.Text;
using Microsoft.AspNetCore.Diagnostics;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.Filters;

namespace Bocca.Web.Frame;

/// <summary>
/// Forms that save are answered one at a time, so that none is read before and written after another's change: as one process serves a
/// record, nothing that was acknowledged is lost. A form that comes again as it was, with the key that its page gave it, is answered as
/// the first time and saves nothing. A recording is heard in a turn of its own (<c>HeavyWork</c>) and not held up here.
/// </summary>
public sealed class SavesInTurn(TimeProvider time) : IAsyncResourceFilter, IDisposable
{
    /// <summary>The field in which a page gives its form a key.</summary>
    public const string KeyField = "once";

    /// <summary>So many answers are remembered, for so long (ours).</summary>
    private const int Most = 256;

    private static readonly TimeSpan Holds = TimeSpan.FromMinutes(10);

    /// <summary>A turn is waited for so long: every form together takes far less.</summary>
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(20);

    private readonly SemaphoreSlim _turn = new(1);
    private readonly Dictionary<string, (string Location, DateTimeOffset Until)> _answered = [];

    public async Task OnResourceExecutionAsync(ResourceExecutingContext context, ResourceExecutionDelegate next)
    {
        // Whoever sends slowly is waited for before the turn begins.
        var form =
            HttpMethods.IsPost(context.HttpContext.Request.Method) && !IsAnswered(context.HttpContext) ? await FormOfAsync(context) : null;
        if (form is null)
        {
            if (context.Result is null)
                await next();
            return;
        }

        if (!await _turn.WaitAsync(Patience))
        {
            context.HttpContext.Response.Headers.RetryAfter = $"{Patience.TotalSeconds:0}";
            context.Result = new ContentResult
            {
                StatusCode = StatusCodes.Status503ServiceUnavailable,
                Content = "Other forms are still being saved, and this one is not. Go back and send it again.",
            };
            return;
        }

        try
        {
            await AnswerAsync(context, KeyOf(context.HttpContext.Request, form), next);
        }
        finally
        {
            _turn.Release();
        }
    }

    public void Dispose() => _turn.Dispose();

    /// <summary>Whether the request was answered with a problem already, and a page only tells it.</summary>
    private static bool IsAnswered(HttpContext http) =>
        http.Features.Get<IStatusCodeReExecuteFeature>() is not null || http.Features.Get<IExceptionHandlerFeature>() is not null;

    private async Task AnswerAsync(ResourceExecutingContext context, string? key, ResourceExecutionDelegate next)
    {
        var now = time.GetUtcNow();
        if (key is not null && _answered.TryGetValue(key, out var before) && before.Until >= now)
        {
            context.Result = new LocalRedirectResult(before.Location);
            return;
        }

        await next();
        var response = context.HttpContext.Response;
        if (key is null || response.StatusCode != StatusCodes.Status302Found || response.Headers.Location.ToString() is not ['/', ..] to)
            return;
        foreach (var (old, answer) in _answered)
            if (answer.Until < now || _answered.Count >= Most)
                _answered.Remove(old);
        _answered[key] = (to, now + Holds);
    }

    /// <summary>What was sent; null for what is no form or carries a recording, and for what cannot be read, which is refused.</summary>
    private static async Task<IFormCollection?> FormOfAsync(ResourceExecutingContext context)
    {
        var request = context.HttpContext.Request;
        if (!request.HasFormContentType)
            return null;
        try
        {
            var form = await request.ReadFormAsync();
            return form.Files["sound"] is null ? form : null;
        }
        catch (Exception problem) when (problem is InvalidDataException or IOException and not BadHttpRequestException)
        {
            context.Result = new ContentResult
            {
                StatusCode = StatusCodes.Status422UnprocessableEntity,
                Content = "What was sent could not be read. Reload the page and send it again.",
            };
            return null;
        }
        catch (BadHttpRequestException)
        {
            // Too large: the page says so.
            return null;
        }
    }

    /// <summary>The key of a form with everything in it and where it goes; null for one without.</summary>
    private static string? KeyOf(HttpRequest request, IFormCollection form)
    {
        if (form[KeyField].ToString() is not { Length: > 0 } key)
            return null;
        var sent = new StringBuilder($"{key}\n{request.Path}{request.QueryString}\n");
        foreach (var (name, values) in form.OrderBy(field => field.Key, StringComparer.Ordinal))
            sent.Append(name).Append('=').AppendJoin('\u0001', values.ToArray()).Append('\n');
        foreach (var file in form.Files)
            sent.Append(file.Name).Append('/').Append(file.FileName).Append('/').Append(file.Length).Append('\n');
        return Convert.ToHexString(SHA256.HashData(Encoding.UTF8.GetBytes(sent.ToString())));
    }
}
