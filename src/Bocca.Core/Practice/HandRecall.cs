using Bocca.Core.Fingering.Trainer;

namespace Bocca.Core.Practice;

/// <summary>How answers of the hand go into the recall schedule.</summary>
public static class HandRecall
{
    /// <summary>An answer so many times slower than usual is a hard one, so much faster an easy one (ours, editable).</summary>
    private const double HardTimes = 1.8,
        EasyTimes = 0.6;

    /// <summary>How an answer counts for recall, beside the pupil's usual time for such.</summary>
    public static RecallGrade Grade(HandMark mark, double usualSeconds) =>
        !mark.Right ? RecallGrade.Again
        : usualSeconds > 0 && mark.Seconds > HardTimes * usualSeconds ? RecallGrade.Hard
        : usualSeconds > 0 && mark.Seconds < EasyTimes * usualSeconds ? RecallGrade.Easy
        : RecallGrade.Good;
}
