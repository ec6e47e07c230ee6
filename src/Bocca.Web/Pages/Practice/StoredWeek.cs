using Bocca.Core.Practice.Week;
using Bocca.Web.Record.Shapes;

namespace Bocca.Web.Pages.Practice;

/// <summary>How much is to be done.</summary>
/// <param name="Counts">Beats of it, all rounds together.</param>
/// <param name="Sounding">Beats that sound.</param>
/// <param name="Tempo">Beats a minute.</param>
/// <param name="PlayedSeconds">Seconds that count as playing.</param>
public sealed record StoredAmount(double Counts, double Sounding, double Tempo, double PlayedSeconds) : StoredShape
{
    /// <summary>How often; null in older records: once.</summary>
    public int? Times { get; init; }

    public static StoredAmount Of(Amount amount) =>
        new(amount.Counts, amount.Sounding, amount.Tempo, amount.PlayedSeconds) { Times = amount.Times };

    public Amount Read() => new(Counts, Sounding, Tempo, PlayedSeconds) { Times = Times ?? 1 };
}

/// <summary>An item of a week.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Name">Its name then.</param>
/// <param name="Kind">A name of <see cref="StoredNames.WeekKinds"/>.</param>
/// <param name="Amount">How much.</param>
/// <param name="Urgency">How urgent it was.</param>
/// <param name="Done">What was done of it.</param>
/// <param name="Why">Why it stands there.</param>
public sealed record StoredWeekItem(string Id, string Name, string Kind, StoredAmount Amount, double Urgency, string Done, string Why)
    : StoredShape
{
    public double? HighSeconds { get; init; }

    public double? LipSeconds { get; init; }

    public double? BreathSeconds { get; init; }

    public int? From { get; init; }

    public int? Most { get; init; }

    public IReadOnlyList<int>? Locked { get; init; }

    public IReadOnlyList<int>? Stands { get; init; }

    public static StoredWeekItem Of(WeekItem item) =>
        new(item.Id, item.Name, StoredNames.WeekKinds[item.Kind], StoredAmount.Of(item.Amount), item.Urgency, item.Done, item.Why)
        {
            HighSeconds = item.HighSeconds,
            LipSeconds = item.LipSeconds,
            BreathSeconds = item.BreathSeconds,
            From = item.From,
            Most = item.Most,
            Locked = item.Locked,
            Stands = item.Stands,
        };

    public WeekItem Read()
    {
        var item = new WeekItem(Id, Name, StoredNames.WeekKinds.Read(Kind), Amount.Read(), Urgency, Done, Why);
        return item with
        {
            HighSeconds = HighSeconds ?? 0,
            LipSeconds = LipSeconds ?? 0,
            BreathSeconds = BreathSeconds ?? 0,
            From = From ?? 0,
            Most = Most ?? item.Most,
            Locked = Locked,
            Stands = Stands,
        };
    }
}

/// <summary>A round of a week.</summary>
/// <param name="Item">What is done.</param>
/// <param name="RestSeconds">Rest after it.</param>
public sealed record StoredRound(StoredWeekItem Item, double RestSeconds) : StoredShape;

/// <summary>A week as the record holds it.</summary>
/// <param name="First">Its first day.</param>
/// <param name="Days">The rounds of each day.</param>
/// <param name="Minutes">Minutes that were free on each day.</param>
/// <param name="Left">What found no day, and why.</param>
public sealed record StoredWeek(
    DateOnly First,
    IReadOnlyList<IReadOnlyList<StoredRound>> Days,
    IReadOnlyList<double> Minutes,
    IReadOnlyList<string> Left
) : StoredShape
{
    public static PayloadShape<WeekPayload, StoredWeek> Shape { get; } = new(Of, stored => stored.Read());

    public string? OnlyNote { get; init; }

    public string? Exam { get; init; }

    private static StoredWeek Of(WeekPayload week) =>
        new(
            week.First,
            [.. week.Days.Select(day => day.Select(round => new StoredRound(StoredWeekItem.Of(round.Item), round.RestSeconds)).ToList())],
            week.Minutes,
            week.Left
        )
        {
            OnlyNote = week.OnlyNote,
            Exam = week.Exam,
        };

    private WeekPayload Read() =>
        new(
            First,
            [.. Days.Select(day => day.Select(round => new KeptRound(round.Item.Read(), round.RestSeconds)).ToList())],
            Minutes,
            Left
        )
        {
            OnlyNote = OnlyNote,
            Exam = Exam,
        };
}
