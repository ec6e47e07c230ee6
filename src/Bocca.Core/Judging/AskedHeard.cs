using Bocca.Core.Teaching;

namespace Bocca.Core.Judging;

/// <summary>One thing a drill asked for beside what was heard.</summary>
/// <param name="What">What it is.</param>
/// <param name="Asked">What was asked, with its unit.</param>
/// <param name="Heard">What was heard, with its unit.</param>
/// <param name="Met">Whether that is enough; null where it is only told.</param>
/// <param name="Cue">What to try where it is not: one action, at most <see cref="Fix.MostWords"/> words; empty where it is only
/// told.</param>
public sealed record AskedHeard(string What, string Asked, string Heard, bool? Met, string Cue = "")
{
    /// <summary>Which way the cue pulls: a tense pupil is never told to firm.</summary>
    public Pull Pull { get; init; }

    /// <summary>What to try instead where nobody sings; null where the cue does not ask for it.</summary>
    public string? Unsung { get; init; }

    /// <summary>What to try, for an approach and a pupil.</summary>
    public string CueFor(Approach approach, bool tense) =>
        tense && Pull == Pull.Firm ? Fix.Rest.Cue
        : Unsung is not null && approach.Of(Points.Singing) == Singing.Off ? Unsung
        : Cue;
}
