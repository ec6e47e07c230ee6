namespace Bocca.Core.Judging;

/// <summary>One thing a drill asked for beside what was heard.</summary>
/// <param name="What">What it is.</param>
/// <param name="Asked">What was asked, with its unit.</param>
/// <param name="Heard">What was heard, with its unit.</param>
/// <param name="Met">Whether that is enough; null where it is only told.</param>
/// <param name="Cue">What to try where it is not; empty where it is only told.</param>
public sealed record AskedHeard(string What, string Asked, string Heard, bool? Met, string Cue = "");
