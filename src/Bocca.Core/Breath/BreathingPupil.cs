namespace Bocca.Core.Breath;

/// <summary>What is known about a pupil's health that a breath drill must heed.</summary>
[Flags]
public enum BreathHealth
{
    /// <summary>Nothing noted.</summary>
    None = 0,

    /// <summary>Asthma or another breathing condition.</summary>
    Breathing = 1,

    /// <summary>A heart condition.</summary>
    Heart = 2,

    /// <summary>Fainting, or dizziness before.</summary>
    Dizziness = 4,

    /// <summary>A recent operation, of ear, nose or teeth too.</summary>
    Surgery = 8,

    /// <summary>Seizures.</summary>
    Seizures = 16,

    /// <summary>Pregnancy.</summary>
    Pregnancy = 32,

    /// <summary>High pressure in an eye.</summary>
    EyePressure = 64,

    /// <summary>A hernia.</summary>
    Hernia = 128,

    /// <summary>A lung that has collapsed before.</summary>
    CollapsedLung = 256,

    /// <summary>Easy breaths only, for a reason that is not noted here.</summary>
    Unsaid = 512,
}

/// <summary>Who breathes, as far as safety goes.</summary>
/// <param name="Age">Age in whole years, the lower where unsure; null if nobody said.</param>
/// <param name="Health">What is noted.</param>
/// <param name="DoctorAgrees">Whether a guardian has said that the pupil's doctor agrees.</param>
public sealed record BreathingPupil(int? Age, BreathHealth Health, bool DoctorAgrees)
{
    /// <summary>The most that the pupil's teacher allows.</summary>
    public BreathLimits Most { get; init; } = BreathLimits.Ceiling;

    /// <summary>Somebody nobody knows anything about.</summary>
    public static BreathingPupil Unknown { get; } = new(null, BreathHealth.None, false);

    /// <summary>The caution to be shown with every drill; null where there is none.</summary>
    public string? Caution =>
        Health == BreathHealth.None
            ? null
            : "Easy breaths only, and stop at any discomfort. "
                + (Health.HasFlag(BreathHealth.Breathing) ? "Keep your own inhaler near. " : "")
                + "Follow your own doctor's advice.";
}

/// <summary>What has been done today already.</summary>
/// <param name="Seconds">Seconds of breath drills.</param>
/// <param name="HoldRounds">Breaths held.</param>
/// <param name="Exchanges">Sets of fast exchange.</param>
/// <param name="QuickTries">Quick breaths tried.</param>
/// <param name="SecondsSinceHold">Seconds since the last breath was held; null if none was.</param>
/// <param name="Dizzy">Whether somebody felt dizzy today.</param>
public sealed record BreathDay(double Seconds, int HoldRounds, int Exchanges, int QuickTries, double? SecondsSinceHold, bool Dizzy)
{
    /// <summary>Nothing done yet.</summary>
    public static BreathDay Fresh { get; } = new(0, 0, 0, 0, null, false);

    /// <summary>Adds up a day. What was taken from the record counts too, for it was breathed.</summary>
    /// <param name="done">The drills of the day, whole or stopped; those Bocca no longer knows count by their seconds.</param>
    /// <param name="dizzy">Whether somebody felt dizzy.</param>
    /// <param name="now">The moment.</param>
    public static BreathDay Of(IReadOnlyCollection<BreathDone> done, bool dizzy, DateTime now)
    {
        var known = BreathDrill.All.ToDictionary(drill => drill.Id);
        BreathPattern? Pattern(BreathDone each) =>
            known.TryGetValue(each.DrillId, out var drill) && each.Rung < drill.Rungs.Count ? drill.Rungs[each.Rung] : null;
        bool Is(BreathDone each, BreathKind kind) => known.TryGetValue(each.DrillId, out var drill) && drill.Kind == kind;
        var held = done.Where(each => Pattern(each)?.HeldBreaths > 0).ToList();
        return new BreathDay(
            done.Sum(each => each.Seconds),
            held.Sum(each => Pattern(each)!.HeldBreaths),
            done.Count(each => Is(each, BreathKind.Exchange)),
            done.Where(each => Is(each, BreathKind.Quick)).Sum(each => Pattern(each)?.Cycles ?? 1),
            held.Count == 0 ? null : (now - held.Max(each => each.At)).TotalSeconds,
            dizzy
        );
    }
}
