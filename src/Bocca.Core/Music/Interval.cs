namespace Bocca.Core.Music;

/// <summary>The distance from one spelled pitch to another.</summary>
/// <param name="Steps">Steps of the staff, upwards positive: a third is 2.</param>
/// <param name="Semitones">Semitones, upwards positive: a major third is 4.</param>
public readonly record struct Interval(int Steps, int Semitones)
{
    private static readonly string[] Names =
    [
        "less than a semitone",
        "a semitone",
        "a tone",
        "a minor third",
        "a third",
        "a fourth",
        "a tritone",
        "a fifth",
        "a minor sixth",
        "a sixth",
        "a minor seventh",
        "a major seventh",
        "an octave",
    ];

    /// <summary>The interval that leads back.</summary>
    public Interval Inverse => new(-Steps, -Semitones);

    /// <summary>In words. (Left to the compiler it would write out the way back, and that one's way back, without end.)</summary>
    public override string ToString() => $"{Steps} steps, {Semitones} semitones";

    /// <summary>The interval from one pitch to another.</summary>
    public static Interval Between(Pitch from, Pitch to) => new(to.StaffStep - from.StaffStep, to.Midi - from.Midi);

    /// <summary>The name of the interval nearest to a distance, up or down, such as <c>a fifth</c>; beyond an octave in octaves.</summary>
    /// <param name="cents">The distance in cents.</param>
    public static string About(double cents)
    {
        var semitones = (int)Math.Round(Math.Abs(cents) / 100);
        return semitones < Names.Length ? Names[semitones]
            : semitones < 24 ? "over an octave"
            : "two octaves or more";
    }
}
