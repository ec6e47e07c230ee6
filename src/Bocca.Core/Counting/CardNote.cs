using Bocca.Core.Music;
using Bocca.Core.Score;

namespace Bocca.Core.Counting;

/// <summary>A note or a rest of a rhythm card.</summary>
/// <param name="At">When it begins, in quarters from the card's first beat.</param>
/// <param name="Length">How long it lasts, in quarters, ties apart.</param>
/// <param name="Token">Its name, such as <c>q.</c> or <c>rh</c>; inside a triplet the value that is written.</param>
public sealed record CardNote(Rational At, Rational Length, string Token)
{
    /// <summary>The note it is played on, as it is read; null on a card of rhythm alone, and where nothing begins.</summary>
    public Pitch? Written { get; init; }

    /// <summary>Whether nothing sounds.</summary>
    public bool IsRest { get; init; }

    /// <summary>Whether it is tied to the next, which is not begun anew.</summary>
    public bool TiedToNext { get; init; }

    /// <summary>Whether it goes on from the one before.</summary>
    public bool TiedFromBefore { get; init; }

    /// <summary>Whether it is one of three in the time of two.</summary>
    public bool InTriplet { get; init; }

    /// <summary>Whether something begins with it: it is said and clapped.</summary>
    public bool Begins => !IsRest && !TiedFromBefore;
}
