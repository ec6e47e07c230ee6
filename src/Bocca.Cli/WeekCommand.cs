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
        var from = new Option<string?>("--from") { Description = "The first day of the week; today's if left out." };
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
            var first = Day(parsed.GetValue(from), "--from") ?? DateOnly.FromDateTime(TimeProvider.System.GetLocalNow().DateTime);
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
                Exam = ExamDay(Day(parsed.GetValue(exam), "--exam"), first),
            };
            var plan = WeekPlanner.Plan(asked);
            if (parsed.GetValue(json))
                CommandLine.PrintJson(Shape(plan, asked, first));
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

    private static int? ExamDay(DateOnly? exam, DateOnly first) =>
        (exam?.DayNumber - first.DayNumber) switch
        {
            < 0 => throw new ArgumentException($"The exam of {exam:yyyy-MM-dd} is over: it lies before {first:yyyy-MM-dd}."),
            <= WeekAsked.Days and var day => day,
            _ => null,
        };

    private static DateOnly? Day(string? text, string option) =>
        text is null ? null
        : DateOnly.TryParseExact(text, "yyyy-MM-dd", out var day) && day.Year is >= 2000 and < 2200 ? day
        : throw new ArgumentException($"'{text}' is no day for {option}, such as 2026-12-03.");

    private static int Between(int value, int least, int most, string what) =>
        value >= least && value <= most ? value : throw new ArgumentException($"The {what} must be {least} to {most}, not {value}.");

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
        Console.WriteLine(ProofOf(plan));
    }

    private static string Then(double rest) => rest > 0 ? $" Then rest for {PlayingClock.Minutes(rest)}." : "";

    /// <summary>The week as JSON: the rounds of a day are what is played between two rests.</summary>
    private static object Shape(WeekPlan plan, WeekAsked asked, DateOnly first) =>
        new
        {
            Days = plan.Days.Select(day => new
            {
                Date = $"{first.AddDays(day.Day):yyyy-MM-dd}",
                Why = WhyOf(day, asked),
                Rounds = Rounds(day)
                    .Select(round => new
                    {
                        Minutes = round.Sum(each => each.Item.Amount.Seconds) / 60,
                        RestMinutes = round[^1].RestSeconds / 60,
                        Items = round.Select(each => new
                        {
                            Drill = each.Item.Id,
                            Stage = StageOf(each.Item),
                            Minutes = each.Item.Amount.Seconds / 60,
                            New = each.Item.Kind == WeekKind.New,
                            AboveCeiling = each.Item.HighSeconds > 0,
                            each.Item.Why,
                            each.Item.Name,
                            each.Item.Kind,
                            each.Item.Amount.Counts,
                            each.Item.Amount.Sounding,
                            each.Item.Amount.Tempo,
                            each.Item.Amount.Seconds,
                            each.Item.Amount.PlayedSeconds,
                            each.Item.Done,
                        }),
                    }),
            }),
            Minutes = plan.Days.Sum(day => day.Seconds) / 60,
            Why = ProofOf(plan),
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

    private static string ProofOf(WeekPlan plan) =>
        plan.Proven ? "no better week exists" : $"within {plan.Bound - plan.Worth:0.0} of {plan.Bound:0.0} points of the best";

    private static string WhyOf(WeekDay day, WeekAsked asked) =>
        asked.Minutes[day.Day] == 0 ? "No time on this day."
        : day.Day == asked.Exam ? "The exam: only what warms up and what is liked."
        : day.Day == asked.Exam - 1 ? "The day before the exam: nothing new."
        : asked.Tired > 0 ? "Fewer minutes, nothing high: the lips are tired."
        : "Warm-up first, the most urgent while the lips are fresh, what is high last.";

    private static string StageOf(WeekItem item) =>
        item.Id.Split(':')[0] switch
        {
            "buzz" => item.LipSeconds > 0 ? "lips" : "mouthpiece",
            "breath" => "breath",
            "notes" => "hand",
            _ => "instrument",
        };

    private static List<List<WeekRound>> Rounds(WeekDay day)
    {
        var rounds = new List<List<WeekRound>>();
        foreach (var round in day.Rounds)
        {
            if (rounds.Count == 0 || rounds[^1][^1].RestSeconds > 0)
                rounds.Add([]);
            rounds[^1].Add(round);
        }

        return rounds;
    }
}
