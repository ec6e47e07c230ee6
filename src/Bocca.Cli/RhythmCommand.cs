using System.CommandLine;
using Bocca.Core.Counting;
using Bocca.Core.Score;

namespace Bocca.Cli;

/// <summary><c>bocca rhythm</c>: a card, its counts and its grid.</summary>
public static class RhythmCommand
{
    /// <summary>The command.</summary>
    public static Command Create()
    {
        var write = new Option<bool>("--write") { Description = "Write a card." };
        var card = new Option<string?>("--card") { Description = "A card of your own, such as \"q. e q q\"." };
        var metre = new Option<string>("--metre") { Description = "The metre; 4/4 by default.", DefaultValueFactory = _ => "4/4" };
        var values = new Option<string>("--values")
        {
            Description = "The values it may have, such as \"q e h qd\".",
            DefaultValueFactory = _ => "q h e",
        };
        var bars = new Option<int>("--bars") { Description = "How many bars; 1 by default.", DefaultValueFactory = _ => 1 };
        var seed = new Option<int>("--seed") { Description = "Another seed, another card." };
        var json = CommandLine.JsonOption();
        var command = new Command("rhythm", "A rhythm card: its counts and its half-beat grid.")
        {
            write,
            card,
            metre,
            values,
            bars,
            seed,
            json,
        };
        command.SetAction(parsed =>
        {
            var of = Metre.Parse(parsed.GetValue(metre)!);
            var own = parsed.GetValue(card);
            if (own is null == !parsed.GetValue(write))
                throw new ArgumentException("Ask for one of --write and --card.");
            var made = own is not null
                ? RhythmCard.Parse(own, of)
                : CardWriter.Write(
                    of,
                    [.. parsed.GetValue(values)!.Split(' ', StringSplitOptions.RemoveEmptyEntries).Select(RhythmValue.Get)],
                    parsed.GetValue(bars),
                    parsed.GetValue(seed)
                );
            if (parsed.GetValue(json))
                CommandLine.PrintJson(Shape(made));
            else
                Print(made);
            return CommandLine.Done;
        });
        return command;
    }

    private static void Print(RhythmCard card)
    {
        Console.WriteLine($"{card.Metre}  {card.Text}");
        Console.WriteLine($"say   {string.Join(' ', Counts.Of(card))}");
        Console.WriteLine(
            $"grid  {string.Join(' ', Counts.Grid(card).Select(line => line.Begins ? line.Syllable : $"({line.Syllable})"))}"
        );
        var difficulty = CardDifficulty.Of(card);
        Console.WriteLine(
            $"{difficulty.Points:0.0} points{(difficulty.Reasons.Count > 0 ? $": {string.Join("; ", difficulty.Reasons)}" : "")}"
        );
    }

    private static object Shape(RhythmCard card) =>
        new
        {
            Card = card.Text,
            Metre = $"{card.Metre}",
            card.Metre.BeatUnit,
            Counts = Counts.Of(card),
            Grid = Counts
                .Grid(card)
                .Select(line => new
                {
                    At = line.At.Value,
                    line.Syllable,
                    line.Begins,
                }),
            Notes = card.Notes.Select(note => new
            {
                At = note.At.Value,
                Beats = note.Length.Value,
                Rest = note.IsRest,
                Tied = note.TiedToNext,
                note.Token,
            }),
            Difficulty = CardDifficulty.Of(card).Points,
        };
}
