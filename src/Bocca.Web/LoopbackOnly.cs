using System.Net;

namespace Bocca.Web;

/// <summary>
/// Answers this machine alone: a page of a foreign name that points here could read names and delete pupils. A request that says where
/// it comes from has to come from here.
/// </summary>
public sealed class LoopbackOnly(RequestDelegate next)
{
    public Task InvokeAsync(HttpContext context)
    {
        var (host, origin) = (context.Request.Host, context.Request.Headers.Origin);
        if (IsHere(host.Host) && (origin.Count == 0 || origin == $"{context.Request.Scheme}://{host}"))
            return next(context);
        context.Response.StatusCode = StatusCodes.Status400BadRequest;
        context.Response.ContentType = "text/plain; charset=utf-8";
        return context.Response.WriteAsync("Bocca answers on this machine only, under localhost.");
    }

    private static bool IsHere(string host) =>
        host.Equals("localhost", StringComparison.OrdinalIgnoreCase)
        || (IPAddress.TryParse(host.Trim('[', ']'), out var address) && IPAddress.IsLoopback(address));
}
