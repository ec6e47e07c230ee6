namespace Bocca.Core.Judging;

/// <summary>Small numbers in words, as they are said in a lesson.</summary>
public static class Words
{
    private static readonly string[] Numbers =
    [
        "none",
        "one",
        "two",
        "three",
        "four",
        "five",
        "six",
        "seven",
        "eight",
        "nine",
        "ten",
        "eleven",
        "twelve",
    ];

    /// <summary>A count in words up to twelve.</summary>
    public static string Of(int count) => count < Numbers.Length ? Numbers[count] : count.ToString();

    /// <summary>The same at the beginning of a sentence: <c>Six</c>.</summary>
    public static string Opening(int count) => char.ToUpperInvariant(Of(count)[0]) + Of(count)[1..];

    /// <summary>
    /// A count of tries out of all, opening a sentence: <c>Two of four</c>, <c>All four</c>, <c>Both</c>, <c>The one try</c>.
    /// </summary>
    public static string Of(int count, int all)
    {
        if (all == 1)
            return "The one try";
        if (all == 2 && count == 2)
            return "Both";
        var words = count == all ? $"all {Of(all)}" : $"{Of(count)} of {Of(all)}";
        return char.ToUpperInvariant(words[0]) + words[1..];
    }
}
