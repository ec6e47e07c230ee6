namespace Bocca.Core.Pieces;

/// <summary>A note at which a line is likely to go wrong.</summary>
/// <param name="Note">The note.</param>
/// <param name="Score">How hard it is, points; 3 and more are listed.</param>
/// <param name="Why">Why, the weightiest reason first.</param>
public sealed record HardSpot(int Note, double Score, IReadOnlyList<string> Why);
