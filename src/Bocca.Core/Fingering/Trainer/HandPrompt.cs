using Bocca.Core.Music;

namespace Bocca.Core.Fingering.Trainer;

/// <summary>One thing asked of the hand.</summary>
/// <param name="Item">What it is about, for the record: a setting, or a written note.</param>
/// <param name="Show">What is shown in words or figures; empty where a note is read.</param>
/// <param name="Written">The note to read; null where none is.</param>
/// <param name="Answer">The answer taught: a setting, or a written note.</param>
public sealed record HandPrompt(string Item, string Show, Pitch? Written, string Answer)
{
    /// <summary>Everything that counts as right, the answer taught first.</summary>
    public IReadOnlyList<string> Accepted { get; init; } = [Answer];

    /// <summary>The notes to choose from; empty where something is set.</summary>
    public IReadOnlyList<Pitch> Choices { get; init; } = [];

    /// <summary>Whether the step from the note before looks small on paper and is another partial for the lips.</summary>
    public bool HidesChange { get; init; }

    /// <summary>Where the slide belongs, cm; null without a slide or where positions are enough.</summary>
    public double? Cm { get; init; }

    /// <summary>What sounds, hertz; null where the drill is silent.</summary>
    public double? Hertz { get; init; }

    /// <summary>What is said of an answer at once.</summary>
    public AnswerWords Words =>
        Cm is null
            ? new AnswerWords(
                $"{Answer}: yes.{(HidesChange ? " A step on paper, another partial for the lips." : "")}",
                $"{Answer} it was; you set {AnswerWords.Given}.",
                $"{Answer} it was; you set {AnswerWords.Given}."
            )
            : new AnswerWords(
                $"Within {AnswerWords.Off} cm: yes.",
                $"{AnswerWords.Off} cm too far out.",
                $"{AnswerWords.Off} cm too far in."
            );

    /// <summary>Whether an answer is right.</summary>
    /// <param name="given">A setting, a written note, or centimetres of slide.</param>
    /// <param name="withinCm">How far the slide may be off.</param>
    public bool Accepts(string given, double withinCm) =>
        Cm is { } due
            ? double.TryParse(given, System.Globalization.NumberStyles.Float, System.Globalization.CultureInfo.InvariantCulture, out var cm)
                && Math.Abs(cm - due) <= withinCm
            : Accepted.Contains(given);
}

/// <summary>What is said of an answer the moment it is given, with places left for what was given.</summary>
/// <param name="Right">Of a right one.</param>
/// <param name="Above">Of another one; on a slide of one too far out.</param>
/// <param name="Below">The same; on a slide of one too far in.</param>
public sealed record AnswerWords(string Right, string Above, string Below)
{
    /// <summary>Where what was given belongs, and where the centimetres belong that it was off.</summary>
    public const string Given = "{given}",
        Off = "{off}";
}

/// <summary>What was answered.</summary>
/// <param name="Item">What it was about.</param>
/// <param name="Answer">The answer taught.</param>
/// <param name="From">The answer before it, from which the hand came; empty for the first.</param>
/// <param name="Given">What was given.</param>
/// <param name="Seconds">From seeing it to giving it.</param>
/// <param name="Right">Whether that was right.</param>
public sealed record HandMark(string Item, string Answer, string From, string Given, double Seconds, bool Right);
