namespace Bocca.Web;

/// <summary>
/// Sends the headers that keep a page to itself: nothing from another host, no inline script or style. The engraver
/// is WebAssembly and carries its music font as data; the sound library makes its clock's worker from a blob.
/// </summary>
public sealed class SecurityHeaders(RequestDelegate next)
{
    private const string Policy =
        "default-src 'none'; script-src 'self' 'wasm-unsafe-eval'; worker-src 'self' blob:; style-src 'self'; img-src 'self' data:; "
        + "font-src 'self' data:; connect-src 'self'; media-src 'self' blob:; form-action 'self'; base-uri 'none'; frame-ancestors 'none'";

    public Task InvokeAsync(HttpContext context)
    {
        // What is set before a page fails is cleared with it: the headers go on when the answer begins.
        context.Response.OnStarting(() =>
        {
            var headers = context.Response.Headers;
            headers.ContentSecurityPolicy = Policy;
            headers.XContentTypeOptions = "nosniff";
            // Not no-referrer: a browser would then hide where even our own forms come from.
            headers["Referrer-Policy"] = "same-origin";
            headers["Cross-Origin-Resource-Policy"] = "same-origin";
            // What is no page of its own opens nothing and asks for no microphone: each script would carry them for nothing.
            if (context.Response.ContentType?.StartsWith("text/html", StringComparison.Ordinal) != false)
            {
                headers["Cross-Origin-Opener-Policy"] = "same-origin";
                headers["Permissions-Policy"] = "microphone=(self), camera=(self), geolocation=()";
            }

            // Whatever has no word of its own may have a pupil in it.
            if (headers.CacheControl.Count == 0 || headers.CacheControl == "no-cache, no-store")
                headers.CacheControl = "no-store";
            return Task.CompletedTask;
        });
        // What comes back from it would hold cookies that no script may read.
        if (!HttpMethods.IsTrace(context.Request.Method))
            return next(context);
        context.Response.StatusCode = StatusCodes.Status405MethodNotAllowed;
        return Task.CompletedTask;
    }
}
