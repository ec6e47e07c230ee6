using Bocca.Web.Frame;
using Microsoft.AspNetCore.Mvc.ApplicationModels;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Bocca.Web;

/// <summary>Stops that are not open yet share one page.</summary>
public static class Routes
{
    public static void Configure(RazorPagesOptions options)
    {
        foreach (var stop in Stop.All.Where(stop => !stop.Open))
            options.Conventions.AddPageRoute("/NotYet", $"{stop.Path}/{{pupilId:int?}}");
        options.Conventions.AddPageRoute("/Pupils/Edit", "pupils/new");
        options.Conventions.Add(new PageRouteTransformerConvention(new LowerCaseRoutes()));
    }

    private sealed class LowerCaseRoutes : IOutboundParameterTransformer
    {
        public string? TransformOutbound(object? value) => value?.ToString()?.ToLowerInvariant();
    }
}
