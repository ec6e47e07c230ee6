namespace Bocca.Stress.Hostile;

/// <summary>Where a value travels.</summary>
public enum Place
{
    Route,
    Query,
    Form,
    File,
    Json,
}

/// <summary>A value that a handler is sent.</summary>
/// <param name="Name">Its name; for a part of a JSON body the path to it.</param>
/// <param name="Type">What it is read as.</param>
/// <param name="Place">Where it travels.</param>
/// <param name="OfAddress">Whether it says what a page shows, and may stand in the page's address: nothing keeps it.</param>
public sealed record Field(string Name, Type Type, Place Place, bool OfAddress = false);

/// <summary>Something that answers: a handler of a page, or a method of the hub.</summary>
/// <param name="Method">HTTP method; HUB for a method of the hub.</param>
/// <param name="Path">Address with its parts in braces.</param>
/// <param name="Handler">Name of the handler or method; empty for the page itself.</param>
/// <param name="Fields">What it is sent.</param>
/// <param name="Body">The type of a JSON body; null for none.</param>
public sealed record Target(string Method, string Path, string Handler, IReadOnlyList<Field> Fields, Type? Body)
{
    public override string ToString() => $"{Method} {Path}{(Handler == "" ? "" : $"?handler={Handler}")}";
}
