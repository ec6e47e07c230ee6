using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.Filters;

namespace Bocca.Web.Frame;

/// <summary>
/// What a script sends with a key in its header is done once: the same sent again, while the first is on or after its answer was lost on
/// the way, gets the first one's answer. A refusal is not held: what was refused may be sent again.
/// </summary>
public sealed class SentOnce(TimeProvider time) : IAsyncResourceFilter
{
    /// <summary>The header in which a script gives its key, a random UUID.</summary>
    public const string Header = "X-Once";

    /// <summary>So many answers are held, of so many bytes at most, for so long (ours).</summary>
    private const int Most = 64,
        MostBytes = 1 << 19;

    private static readonly TimeSpan Holds = TimeSpan.FromMinutes(10);

    private readonly Lock _lock = new();
    private readonly OrderedDictionary<string, (Task<Answer?> Answer, DateTimeOffset Until)> _given = [];

    public async Task OnResourceExecutionAsync(ResourceExecutingContext context, ResourceExecutionDelegate next)
    {
        var http = context.HttpContext;
        if (!HttpMethods.IsPost(http.Request.Method) || !Guid.TryParse(http.Request.Headers[Header], out var key))
        {
            await next();
            return;
        }

        var (name, mine) = (
            $"{key} {http.Request.Path}{http.Request.QueryString}",
            new TaskCompletionSource<Answer?>(TaskCreationOptions.RunContinuationsAsynchronously)
        );
        for (Task<Answer?> first; (first = FirstOf(name, mine.Task)) != mine.Task; )
            if (await first.WaitAsync(http.RequestAborted) is { } given)
            {
                context.Result = given;
                return;
            }

        Answer? answer = null;
        try
        {
            answer = await AnswerAsync(http.Response, next);
        }
        finally
        {
            if (answer is null)
                lock (_lock)
                    _given.Remove(name);
            mine.SetResult(answer);
        }
    }

    /// <summary>What a key was answered with first; its own where it is the first.</summary>
    private Task<Answer?> FirstOf(string name, Task<Answer?> own)
    {
        var now = time.GetUtcNow();
        lock (_lock)
        {
            // The oldest stand first; what is still being answered stays.
            foreach (var (old, held) in _given.ToList())
                if (held.Answer.IsCompleted && (held.Until < now || _given.Count > Most))
                    _given.Remove(old);
            return _given.TryAdd(name, (own, now + Holds)) ? own : _given[name].Answer;
        }
    }

    /// <summary>Has it answered, and gives the answer back; null for a refusal, a failure, or one too large to hold.</summary>
    private static async Task<Answer?> AnswerAsync(HttpResponse response, ResourceExecutionDelegate next)
    {
        var (body, held) = (response.Body, new MemoryStream());
        response.Body = held;
        ResourceExecutedContext done;
        try
        {
            done = await next();
        }
        finally
        {
            response.Body = body;
        }

        if (done is { Exception: not null, ExceptionHandled: false })
            return null;
        held.Position = 0;
        await held.CopyToAsync(body, response.HttpContext.RequestAborted);
        return response.StatusCode < StatusCodes.Status400BadRequest && held.Length <= MostBytes
            ? new Answer(response.StatusCode, response.ContentType, response.Headers.Location.ToString(), held.ToArray())
            : null;
    }

    /// <summary>An answer that was given before.</summary>
    private sealed class Answer(int status, string? type, string location, byte[] body) : ActionResult
    {
        public override async Task ExecuteResultAsync(ActionContext context)
        {
            var response = context.HttpContext.Response;
            (response.StatusCode, response.ContentType) = (status, type);
            if (location != "")
                response.Headers.Location = location;
            await response.Body.WriteAsync(body, context.HttpContext.RequestAborted);
        }
    }
}
