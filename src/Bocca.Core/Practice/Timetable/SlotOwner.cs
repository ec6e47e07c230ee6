namespace Bocca.Core.Practice.Timetable;

/// <summary>Whose a lesson is: one pupil's or a class's.</summary>
public sealed record SlotOwner
{
    private SlotOwner(int? pupil, string className) => (Pupil, ClassName) = (pupil, className);

    /// <summary>The pupil, by number; null for a class.</summary>
    public int? Pupil { get; }

    /// <summary>The class; empty for a pupil.</summary>
    public string ClassName { get; }

    /// <summary>One pupil's.</summary>
    public static SlotOwner OfPupil(int pupil) => new(pupil, "");

    /// <summary>A class's.</summary>
    /// <exception cref="ArgumentException">The class has no name.</exception>
    public static SlotOwner OfClass(string name) => name == "" ? throw new ArgumentException("A class needs a name.") : new(null, name);
}
