namespace Bocca.Core.Music;

/// <summary>A note that a chord may want, and how far its pitch then lies from equal temperament.</summary>
/// <param name="Id">Its name in the address.</param>
/// <param name="Name">Its name for people.</param>
/// <param name="Cents">Cents above equal temperament: pure ratios 5:4, 6:5, 3:2 and 7:4 (computed).</param>
public sealed record ChordPlace(string Id, string Name, double Cents)
{
    /// <summary>All places, the note on its own first.</summary>
    public static IReadOnlyList<ChordPlace> All { get; } =
    [
        new("", "on its own", 0),
        new("third", "major third of a chord", 1200 * Math.Log2(5.0 / 4) - 400),
        new("minor", "minor third of a chord", 1200 * Math.Log2(6.0 / 5) - 300),
        new("fifth", "fifth of a chord", 1200 * Math.Log2(3.0 / 2) - 700),
        new("seventh", "natural seventh of a chord", 1200 * Math.Log2(7.0 / 4) - 1000),
    ];
}
