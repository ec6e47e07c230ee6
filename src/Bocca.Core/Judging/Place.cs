namespace Bocca.Core.Judging;

/// <summary>Where a step is done: a stop of the path by its name, such as <c>buzz</c>. Each chapter names its own.</summary>
/// <param name="Id">The name, in small letters.</param>
public readonly record struct Place(string Id)
{
    /// <inheritdoc/>
    public override string ToString() => Id;
}
