namespace Bocca.Core.Music;

/// <summary>What note values are called where people do not count in fractions (common practice).</summary>
public static class ValueNaming
{
    private static readonly (string Fraction, string Called)[] Values =
    [
        ("whole", "semibreve"),
        ("half", "minim"),
        ("quarter", "crotchet"),
        ("eighth", "quaver"),
        ("sixteenth", "semiquaver"),
    ];

    /// <summary>
    /// Phrases with a note value in them, with what they are here: what is a half or a quarter of something else is none of them.
    /// </summary>
    public static IReadOnlyDictionary<string, string> British { get; } =
        Values.SelectMany(value => Phrases(value.Fraction, value.Called)).ToDictionary(phrase => phrase.From, phrase => phrase.To);

    private static IEnumerable<(string From, string To)> Phrases(string fraction, string called)
    {
        yield return ($"{fraction} note", called);
        yield return ($"{fraction} notes", $"{called}s");
        if (fraction == "whole")
            yield break;
        var article = fraction[0] == 'e' ? "an" : "a";
        yield return ($"{fraction} rest", $"{called} rest");
        yield return ($"{fraction} rests", $"{called} rests");
        yield return ($"{article} {fraction} rest", $"a {called} rest");
        if (fraction == "half")
            yield break;
        yield return ($"{fraction}s", $"{called}s");
        // "A quarter of an hour" is none.
        if (fraction != "quarter")
            yield return ($"{article} {fraction}", $"a {called}");
    }
}
