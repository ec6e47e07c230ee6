namespace Bocca.Core.Practice.Week;

/// <summary>What an item of a week is for.</summary>
public enum WeekKind
{
    /// <summary>First of every day.</summary>
    WarmUp,

    /// <summary>Against the open fault.</summary>
    Fault,

    /// <summary>Something new.</summary>
    New,

    /// <summary>Something to recall before it is forgotten.</summary>
    Recall,

    /// <summary>Towards a gate that is near.</summary>
    Gate,

    /// <summary>From the teacher's own books.</summary>
    Paper,

    /// <summary>Something liked.</summary>
    Liked,

    /// <summary>Something a little too hard.</summary>
    Stretch,
}

/// <summary>Something that a week may hold.</summary>
/// <param name="Id">Its name: <c>stop:drill</c>, or a name of its own.</param>
/// <param name="Name">Its name for people.</param>
/// <param name="Kind">What it is for.</param>
/// <param name="Amount">How much of it is one round.</param>
/// <param name="Urgency">How much it wants doing, 0 to 10.</param>
/// <param name="Done">What done means.</param>
/// <param name="Why">Why it is there.</param>
public sealed record WeekItem(string Id, string Name, WeekKind Kind, Amount Amount, double Urgency, string Done, string Why)
{
    /// <summary>Seconds of a round above the ceiling.</summary>
    public double HighSeconds { get; init; }

    /// <summary>Seconds of a round on the lips alone.</summary>
    public double LipSeconds { get; init; }

    /// <summary>Seconds of a round that are a breath drill.</summary>
    public double BreathSeconds { get; init; }

    /// <summary>The first day of the week on which it may be done, from 0.</summary>
    public int From { get; init; }

    /// <summary>On how many days of the week at most.</summary>
    public int Most { get; init; } = 7;

    /// <summary>Days locked by hand: it is on these and no others; null for as the plan finds.</summary>
    public IReadOnlyList<int>? Locked { get; init; }

    /// <summary>
    /// The days on which it stands, where something else is changed by hand: it leaves them only where it must; null for none.
    /// </summary>
    public IReadOnlyList<int>? Stands { get; init; }

    /// <summary>The same so many times in a row.</summary>
    public WeekItem Repeated(int times) =>
        this with
        {
            Amount = Amount.Repeated(times),
            HighSeconds = HighSeconds * times,
            LipSeconds = LipSeconds * times,
            BreathSeconds = BreathSeconds * times,
        };

    /// <summary>Whether it makes a sound.</summary>
    public bool Sounds => Amount.PlayedSeconds > 0;
}
