using System.CommandLine;
using Bocca.Core.Breath;
using Bocca.Core.Health;
using Bocca.Core.Instruments;
using Bocca.Core.Practice.Week;
using Bocca.Core.Teaching;
using Bocca.Core.Tone.Notes;

namespace Bocca.Cli;

/// <summary><c>bocca week</c>: a week's rounds.</summary>
public static class WeekCommand
{
    /// <summary>Weeks from which on scales and slurs are usual (common practice).</summary>
    private const int SecondFrom = 26;

    /// <summary>The command.</summary>
    public static Command Create()
    {
        var instrument = CommandLine.InstrumentOption();
        var age = new Option<int>("--age") { Description = "Age in years.", Required = true };
        var weeks = new Option<int>("--weeks") { Description = "Weeks played so far.", Required = true };
        var days = new Option<int>("--days") { Description = "Days of the week with time, 1 to 7.", Required = true };
        var minutes = new Option<double>("--minutes") { Description = "Minutes on each of them.", Required = true };
        var exam = new Option<string?>("--exam") { Description = "The day of an exam, such as 2026-12-03." };
        var from = new Option<string?>("--from") { Description = "The first day of the week; needed with --exam." };
        var tired = new Option<int>("--tired") { Description = "How tired the lips are, 0 to 3." };
        var seed = new Option<int>("--seed") { Description = "Another seed, another choice between what is equally urgent." };
        var json = CommandLine.JsonOption();
        var command = new Command("week", "Plan a week of practice, round by round.")
        {
            instrument,
            age,
            weeks,
            days,
            minutes,
            exam,
            from,
            tired,
            seed,
            json,
        };
        command.SetAction(parsed =>
        {
            var who = CommandLine.Player(parsed.GetValue(instrument)!, null);
            var asked = Asked(
                new PlayerSituation(who.Instrument, who.Reading, PlayingConditions.Usual.Tuning),
                Between(parsed.GetValue(age), 4, 100, "age"),
                Between(parsed.GetValue(weeks), 0, 5000, "number of weeks"),
                Between(parsed.GetValue(days), 1, WeekAsked.Days, "number of days"),
                parsed.GetValue(minutes),
                parsed.GetValue(seed)
            ) with
            {
                Tired = Between(parsed.GetValue(tired), 0, 3, "tiredness"),
                Exam = ExamDay(parsed.GetValue(exam), parsed.GetValue(from)),
            };
            var plan = WeekPlanner.Plan(asked);
            if (parsed.GetValue(json))
                CommandLine.PrintJson(Shape(plan));
            else
                Print(plan);
            return CommandLine.Done;
        });
        return command;
    }

    private static WeekAsked Asked(PlayerSituation player, int age, int weeks, int days, double minutes, int seed)
    {
        var stage =
            weeks >= SecondFrom ? LearningStage.Second
            : weeks >= 1 ? LearningStage.FirstNotes
            : LearningStage.Mouthpiece;
        var breathing = new BreathingPupil(age, BreathHealth.None, false);
        var pupil = new WeekPupil(player, Approach.Of(ApproachPreset.MouthpieceFirst), stage, breathing, OwnSettings.None);
        var random = new Random(seed);
        var asked = new WeekAsked(
            // The days with time lie as far apart as they can.
            [.. Enumerable.Range(0, WeekAsked.Days).Select(day => day * days % WeekAsked.Days < days ? minutes : 0)],
            [.. StandardWeek.Items(pupil).Select(item => item with { Urgency = item.Urgency + (0.01 * random.NextDouble()) })],
            PlayingLimits.For(stage, 7 * weeks)
        )
        {
            BreathSecondsADay = BreathLimits.For(breathing).SecondsPerDay,
        };
        return asked with { Items = StandardWeek.Filling(asked.Items, minutes, asked) };
    }

    private static int? ExamDay(string? exam, string? from)
    {
        if (exam is null)
            return null;
        if (!DateOnly.TryParseExact(exam, "yyyy-MM-dd", out var day) || !DateOnly.TryParseExact(from, "yyyy-MM-dd", out var first))
            throw new ArgumentException("--exam and --from are days such as 2026-12-03; one needs the other.");
        var at = day.DayNumber - first.DayNumber;
        return at < 0 ? throw new ArgumentException($"The exam of {exam} is over: it lies before {from}.")
            : at < WeekAsked.Days ? at
            : null;
    }

    private static int Between(int value, int least, int most, string what) =>
        value >= least && value <= most
            ? value
            : throw new ArgumentException($"The {what} lies between {least} and {most}, not at {value}.");

    private static void Print(WeekPlan plan)
    {
        foreach (var day in plan.Days.Where(day => day.Rounds.Count > 0))
        {
            Console.WriteLine($"day {day.Day + 1}: {day.Seconds / 60:0.0} minutes, {day.PlayedSeconds / 60:0.0} of them playing");
            foreach (var (item, rest) in day.Rounds)
                Console.WriteLine($"  {item.Name}: {item.Amount.Words}. {item.Done} {item.Why}{Then(rest)}");
        }

        foreach (var (item, why) in plan.Left)
            Console.WriteLine($"left out: {item.Name}: {why}");
        Console.WriteLine(
            plan.Proven ? "no better week exists" : $"within {plan.Bound - plan.Worth:0.0} of {plan.Bound:0.0} points of the best"
        );
    }

    private static string Then(double rest) => rest > 0 ? $" Then rest for {PlayingClock.Minutes(rest)}." : "";

    private static object Shape(WeekPlan plan) =>
        new
        {
            Days = plan.Days.Select(day => new
            {
                Day = day.Day + 1,
                day.Seconds,
                day.PlayedSeconds,
                Rounds = day.Rounds.Select(round => new
                {
                    round.Item.Id,
                    round.Item.Name,
                    round.Item.Kind,
                    round.Item.Amount.Counts,
                    round.Item.Amount.Sounding,
                    round.Item.Amount.Tempo,
                    round.Item.Amount.Seconds,
                    round.Item.Amount.PlayedSeconds,
                    round.RestSeconds,
                    round.Item.Done,
                    round.Item.Why,
                }),
            }),
            Left = plan.Left.Select(left => new
            {
                left.Item.Id,
                left.Item.Name,
                left.Why,
            }),
            plan.Worth,
            plan.Bound,
            plan.Proven,
            plan.Nodes,
        };
}
