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

    /// <summary>A recent operation.</summary>
    Surgery = 8,
}

/// <summary>Who breathes, as far as safety goes.</summary>
/// <param name="Age">Age in whole years, the lower where unsure; null if nobody said.</param>
/// <param name="Health">What is noted.</param>
/// <param name="DoctorAgrees">Whether a guardian has said that the pupil's doctor agrees.</param>
public sealed record BreathingPupil(int? Age, BreathHealth Health, bool DoctorAgrees)
{
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
}
