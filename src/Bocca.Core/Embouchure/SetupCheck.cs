using Bocca.Core.Teaching;

namespace Bocca.Core.Embouchure;

/// <summary>How a check is put under an approach.</summary>
/// <param name="Ask">What to look for, in a sentence.</param>
/// <param name="When">Points of an approach, any of which puts it so; null for the rest.</param>
public sealed record CheckVariant(string Ask, IReadOnlyList<string>? When = null);

/// <summary>A short check of body, hold, face or care: one drawn hint, one tick (<c>checks.json</c>).</summary>
/// <param name="Id">Its name in records.</param>
/// <param name="Name">Its name for people.</param>
/// <param name="Group"><c>body</c>, <c>face</c>, <c>hold</c> or <c>care</c>.</param>
/// <param name="Hint">Which drawing shows it.</param>
/// <param name="Families">The instruments that have it; null for all.</param>
/// <param name="Variants">How it is put, the first that the approach meets.</param>
/// <param name="Basis">Where this comes from.</param>
/// <param name="AgainDays">After so many days it wants to be looked at again, for a child grows; null for never (ours, editable).</param>
public sealed record SetupCheck(
    string Id,
    string Name,
    string Group,
    string Hint,
    IReadOnlyList<string>? Families,
    IReadOnlyList<CheckVariant> Variants,
    string Basis,
    double? AgainDays = null
)
{
    /// <summary>The check before a slide is unlocked for the first time.</summary>
    public const string SlideLock = "slide-lock";

    private static readonly Lazy<IReadOnlyList<SetupCheck>> Shipped = new(() => EmbeddedData.Read<List<SetupCheck>>("checks.json"));

    /// <summary>All checks, in the order of a lesson.</summary>
    public static IReadOnlyList<SetupCheck> All => Shipped.Value;

    /// <summary>The checks of a family.</summary>
    public static IReadOnlyList<SetupCheck> Of(string family) =>
        [.. All.Where(check => check.Families is null || check.Families.Contains(family))];

    /// <summary>What to look for under an approach.</summary>
    public string Ask(Approach approach) => Variants.First(variant => approach.Meets(variant.When)).Ask;
}
