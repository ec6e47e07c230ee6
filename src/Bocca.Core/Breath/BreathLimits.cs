using Bocca.Core.Teaching;

namespace Bocca.Core.Breath;

/// <summary>
/// The most that a breath drill may ask. <see cref="Ceiling"/> holds for everybody; age and health only lower it
/// (ours, editable downward only; a doctor's advice goes before all of it).
/// </summary>
public sealed record BreathLimits
{
    /// <summary>The hard limits.</summary>
    public static BreathLimits Ceiling { get; } =
        new()
        {
            HoldSeconds = 4,
            HeldSecondsPerBreath = 8,
            Sips = 2,
            HoldRounds = 3,
            OutCounts = 24,
            OutSeconds = 20,
            FastCycles = 8,
            FastTempo = 80,
            ExchangesPerDay = 1,
            QuickTriesPerDay = 6,
            SecondsPerDay = 300,
            RestAfterHoldSeconds = 30,
        };

    /// <summary>The limits of a teacher, which only lower the ceiling.</summary>
    public static BreathLimits Of(OwnSettings own) => own.In(Ceiling, Lowered).Within(Ceiling);

    private static IReadOnlyList<NumberIn<BreathLimits>> Lowered { get; } =
    [
        Lower("holdSeconds", "one hold", "s", Ceiling.HoldSeconds, (limits, value) => limits with { HoldSeconds = value }),
        Lower(
            "heldSecondsPerBreath",
            "held in one breath, with sips",
            "s",
            Ceiling.HeldSecondsPerBreath,
            (limits, value) => limits with { HeldSecondsPerBreath = value }
        ),
        Lower("sips", "sips in a breath", "", Ceiling.Sips, (limits, value) => limits with { Sips = (int)value }),
        Lower("holdRounds", "held breaths a day", "", Ceiling.HoldRounds, (limits, value) => limits with { HoldRounds = (int)value }),
        Lower("outSeconds", "one out-breath", "s", Ceiling.OutSeconds, (limits, value) => limits with { OutSeconds = value }, least: 4),
        Lower(
            "fastCycles",
            "cycles of one in, one out",
            "",
            Ceiling.FastCycles,
            (limits, value) => limits with { FastCycles = (int)value }
        ),
        Lower(
            "quickTriesPerDay",
            "quick breaths a day",
            "",
            Ceiling.QuickTriesPerDay,
            (limits, value) => limits with { QuickTriesPerDay = (int)value }
        ),
        Lower(
            "secondsPerDay",
            "breath drills a day",
            "s",
            Ceiling.SecondsPerDay,
            (limits, value) => limits with { SecondsPerDay = value },
            least: 30
        ),
    ];

    /// <summary>What a teacher may set lower.</summary>
    public static IReadOnlyList<NumberSetting> Settings { get; } = [.. Lowered.Select(number => number.Setting)];

    private static NumberIn<BreathLimits> Lower(
        string id,
        string name,
        string unit,
        double most,
        Func<BreathLimits, double, BreathLimits> put,
        double least = 0
    ) =>
        new(
            new NumberSetting(
                $"breath.{id}",
                "breath",
                name,
                unit,
                "at most; age and health lower it further",
                most,
                least,
                most,
                IsWhole: true
            ),
            put
        );

    /// <summary>Seconds of one hold.</summary>
    public required double HoldSeconds { get; init; }

    /// <summary>Seconds held in all in one breath, sips and all.</summary>
    public required double HeldSecondsPerBreath { get; init; }

    /// <summary>Sips in one breath.</summary>
    public required int Sips { get; init; }

    /// <summary>Held breaths a day.</summary>
    public required int HoldRounds { get; init; }

    /// <summary>Counts of one out-breath.</summary>
    public required double OutCounts { get; init; }

    /// <summary>Seconds of one out-breath.</summary>
    public required double OutSeconds { get; init; }

