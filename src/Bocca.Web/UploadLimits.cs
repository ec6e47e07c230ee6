using Bocca.Web.Frame;
using Microsoft.AspNetCore.Diagnostics;
using Microsoft.AspNetCore.Http.Features;

namespace Bocca.Web;

/// <summary>Refuses what is larger than its page takes before anything of it is read.</summary>
public sealed class UploadLimits(RequestDelegate next)
{
    public Task InvokeAsync(HttpContext context)
    {
        var most = context.GetEndpoint()?.Metadata.GetMetadata<UploadLimitAttribute>()?.MaxRequestBodySize ?? UploadLimitAttribute.Usual;
        var isTold =
            context.Features.Get<IStatusCodeReExecuteFeature>() is not null || context.Features.Get<IExceptionHandlerFeature>() is not null;
        if (isTold || context.Request.ContentLength is not { } sent || sent <= most)
            return next(context);
        // What is on its way is read past for a while: a browser that is cut off in the middle shows no answer at all.
        if (context.Features.Get<IHttpMaxRequestBodySizeFeature>() is { IsReadOnly: false } limit)
            limit.MaxRequestBodySize = null;
        context.Response.StatusCode = StatusCodes.Status413PayloadTooLarge;
        return Task.CompletedTask;
    }
}
