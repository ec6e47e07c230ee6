namespace Bocca.Core.Ear;

/// <summary>
/// A transformed up-and-down staircase: after three right answers in a row it gets harder by a step, after each wrong one easier. Where
/// answers are as likely as not to move it, the share that comes is the cube root of a half: 79.4 % (published: Levitt 1971,
/// doi:10.1121/1.1912375). So about four in five come.
/// </summary>
/// <param name="Level">How hard, from 0.</param>
/// <param name="Hardest">The hardest there is.</param>
/// <param name="Right">Right answers in a row since it last moved.</param>
public sealed record Staircase(int Level, int Hardest, int Right = 0)
{
    /// <summary>So many right answers in a row make it harder.</summary>
    public const int Rightly = 3;

    /// <summary>The share that comes where it settles.</summary>
    public static double Settles { get; } = Math.Pow(0.5, 1.0 / Rightly);

    /// <summary>The staircase that answers lead to.</summary>
    /// <param name="answers">How hard each was, and whether it was right, from the oldest on: it begins where that one stood.</param>
    /// <param name="hardest">The hardest there is.</param>
    public static Staircase Of(IReadOnlyList<(int Level, bool Right)> answers, int hardest) =>
        answers.Aggregate(
            new Staircase(answers is [var oldest, ..] ? oldest.Level : 0, hardest),
            (staircase, answer) => staircase.Answered(answer.Right)
        );

    /// <summary>The staircase after an answer.</summary>
    public Staircase Answered(bool right) =>
        !right ? this with { Level = Math.Max(0, Level - 1), Right = 0 }
        : Right + 1 < Rightly ? this with { Right = Right + 1 }
        : this with { Level = Math.Min(Hardest, Level + 1), Right = 0 };
}
