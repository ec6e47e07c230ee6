using Bocca.Core.Breath;
using Bocca.Core.Teaching;
using CsCheck;

namespace Bocca.Core.Tests.Breath;

public class BreathPlanTests
{
    private static readonly BreathingPupil Grown = new(14, BreathHealth.None, false);

    private static readonly Gen<BreathPattern> AnyPattern = Gen.Select(
        Gen.Select(
            Gen.Enum<BreathPhaseKind>(),
            Gen.OneOf(Gen.Double[0.1, 30], Gen.Int[1, 8].Select(count => (double)count)),
            (kind, counts) => new BreathPhase(kind, counts)
        ).List[1, 8],
        Gen.Int[1, 40],
        (phases, cycles) => new BreathPattern("any", phases, cycles)
    );

    private static readonly Gen<BreathingPupil> AnyPupil = Gen.Select(
        Gen.Int[4, 90].Nullable(),
        Gen.Int[0, 15],
        Gen.Bool,
        (age, health, agrees) => new BreathingPupil(age, (BreathHealth)health, agrees)
    );

    private static readonly Gen<BreathDay> AnyDay = Gen.Select(
        Gen.Double[0, 400],
        Gen.Int[0, 5],
        Gen.Int[0, 3],
        Gen.Int[0, 8],
        Gen.Double[0, 100],
        Gen.Bool,
        (seconds, holds, exchanges, quick, since, dizzy) => new BreathDay(seconds, holds, exchanges, quick, holds > 0 ? since : null, dizzy)
    );

    // The limits as written out again here, from the safety table of the trade (ours, editable downward only).
    [Fact]
    public void No_combination_of_settings_exceeds_a_limit() =>
        Gen.Select(
                Gen.OneOfConst([.. BreathDrill.All]),
                Gen.OneOf(AnyPattern, Gen.OneOfConst([.. BreathDrill.All.SelectMany(drill => drill.Rungs)])),
                Gen.Double[30, 170],
                AnyPupil,
                AnyDay
            )
            .Sample(
                (drill, pattern, tempo, pupil, day) =>
                {
                    var (plan, refusal) = BreathPlan.Make(drill, pattern, tempo, pupil, day);
                    Assert.True(plan is null != (refusal is null));
                    if (plan is null)
                        return;
                    Assert.False(day.Dizzy);
                    Assert.True(day.Seconds + plan.DrilledSeconds <= 300.001);
                    Assert.True(plan.HeldBreaths == 0 || day.HoldRounds + plan.HeldBreaths <= 3);
                    var fast = 0;
                    foreach (var breath in ByInBreath(plan.Phases))
                    {
                        double Of(BreathPhaseKind kind) => breath.Where(phase => phase.Kind == kind).Sum(phase => phase.Seconds);
                        Assert.True(Of(BreathPhaseKind.Out) <= 20.001);
                        Assert.True(Of(BreathPhaseKind.Hold) + Of(BreathPhaseKind.Sip) <= 8.001);
                        Assert.All(breath, phase => Assert.True(phase.Kind != BreathPhaseKind.Hold || phase.Seconds <= 4.001));
                        if (Of(BreathPhaseKind.Hold) > 0)
                        {
                            Assert.True(pupil.Age is null or >= 8);
                            Assert.True(pupil.Health == BreathHealth.None || pupil.DoctorAgrees);
                        }

                        if (Of(BreathPhaseKind.Sip) > 0)
                            Assert.True(pupil.Age >= 12);
                        if (pupil.Health != BreathHealth.None && !pupil.DoctorAgrees)
                            Assert.True(Of(BreathPhaseKind.Out) <= 8.001);
                        if (breath.Sum(phase => phase.Seconds) <= 2 && Of(BreathPhaseKind.In) > 0 && Of(BreathPhaseKind.Out) > 0)
                            fast++;
                    }

                    Assert.True(fast <= 8);
                    Assert.True(fast == 0 || tempo <= 80);
                    Assert.True(pupil.Health == BreathHealth.None || plan.Caution!.Contains("doctor's advice"));
                },
                iter: 20000
            );

    [Theory]
    [InlineData(6, 60, "A hold of 6 s")]
    [InlineData(5, 70, "A hold of 4.3 s")]
    public void A_long_hold_is_refused(double counts, double tempo, string sentence) =>
        Assert.Contains(
            sentence,
            Refused("in-hold-out", tempo, 1, (BreathPhaseKind.In, 4), (BreathPhaseKind.Hold, counts), (BreathPhaseKind.Out, 4))
        );

    [Fact]
    public void A_hold_in_two_halves_is_one_hold() =>
        Assert.Contains(
            "A hold of 6 s",
            Refused(
                "in-hold-out",
                80,
                1,
                (BreathPhaseKind.In, 4),
                (BreathPhaseKind.Hold, 4),
                (BreathPhaseKind.Hold, 4),
                (BreathPhaseKind.Out, 4)
            )
        );

