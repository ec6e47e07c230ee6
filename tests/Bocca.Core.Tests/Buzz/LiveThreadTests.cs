using Bocca.Core.Buzz;
using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Simulation;
using Bocca.Core.Teaching;

namespace Bocca.Core.Tests.Buzz;

public class LiveThreadTests
{
    private static readonly SimulatedTake Take = SimulatedPlayer.Play(
        Catalogue.Get("trumpet-bb"),
        SoundStage.Mouthpiece,
        new CuePlan(160, 2, 2, 2),
        [Fault.Parse("drift=60")],
        3,
        Tuning.Standard
    );

    private static List<List<LivePoint>> Stream(int block)
    {
        var live = new LiveThread(Take.Sound.SampleRate, 80);
        var answers = new List<List<LivePoint>>();
        for (var at = 0; at < Take.Sound.Samples.Length; at += block)
        {
            var points = new List<LivePoint>();
            live.Push(Take.Sound.Samples.AsSpan(at, Math.Min(block, Take.Sound.Samples.Length - at)), points);
            answers.Add(points);
        }

        return answers;
    }

    [Fact]
    public void Decided_points_come_once_and_do_not_hang_on_the_blocks()
    {
        var decided = Stream(882).SelectMany(points => points).Where(point => point.Decided).ToList();
        Assert.Equal(decided.Count, decided.Select(point => point.Frame).Distinct().Count());
        Assert.Equal(decided, Stream(5000).SelectMany(points => points).Where(point => point.Decided));
        Assert.Equal([1, 2], decided.Select(point => point.Try).Distinct());
    }

    [Fact]
    public void The_newest_point_is_seldom_more_than_45_ms_behind_the_samples()
    {
        var answers = Stream(882);
        var tone = Take.Tones[0];
        for (var i = 0; i < answers.Count; i++)
        {
            var heard = (i + 1) * 882.0 / Take.Sound.SampleRate;
            if (heard < tone.StartSeconds + 0.2 || heard > tone.EndSeconds - 0.1)
                continue;
            Assert.InRange(heard - ((answers[i][^1].Frame + 0.5) * 0.01), 0, 0.045);
            Assert.NotNull(answers[i][^1].Cents);
        }
    }

    [Fact]
    public void Guesses_are_close_to_what_is_decided()
    {
        var answers = Stream(882);
        var decided = answers.SelectMany(points => points).Where(point => point.Decided).ToDictionary(point => point.Frame);
        // A guess stands on the screen until another is told, or the decision.
        var (shown, off) = (new Dictionary<int, LivePoint>(), new List<double>());
        foreach (var answer in answers)
        {
            foreach (var point in answer)
                shown[point.Frame] = point;
            off.AddRange(
                shown
                    .Values.Where(point => !point.Decided && point.Cents is not null)
                    .Where(point => decided.TryGetValue(point.Frame, out var final) && final.Cents is not null)
                    .Select(point => Math.Abs(point.Cents!.Value - decided[point.Frame].Cents!.Value))
            );
        }

        // Few are told twice: what is shown stands.
        Assert.InRange(answers.Sum(answer => answer.Count(point => !point.Decided)), 1, off.Count / 2);
        Assert.True(off.Count > 300);
        Assert.InRange(off.Count(cents => cents > 1) / (double)off.Count, 0, 0.05);
    }

    [Fact]
    public void A_drift_is_seen_rising_from_the_middle_of_the_gate()
    {
        var first = Stream(882).SelectMany(points => points).Where(point => point is { Decided: true, Try: 1, Cents: not null }).ToList();
        Assert.InRange(first.First(point => point.Seconds > 0.1).Cents!.Value, -15, 15);
        Assert.InRange(first.Last(point => point.Seconds < 0.6).Cents!.Value, 15, 50);
    }
}
