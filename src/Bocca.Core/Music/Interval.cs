namespace Bocca.Core.Music;

/// <summary>The distance from one spelled pitch to another.</summary>
/// <param name="Steps">Steps of the staff, upwards positive: a third is 2.</param>
/// <param name="Semitones">Semitones, upwards positive: a major third is 4.</param>
public readonly record struct Interval(int Steps, int Semitones)
{
    /// <summary>The interval that leads back.</summary>
    public Interval Inverse => new(-Steps, -Semitones);

    /// <summary>In words. (Left to the compiler it would write out the way back, and that one's way back, without end.)</summary>
    public override string ToString() => $"{Steps} steps, {Semitones} semitones";

    /// <summary>The interval from one pitch to another.</summary>
    public static Interval Between(Pitch from, Pitch to) => new(to.StaffStep - from.StaffStep, to.Midi - from.Midi);
}
