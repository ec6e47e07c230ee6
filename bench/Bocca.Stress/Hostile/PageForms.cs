using System.Text.RegularExpressions;
using AngleSharp.Html.Dom;
using Microsoft.AspNetCore.WebUtilities;

namespace Bocca.Stress.Hostile;

/// <summary>A form as a page of the application shows it.</summary>
/// <param name="Method">How it is sent; a link is a form without fields.</param>
/// <param name="Action">Where it goes, with its query.</param>
/// <param name="Fields">What it sends as it stands, by name.</param>
/// <param name="From">The page that shows it.</param>
public sealed record PageForm(string Method, string Action, IReadOnlyList<KeyValuePair<string, string>> Fields, string From)
{
    /// <summary>The address without its query.</summary>
    public string Path => Action.Split('?')[0];

    /// <summary>Everything that it sends: fields, and what stands in its address.</summary>
    public IReadOnlyDictionary<string, string> All { get; } =
        Fields
            .Concat(QueryOf(Action).Where(each => each.Key != HandlerField))
            .GroupBy(each => each.Key, StringComparer.OrdinalIgnoreCase)
            .ToDictionary(each => each.Key, each => each.Last().Value, StringComparer.OrdinalIgnoreCase);

    /// <summary>The handler that it names; empty for the page's own.</summary>
    public string Handler { get; } = QueryOf(Action).FirstOrDefault(each => each.Key == HandlerField).Value ?? "";

    private const string HandlerField = "handler";

    private static IEnumerable<KeyValuePair<string, string>> QueryOf(string address) =>
        address.IndexOf('?') is >= 0 and var at
            ? QueryHelpers.ParseQuery(address[at..]).Select(each => KeyValuePair.Create(each.Key, each.Value.ToString()))
            : [];
}

/// <summary>The forms that the application's pages show, so that what is sent is what a page would send but for one thing.</summary>
public sealed class PageForms
{
    /// <summary>So many of one handler are enough.</summary>
    private const int MostOfOne = 24;

    private readonly Dictionary<string, List<PageForm>> _forms = [];

    /// <summary>All of them.</summary>
    public IEnumerable<PageForm> All => _forms.Values.SelectMany(forms => forms);

    /// <summary>Takes down the forms of a page, instead of those that it showed before.</summary>
    public void TakeDown(IHtmlDocument page, string address)
    {
        foreach (var alike in _forms.Values)
            alike.RemoveAll(form => form.From == address && form.Method != "GET");
        foreach (var link in page.QuerySelectorAll("a[href^='/']"))
            Add(new PageForm("GET", link.GetAttribute("href")!.Split('#')[0], [], address));
        foreach (var form in page.Forms)
        {
            var own = form.GetAttribute("action") is { Length: > 0 } action ? action : address;
            var fields = form
                .Elements.Select(Sent)
                .Where(field => field.Key is { Length: > 0 } and not "__RequestVerificationToken")
                .Select(field => KeyValuePair.Create(field.Key!, field.Value ?? ""))
                .ToList();
            Add(new PageForm(form.Method.ToUpperInvariant(), own, fields, address));
            foreach (var button in form.QuerySelectorAll("button[formaction],button[name]"))
                Add(
                    new PageForm(
                        form.Method.ToUpperInvariant(),
                        button.GetAttribute("formaction") ?? own,
                        button.GetAttribute("name") is { } name ? [.. fields, new(name, button.GetAttribute("value") ?? "")] : fields,
                        address
                    )
                );
        }
    }

    /// <summary>Addresses of pages that have the parts of a target's: whom and what a script of theirs asks for.</summary>
    public IReadOnlyList<PageForm> Beside(Target target) => Alike(target, form => form.Method == "GET");

    /// <summary>Those that go to a target.</summary>
    public IReadOnlyList<PageForm> For(Target target) =>
        Alike(target, form => form.Method == target.Method && form.Handler.Equals(target.Handler, StringComparison.OrdinalIgnoreCase));

    private List<PageForm> Alike(Target target, Func<PageForm, bool> fits) =>
        _forms
            .Values.SelectMany(forms => forms)
            .Where(form => fits(form) && Regex.IsMatch(form.Path, Shape(target.Path), RegexOptions.IgnoreCase))
            .ToList();

    /// <summary>What addresses of a target look like: whom or what they name is a number.</summary>
    private static string Shape(string path) =>
        $"^{Regex.Replace(Regex.Replace(path, @"\{\w*id\}", "\\d+", RegexOptions.IgnoreCase), @"\{\w+\}", "[^/]+")}/?$";

    private void Add(PageForm form)
    {
        var shape = form.Method + string.Concat(form.Path.Where(sign => !char.IsAsciiDigit(sign))) + "?" + form.Handler;
        var alike = _forms.TryGetValue(shape, out var known) ? known : _forms[shape] = [];
        if (alike.Count < MostOfOne)
            alike.Add(form);
    }

    private static KeyValuePair<string?, string?> Sent(AngleSharp.Dom.IElement element) =>
        element switch
        {
            IHtmlInputElement { Type: "radio" or "checkbox", IsChecked: false } or IHtmlInputElement { Type: "file" } => new(null, null),
            IHtmlInputElement input => new(input.Name, input.Value),
            IHtmlSelectElement select => new(select.Name, select.Value),
            IHtmlTextAreaElement area => new(area.Name, area.Value),
            _ => new(null, null),
        };
}
