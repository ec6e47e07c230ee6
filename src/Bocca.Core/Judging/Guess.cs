namespace Bocca.Core.Judging;

/// <summary>A take in the one word that whoever played it can guess before the verdict.</summary>
public enum HeardAs
{
    /// <summary>What was meant came.</summary>
    Came,

    /// <summary>Something lower came.</summary>
    Lower,

    /// <summary>Something higher came.</summary>
    Higher,

    /// <summary>It kept its height.</summary>
    Steady,

    /// <summary>It did not.</summary>
    Unsteady,
}

/// <summary>
/// The pupil's own guess before the verdict: to hear oneself is what the drill is for, and how often the guess is right is followed
/// like any other figure.
/// </summary>
public static class Guess
{
    /// <summary>Whether a guess was right (1) or not (0).</summary>
    public static FigureKind Right { get; } = new("own guess", "%", "is right less often", "is right more often", IsShare: true);

    /// <summary>The words to choose from.</summary>
    public static IReadOnlyList<HeardAs> Choices(HeardAs was) =>
        was is HeardAs.Steady or HeardAs.Unsteady ? [HeardAs.Steady, HeardAs.Unsteady] : [HeardAs.Came, HeardAs.Lower, HeardAs.Higher];

    /// <summary>What is asked.</summary>
    public static string Question(HeardAs was) =>
        was is HeardAs.Steady or HeardAs.Unsteady ? "What do you say: was it steady?" : "What do you say: did it come?";

    /// <summary>A choice in words.</summary>
    public static string Words(HeardAs said) =>
        said switch
        {
            HeardAs.Came => "it came",
            HeardAs.Lower => "something lower",
            HeardAs.Higher => "something higher",
            HeardAs.Steady => "steady",
            _ => "not steady",
        };

    /// <summary>The guess beside what was heard; null where nobody guessed.</summary>
    public static string? Told(Verdict verdict) =>
        verdict is not { HeardAs: { } was, Guessed: { } said } ? null
        : was == said ? $"You said: {Words(said)}. So it was."
        : $"You said: {Words(said)}. It was: {Words(was)}.";

    /// <summary>What a take says of the pupil's guessing.</summary>
    public static IEnumerable<Figure> Of(Verdict verdict) =>
        verdict is { HeardAs: { } was, Guessed: { } said } ? [new Figure(Right, was == said ? 1 : 0)] : [];
}
