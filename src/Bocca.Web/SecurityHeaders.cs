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
        var headers = context.Response.Headers;
        headers.ContentSecurityPolicy = Policy;
        headers.XContentTypeOptions = "nosniff";
        headers["Referrer-Policy"] = "no-referrer";
        headers["Permissions-Policy"] = "microphone=(self), camera=(self), geolocation=()";
        return next(context);
    }
}
