namespace Bocca.Core.Judging;

/// <summary>Something of a pupil that is followed over weeks.</summary>
/// <param name="Name">Its name in records and for people, such as <c>steadiness</c>.</param>
/// <param name="Unit">The unit of its values.</param>
/// <param name="Less">What it means when it falls, in a word or two.</param>
/// <param name="More">What it means when it rises.</param>
/// <param name="IsShare">Whether its values are shares, 0 to 1, of so many tries; they are shown in per cent.</param>
public sealed record FigureKind(string Name, string Unit, string Less, string More, bool IsShare = false);

/// <summary>What one entry of the record says of it.</summary>
/// <param name="Kind">Of what.</param>
/// <param name="Value">The middle over the repeats, in the kind's unit.</param>
/// <param name="Spread">How far the repeats lie from each other: their standard deviation; 0 for one alone.</param>
/// <param name="Count">How many repeats.</param>
/// <param name="Item">Of which note, change or the like; empty for the whole.</param>
public sealed record Figure(FigureKind Kind, double Value, double Spread = 0, int Count = 1, string Item = "");
