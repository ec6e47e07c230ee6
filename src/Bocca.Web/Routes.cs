using Microsoft.AspNetCore.Mvc.ApplicationModels;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Bocca.Web;

/// <summary>Addresses in lower case, and a pupil who is not there yet.</summary>
public static class Routes
{
    public static void Configure(RazorPagesOptions options)
    {
        options.Conventions.AddPageRoute("/Pupils/Edit", "pupils/new");
        options.Conventions.Add(new PageRouteTransformerConvention(new LowerCaseRoutes()));
    }

    private sealed class LowerCaseRoutes : IOutboundParameterTransformer
    {
        public string? TransformOutbound(object? value) => value?.ToString()?.ToLowerInvariant();
    }
}
