using Bocca.Core.Breath;
using Bocca.Core.Sound;

namespace Bocca.Core.Simulation;

/// <summary>
/// The practice player breathing: streams of air over a plan, with known faults; a stand-in for a pupil and a microphone.
/// </summary>
public static class SimulatedBreath
{
    private const double Level = 0.05;
    private const double GustHz = 1.3;

    /// <summary>How far slow air lies under the usual stream and fast air over it (dB).</summary>
    private const double SpeedDb = 5;

    /// <summary>Breathes a plan through. Of the faults it knows short, fade, break, late, silent and gusty.</summary>
    /// <param name="plan">What is asked.</param>
    /// <param name="faults">What goes wrong, by out-breath.</param>
    /// <param name="seed">Same seed, same samples.</param>
    public static MonoSound Play(BreathPlan plan, IReadOnlyList<Fault> faults, int seed)
    {
        var random = new Random(seed);
        var samples = new float[(int)Math.Ceiling((plan.TotalSeconds + 0.5) * SimulatedPlayer.SampleRate)];
        var room = new BreathNoise(random, 0.0004);
        for (var i = 0; i < samples.Length; i++)
            samples[i] = (float)room.Next();
        var number = 0;
        foreach (var phase in plan.OutBreaths)
        {
            number++;
            double Amount(FaultKind kind) => faults.Where(fault => fault.Kind == kind && fault.Befalls(number)).Sum(fault => fault.Amount);
            if (Amount(FaultKind.Silent) == 0)
                AddStream(samples, phase, Amount, new BreathNoise(random, Level * Math.Pow(10, Speed(phase.Air) / 20)));
        }

        return new MonoSound(samples, SimulatedPlayer.SampleRate, [.. plan.OutBreaths.Select(phase => phase.StartSeconds)]);
    }

    private static double Speed(AirSpeed air) =>
        air switch
        {
            AirSpeed.Slow => -SpeedDb,
            AirSpeed.Fast => SpeedDb,
            _ => 0,
        };

    private static void AddStream(float[] samples, TimedPhase phase, Func<FaultKind, double> amount, BreathNoise air)
    {
        var from = phase.StartSeconds + (amount(FaultKind.Late) / 1000) + 0.03;
        var length = (phase.Seconds * (1 - amount(FaultKind.Short))) - 0.03;
        var (fade, gust, hole) = (amount(FaultKind.Fade), amount(FaultKind.Gusty), amount(FaultKind.Break) / 1000);
        var last = Math.Min(samples.Length, (int)((from + length) * SimulatedPlayer.SampleRate));
        for (var i = (int)(from * SimulatedPlayer.SampleRate); i < last; i++)
        {
            var t = ((double)i / SimulatedPlayer.SampleRate) - from;
            var level =
                Math.Min(1, Math.Min(t / 0.05, (length - t) / 0.05))
                * Math.Pow(10, -fade * t / 20)
                * (1 + (gust * Math.Sin(2 * Math.PI * GustHz * t)));
            if (Math.Abs(t - (length / 2)) < hole / 2)
                level = 0;
            samples[i] += (float)(air.Next() * level);
        }
    }
}
