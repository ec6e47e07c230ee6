namespace Bocca.Core.Health;

/// <summary>What somebody wants to do.</summary>
public enum HealthActivity
{
    /// <summary>Sound on the lips, the mouthpiece or the instrument.</summary>
    Playing,

    /// <summary>A breath drill.</summary>
    Breathing,

    /// <summary>Valves or slide in silence.</summary>
    Hands,
}

/// <summary>What a pupil's teeth ask for as long as they are so; noted with a guardian's consent.</summary>
[Flags]
public enum MouthNote
{
    /// <summary>Nothing noted.</summary>
    None = 0,

    /// <summary>Braces.</summary>
    Braces = 1,

    /// <summary>A loose or missing tooth.</summary>
    LooseTooth = 2,
}

/// <summary>What the complaints of a day leave of it (every effect a hard limit; common practice).</summary>
/// <param name="Today">What was told today, the oldest first.</param>
/// <param name="Yesterday">What was told the day before.</param>
/// <param name="Mouth">What the teeth ask for.</param>
public sealed record HealthDay(IReadOnlyList<HealthTap> Today, IReadOnlyList<HealthTap> Yesterday, MouthNote Mouth)
{
    /// <summary>Nothing told, nothing noted.</summary>
    public static HealthDay Well { get; } = new([], [], MouthNote.None);

    /// <summary>What ends playing for today, the gravest first; null for nothing.</summary>
    public Complaint? Ends =>
        Today
            .Select(tap => tap.Complaint)
            .Where(complaint => complaint.Effect >= HealthEffect.EndsPlaying)
            .MaxBy(complaint => complaint.Effect);

    /// <summary>Whether breath drills are over for today.</summary>
    public bool BreathLocked => Today.Any(tap => tap.Complaint.Effect >= HealthEffect.LocksBreath);

    /// <summary>
    /// Whether what is played is to be half as long, with twice the rest: something tingles or is tired today, the lips ended the day
    /// before, or the teeth ask for it.
    /// </summary>
    public bool Halves =>
        Mouth != MouthNote.None || Today.Any(tap => tap.Complaint.Effect == HealthEffect.Shortens) || Yesterday.Any(IsOfTheLips);

    /// <summary>Whether no cue may firm, and gates are wider: braces, teeth, or lips that complained.</summary>
    public bool Softens => Halves;

    /// <summary>What is said of the day, each once; empty when all is well.</summary>
    public IReadOnlyList<string> Words =>
        [
            .. Today.Select(tap => tap.Complaint.Words).Distinct(),
            .. Ends is not null && Today.Any(IsOfTheLips) && Yesterday.Any(IsOfTheLips)
                ? ["The second day: show your teacher before you play again."]
                : (IEnumerable<string>)[],
            .. Today.Count == 0 && Yesterday.Any(IsOfTheLips)
                ? ["Your lips stopped you yesterday: half as long today, soft and low."]
                : (IEnumerable<string>)[],
            .. Mouth != MouthNote.None ? ["Short and soft for now: light rim, middle notes."] : (IEnumerable<string>)[],
        ];

    /// <summary>Why something may not be done now, in sentences; null where it may.</summary>
    /// <param name="what">What somebody wants to do.</param>
    /// <param name="now">The moment.</param>
    public string? Refusal(HealthActivity what, DateTime now)
    {
        var ending = Today.Select(tap => tap.Complaint).Where(complaint => complaint.Effect >= Bar(what)).ToList();
        if (ending.Count > 0)
            return ending.MaxBy(complaint => complaint.Effect)!.Words;
        return RestLeft(now) is > 0 and var left ? $"Rest first: {PlayingClock.Minutes(left)} more." : null;
    }

    /// <summary>Seconds of rest still to come before anything; 0 for none.</summary>
    public double RestLeft(DateTime now) => Today.Select(tap => tap.Complaint.RestSeconds - (now - tap.At).TotalSeconds).Append(0).Max();

    /// <summary>The least effect that forbids something.</summary>
    private static HealthEffect Bar(HealthActivity what) =>
        what switch
        {
            HealthActivity.Breathing => HealthEffect.LocksBreath,
            HealthActivity.Playing => HealthEffect.EndsPlaying,
            _ => HealthEffect.EndsDay,
        };

    private static bool IsOfTheLips(HealthTap tap) => tap.Complaint is { Group: "lips", Effect: HealthEffect.EndsPlaying };
}
