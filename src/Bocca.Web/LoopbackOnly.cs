using System.Net;

namespace Bocca.Web;

/// <summary>
/// Answers this machine alone: a page of a foreign name that points here could read names and delete pupils. A request that says where
/// it comes from has to come from here; a link on another page may open a page here, and nothing else, so that nobody's picture or
/// frame keeps the machine at work.
/// </summary>
public sealed class LoopbackOnly(RequestDelegate next)
{
    public Task InvokeAsync(HttpContext context)
    {
        var (host, origin) = (context.Request.Host, context.Request.Headers.Origin);
        if (IsHere(host.Host) && (origin.Count == 0 || origin == $"{context.Request.Scheme}://{host}") && IsOwn(context.Request))
            return next(context);
        context.Response.StatusCode = StatusCodes.Status400BadRequest;
        context.Response.ContentType = "text/plain; charset=utf-8";
        return context.Response.WriteAsync("Bocca answers on this machine only, under localhost.");
    }

    /// <summary>Whether a page of our own asks, or somebody opens a page; what browsers say of it (Fetch Metadata, W3C).</summary>
    private static bool IsOwn(HttpRequest request)
    {
        var (site, mode, wanted) = (
            request.Headers["Sec-Fetch-Site"].ToString(),
            request.Headers["Sec-Fetch-Mode"],
            request.Headers["Sec-Fetch-Dest"]
        );
        return site is "" or "same-origin" or "none"
            || (HttpMethods.IsGet(request.Method) && mode == "navigate" && wanted == "document" && !request.Query.ContainsKey("handler"));
    }

    private static bool IsHere(string host) =>
        host.Equals("localhost", StringComparison.OrdinalIgnoreCase)
        || (IPAddress.TryParse(host.Trim('[', ']'), out var address) && IPAddress.IsLoopback(address));
}
