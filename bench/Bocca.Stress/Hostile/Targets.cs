using System.Reflection;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Mvc.ModelBinding;
using Microsoft.AspNetCore.Mvc.RazorPages;
using Microsoft.AspNetCore.Mvc.RazorPages.Infrastructure;
using Microsoft.AspNetCore.Routing;
using Microsoft.AspNetCore.SignalR;
using Microsoft.Extensions.DependencyInjection;

namespace Bocca.Stress.Hostile;

/// <summary>Finds everything that answers, from what the application itself has mapped.</summary>
public static class Targets
{
    private const int MostDepth = 4;

    public static async Task<IReadOnlyList<Target>> FindAsync(IServiceProvider services)
    {
        var loader = services.GetRequiredService<PageLoader>();
        var found = new List<Target>();
        foreach (var endpoint in services.GetRequiredService<EndpointDataSource>().Endpoints.OfType<RouteEndpoint>())
            if (endpoint.Metadata.GetMetadata<PageActionDescriptor>() is { } page)
                found.AddRange(Handlers(endpoint.RoutePattern, await loader.LoadAsync(page, endpoint.Metadata)));
            else if (endpoint.Metadata.GetMetadata<HubMetadata>() is { } hub)
                found.AddRange(Methods(endpoint.RoutePattern, hub.HubType));
            else if (endpoint.Metadata.GetMetadata<IHttpMethodMetadata>()?.HttpMethods.Contains("GET") ?? true)
                found.Add(new Target("GET", Path(endpoint.RoutePattern), "", RouteFields(endpoint.RoutePattern), null));
        return [.. found.DistinctBy(target => $"{target}")];
    }

    /// <summary>Handlers of what is done with a take that was just heard.</summary>
    private static readonly string[] OfTakes = ["Guess", "Keep", "Accept", "Delete"];

    /// <summary>Whether a handler does something with an entry that another one has written.</summary>
    public static bool IsOfTakes(Target target) => OfTakes.Contains(target.Handler);

    /// <summary>What can be brought back has to be deleted first, and pupils are deleted last.</summary>
    public static IEnumerable<Target> InOrder(IEnumerable<Target> targets) =>
        targets.OrderBy(target => (TakesPupils(target), target.Handler is "Restore"));

    private static bool TakesPupils(Target target) =>
        target.Path.StartsWith("/pupils", StringComparison.Ordinal) && target is { Method: "POST", Handler: "Delete" or "Restore" or "" };

    /// <summary>What somebody does before a handler can do what it is for: plays, or deletes what is to come back.</summary>
    public static IEnumerable<Target> Before(IReadOnlyList<Target> all, Target target)
    {
        Target? At(string path, string handler) => all.FirstOrDefault(other => other.Path == path && other.Handler == handler);
        var before =
            IsOfTakes(target) ? At(target.Path, "Hear") ?? At(Values.Above(target.Path), "Hear")
            : target.Handler == "Restore" ? At(target.Path, "Delete")
            : null;
        return before is null ? [] : [before];
    }

    private static IEnumerable<Target> Handlers(Microsoft.AspNetCore.Routing.Patterns.RoutePattern route, CompiledPageActionDescriptor page)
    {
        foreach (var handler in page.HandlerMethods)
        {
            var isGet = handler.HttpMethod.Equals("GET", StringComparison.OrdinalIgnoreCase);
            var fields = RouteFields(route).ToList();
            Type? body = null;
            foreach (var bound in page.BoundProperties.OfType<PageBoundPropertyDescriptor>())
            {
                var ofAddress = bound.Property.GetCustomAttribute<Microsoft.AspNetCore.Mvc.BindPropertyAttribute>()?.SupportsGet == true;
                if (!isGet || ofAddress)
                    Add(
                        bound.BindingInfo?.BinderModelName ?? bound.Name,
                        bound.ParameterType,
                        isGet ? Place.Query : Place.Form,
                        Item(bound.ParameterType) is null ? bound.Name : bound.BindingInfo?.BinderModelName ?? bound.Name,
                        ofAddress
                    );
            }

            foreach (var parameter in handler.Parameters)
                if (parameter.BindingInfo?.BindingSource == BindingSource.Body)
                    fields.AddRange(Leaves("", body = parameter.ParameterType, Place.Json, 0));
                else
                    Add(
                        parameter.BindingInfo?.BinderModelName ?? parameter.Name,
                        parameter.ParameterType,
                        isGet ? Place.Query : Place.Form,
                        Item(parameter.ParameterType) is null ? "" : parameter.Name
                    );
            yield return new Target(handler.HttpMethod.ToUpperInvariant(), Path(route), handler.Name ?? "", fields, body);

            void Add(string name, Type type, Place place, string prefix, bool ofAddress = false) =>
                fields.AddRange(
                    (IsLeaf(type) ? [Leaf(name, type, place)] : Leaves(prefix, type, place, 0))
                        .Where(leaf => fields.All(field => !field.Name.Equals(leaf.Name, StringComparison.OrdinalIgnoreCase)))
                        .Select(leaf => leaf with { OfAddress = ofAddress })
                        .ToList()
                );
        }
    }