    [Fact]
    public void Nine_fast_cycles_are_refused_however_they_are_written()
    {
        (BreathPhaseKind, double)[] one = [(BreathPhaseKind.In, 1), (BreathPhaseKind.Out, 1)];
        Assert.Contains("9 fast cycles", Refused("equal-exchange", 60, 9, one));
        Assert.Contains("9 fast cycles", Refused("paced-breath", 80, 1, [.. Enumerable.Repeat(one, 9).SelectMany(pair => pair)]));
        Assert.Contains("80 beats a minute", Refused("equal-exchange", 81, 4, one));
    }

    [Fact]
    public void A_day_has_its_limits()
    {
        string Why(string drill, int rung, BreathDay day) =>
            BreathPlan.Make(BreathDrill.Get(drill), BreathDrill.Get(drill).Rungs[rung], 80, Grown, day).Refusal!;
        Assert.Contains("dizzy", Why("paced-breath", 0, BreathDay.Fresh with { Dizzy = true }));
        Assert.Contains("5 is the most", Why("paced-breath", 0, BreathDay.Fresh with { Seconds = 295 }));
        Assert.Contains("3 held breaths a day", Why("in-hold-out", 1, BreathDay.Fresh with { HoldRounds = 2 }));
        Assert.Contains("20 s more", Why("in-hold-out", 1, BreathDay.Fresh with { HoldRounds = 1, SecondsSinceHold = 10 }));
        Assert.Contains("once is enough", Why("equal-exchange", 0, BreathDay.Fresh with { Exchanges = 1 }));
        Assert.Contains("6 quick breaths", Why("quick-breath", 0, BreathDay.Fresh with { QuickTries = 5 }));
    }

    [Fact]
    public void Health_and_age_take_drills_away()
    {
        var daily = Approach.Of(ApproachPreset.LipsFirst).With("breath.push", "b");
        string[] Offered(BreathingPupil pupil) => [.. BreathDrill.OfferedTo(pupil, daily).Select(drill => drill.Id)];
        Assert.Contains("hold-top-up", Offered(Grown));
        Assert.DoesNotContain("hold-top-up", Offered(Grown with { Age = 11 }));
        Assert.DoesNotContain("hold-top-up", Offered(BreathingPupil.Unknown));
        Assert.DoesNotContain("in-hold-out", Offered(Grown with { Age = 7 }));
        var asthma = Grown with { Health = BreathHealth.Breathing };
        Assert.DoesNotContain("in-hold-out", Offered(asthma));
        Assert.DoesNotContain("equal-exchange", Offered(asthma));
        Assert.Contains("paced-breath", Offered(asthma));
        Assert.Contains("inhaler", asthma.Caution);
        Assert.DoesNotContain(
            "in-hold-out",
            BreathDrill.OfferedTo(Grown, Approach.Of(ApproachPreset.MouthpieceFirst)).Select(drill => drill.Id)
        );
    }

    [Fact]
    public void A_held_breath_is_followed_by_half_a_minute_of_plain_breath()
    {
        var plan = BreathPlan
            .Make(BreathDrill.Get("in-hold-out"), BreathDrill.Get("in-hold-out").Rungs[1], 80, Grown, BreathDay.Fresh)
            .Plan!;
        var rest = Assert.Single(plan.Phases, phase => phase.Kind == BreathPhaseKind.Rest);
        Assert.True(rest.Seconds >= 30);
        Assert.Equal(2, plan.HeldBreaths);
        Assert.True(plan.Drill.Seated);
    }

    // Worked out by hand: counts x 60 / tempo.
    [Fact]
    public void Counts_become_seconds()
    {
        Assert.Equal([3, 6, 9, 12, 15, 18], new[] { 4.0, 8, 12, 16, 20, 24 }.Select(counts => Counts.Seconds(counts, 80)));
        Assert.Equal(10.5, Counts.Seconds(14, 80));
        var rests = RestForBreath.At(80, 0.3);
        Assert.Equal([3, 1.5, 0.75, 0.375, 0.1875, 0.09375], rests.Select(rest => rest.Seconds));
        Assert.Equal([true, true, true, true, false, false], rests.Select(rest => rest.Usable!.Value));
        Assert.Equal(0.125, RestForBreath.At(120, null)[4].Seconds);
    }

    private static string Refused(string drill, double tempo, int cycles, params (BreathPhaseKind Kind, double Counts)[] phases) =>
        BreathPlan
            .Make(
                BreathDrill.Get(drill),
                new BreathPattern("asked", [.. phases.Select(phase => new BreathPhase(phase.Kind, phase.Counts))], cycles),
                tempo,
                Grown,
                BreathDay.Fresh
            )
            .Refusal!;

    private static List<List<TimedPhase>> ByInBreath(IEnumerable<TimedPhase> phases)
    {
        var breaths = new List<List<TimedPhase>> { new() };
        foreach (var phase in phases)
        {
            if (phase.Kind == BreathPhaseKind.In)
                breaths.Add([]);
            breaths[^1].Add(phase);
        }

        return breaths;
    }
}
