namespace Bocca.Core.Pieces;

/// <summary>What a typed piece cannot be read for, and where.</summary>
/// <param name="at">The first letter that does not fit, from 0.</param>
/// <param name="length">How many letters do not fit; at least 1.</param>
/// <param name="words">What is wrong, and what would do.</param>
public sealed class EntrySlip(int at, int length, string words) : FormatException(words)
{
    /// <summary>The first letter that does not fit, from 0.</summary>
    public int At { get; } = at;

    /// <summary>How many letters do not fit.</summary>
    public int Length { get; } = Math.Max(1, length);
}