    private static IEnumerable<Target> Methods(Microsoft.AspNetCore.Routing.Patterns.RoutePattern route, Type hub) =>
        hub.GetMethods(BindingFlags.Public | BindingFlags.Instance | BindingFlags.DeclaredOnly)
            .Where(method => !method.IsSpecialName)
            .Select(method => new Target(
                "HUB",
                Path(route).Replace("/negotiate", ""),
                method.Name,
                [.. method.GetParameters().Select(parameter => new Field(parameter.Name!, parameter.ParameterType, Place.Json))],
                null
            ));

    private static string Path(Microsoft.AspNetCore.Routing.Patterns.RoutePattern route) =>
        "/"
        + string.Join(
            '/',
            route.PathSegments.Select(segment =>
                string.Concat(
                    segment.Parts.Select(part =>
                        part switch
                        {
                            Microsoft.AspNetCore.Routing.Patterns.RoutePatternLiteralPart literal => literal.Content,
                            Microsoft.AspNetCore.Routing.Patterns.RoutePatternParameterPart parameter => $"{{{parameter.Name}}}",
                            _ => "",
                        }
                    )
                )
            )
        );

    private static List<Field> RouteFields(Microsoft.AspNetCore.Routing.Patterns.RoutePattern route) =>
        [.. route.Parameters.Select(parameter => new Field(parameter.Name, typeof(int), Place.Route))];

    private static Field Leaf(string name, Type type, Place place) => new(name, type, type == typeof(IFormFile) ? Place.File : place);

    /// <summary>The values inside a type, each by its path; of a list its first.</summary>
    private static IEnumerable<Field> Leaves(string path, Type type, Place place, int depth)
    {
        if (Item(type) is { } item)
            return Leaves($"{path}[0]", item, place, depth + 1);
        if (IsLeaf(type) || depth > MostDepth)
            return [Leaf(path, type, place)];
        return type.GetProperties(BindingFlags.Public | BindingFlags.Instance)
            .Where(property => property.CanWrite && property.Name != "EqualityContract")
            .SelectMany(property =>
                Leaves(path == "" ? property.Name : $"{path}.{property.Name}", property.PropertyType, place, depth + 1)
            );
    }

    /// <summary>What a list is of; null for what is no list.</summary>
    internal static Type? Item(Type type) =>
        type == typeof(string) || type == typeof(byte[]) ? null
        : type.IsArray ? type.GetElementType()
        : type.IsGenericType && type.IsAssignableTo(typeof(System.Collections.IEnumerable)) ? type.GetGenericArguments()[0]
        : null;

    internal static bool IsLeaf(Type type)
    {
        var plain = Nullable.GetUnderlyingType(type) ?? type;
        return plain.IsPrimitive
            || plain.IsEnum
            || plain == typeof(string)
            || plain == typeof(decimal)
            || plain == typeof(DateOnly)
            || plain == typeof(DateTime)
            || plain == typeof(Guid)
            || plain == typeof(byte[])
            || plain == typeof(IFormFile);
    }
}