    /// <summary>Cycles of one count in, one count out, in a set.</summary>
    public required int FastCycles { get; init; }

    /// <summary>Fastest tempo of an exchange, beats a minute.</summary>
    public required double FastTempo { get; init; }

    /// <summary>Sets of exchange a day.</summary>
    public required int ExchangesPerDay { get; init; }

    /// <summary>Quick breaths a day.</summary>
    public required int QuickTriesPerDay { get; init; }

    /// <summary>Seconds of breath drills a day.</summary>
    public required double SecondsPerDay { get; init; }

    /// <summary>Seconds of plain breath after a held one, at least.</summary>
    public required double RestAfterHoldSeconds { get; init; }

    /// <summary>The limits of a pupil: the ceiling, lowered by age and by health.</summary>
    public static BreathLimits For(BreathingPupil pupil) => Own(pupil).Within(pupil.Most);

    private static BreathLimits Own(BreathingPupil pupil)
    {
        // Where nobody said how old somebody is, the limits of a child hold.
        var age = pupil.Age ?? 8;
        var limits = Ceiling;
        if (age < 12)
            limits = limits.Within(
                Ceiling with
                {
                    HoldSeconds = 3,
                    HeldSecondsPerBreath = 3,
                    Sips = 0,
                    HoldRounds = 2,
                    OutSeconds = 16,
                    FastCycles = 4,
                    SecondsPerDay = 240,
                }
            );
        if (age < 8)
            limits = limits.Within(
                Ceiling with
                {
                    HoldSeconds = 0,
                    HeldSecondsPerBreath = 0,
                    Sips = 0,
                    HoldRounds = 0,
                    OutSeconds = 10,
                    FastCycles = 0,
                    ExchangesPerDay = 0,
                    QuickTriesPerDay = 3,
                    SecondsPerDay = 180,
                }
            );
        if (pupil.Health == BreathHealth.None)
            return limits;
        return pupil.DoctorAgrees
            ? limits.Within(
                Ceiling with
                {
                    HoldSeconds = 2,
                    HeldSecondsPerBreath = 2,
                    Sips = 0,
                    HoldRounds = 1,
                    OutSeconds = 12,
                    FastCycles = 4,
                    QuickTriesPerDay = 3,
                    SecondsPerDay = 180,
                }
            )
            : limits.Within(
                Ceiling with
                {
                    HoldSeconds = 0,
                    HeldSecondsPerBreath = 0,
                    Sips = 0,
                    HoldRounds = 0,
                    OutSeconds = 8,
                    FastCycles = 0,
                    ExchangesPerDay = 0,
                    QuickTriesPerDay = 0,
                    SecondsPerDay = 120,
                }
            );
    }

    /// <summary>The lower of two limits in everything.</summary>
    public BreathLimits Within(BreathLimits other) =>
        new()
        {
            HoldSeconds = Math.Min(HoldSeconds, other.HoldSeconds),
            HeldSecondsPerBreath = Math.Min(HeldSecondsPerBreath, other.HeldSecondsPerBreath),
            Sips = Math.Min(Sips, other.Sips),
            HoldRounds = Math.Min(HoldRounds, other.HoldRounds),
            OutCounts = Math.Min(OutCounts, other.OutCounts),
            OutSeconds = Math.Min(OutSeconds, other.OutSeconds),
            FastCycles = Math.Min(FastCycles, other.FastCycles),
            FastTempo = Math.Min(FastTempo, other.FastTempo),
            ExchangesPerDay = Math.Min(ExchangesPerDay, other.ExchangesPerDay),
            QuickTriesPerDay = Math.Min(QuickTriesPerDay, other.QuickTriesPerDay),
            SecondsPerDay = Math.Min(SecondsPerDay, other.SecondsPerDay),
            RestAfterHoldSeconds = Math.Max(RestAfterHoldSeconds, other.RestAfterHoldSeconds),
        };
}
