using System.CommandLine;
using Bocca.Core.Counting;
using Bocca.Core.Score;
using Bocca.Core.Sound;
using Bocca.Core.Teaching;

namespace Bocca.Cli;

/// <summary><c>bocca rhythm</c>: a card, its counts and its grid; and a take of it, said and clapped.</summary>
public static class RhythmCommand
{
    /// <summary>The command.</summary>
    public static Command Create()
    {
        var take = new Argument<FileInfo?>("take")
        {
            Description = "A WAV file in which the card is said and clapped.",
            Arity = ArgumentArity.ZeroOrOne,
        };
        var tempo = new Option<double?>("--tempo") { Description = "Beats of the metre a minute." };
        var lead = new Option<double>("--lead") { Description = "Beats before the card begins; 0 by default." };
        var stage = new Option<LearningStage>("--learning")
        {
            Description = "How close is close enough.",
            DefaultValueFactory = _ => LearningStage.Second,
        };
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
        var command = new Command("rhythm", "A rhythm card: its counts and its half-beat grid, and a take of it beat by beat.")
        {
            take,
            tempo,
            lead,
            stage,
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
            if (parsed.GetValue(take) is { } file)
                Hear(file, made, parsed.GetValue(tempo), parsed.GetValue(lead), parsed.GetValue(stage), parsed.GetValue(json));
            else if (parsed.GetValue(json))
                CommandLine.PrintJson(Shape(made));
            else
                Print(made);
            return CommandLine.Done;
        });
        return command;
    }

    private static void Hear(FileInfo file, RhythmCard card, double? tempo, double lead, LearningStage stage, bool json)
    {
        if (tempo is not (>= 20 and <= 400))
            throw new ArgumentException("Say the tempo of the take, 20 to 400 beats a minute: --tempo 80.");
        if (!(lead is >= 0 and <= 64))
            throw new ArgumentException("0 to 64 beats may lead to the card.");
        using var stream = file.OpenRead();
        var sound = WavFile.Read(stream, file.Name);
        var asked = new CountAsked([card], tempo.Value, 0, CountWays.Said | CountWays.Clapped);
        var heard = CountListener.Hear(sound, asked, lead * asked.BeatSeconds, CountJudge.ToleranceMs(stage));
        if (heard.Problem is not null)
            throw new InvalidDataException(heard.Sentence);
        if (json)
            CommandLine.PrintJson(Shape(asked, heard));
        else
            Print(heard);
    }

    private static void Print(HeardCount heard)
    {
        var card = heard.Cards[0];
        foreach (var (name, track) in new[] { ("said", card.Said!), ("clapped", card.Clapped!) })
            Console.WriteLine($"{name, -8}{string.Join("  ", track.Beats.Select(Told))}");
        Console.WriteLine(heard.Sentence);

        static string Told(CardBeat beat) => $"{beat.Place}: {(beat.ErrorMs is { } off ? $"{off:+0;-0;0} ms" : "-")}";
    }

    private static object Shape(CountAsked asked, HeardCount heard)
    {
        var (card, track) = (asked.Cards[0], heard.Cards[0]);
        var counts = Counts.Of(card);
        double InBeats(double seconds) => seconds / asked.QuarterSeconds;
        return new
        {
            Beats = card.Length.Value,
            Said = track.Said!.Beats.Select(
                (beat, i) =>
                    new
                    {
                        At = beat.At.Value,
                        Syllable = counts[i],
                        beat.ErrorMs,
                    }
            ),
            Clapped = track.Clapped!.Beats.Select(beat => new { At = beat.At.Value, beat.ErrorMs }),
            Extras = track
                .Said.ExtraSeconds.Select(at => new { At = InBeats(at), Kind = "said" })
                .Concat(track.Clapped.ExtraSeconds.Select(at => new { At = InBeats(at), Kind = "clapped" })),
            CountedBetween = track.Said.BetweenSeconds.Select(InBeats),
            track.AheadMs,
            heard.Passed,
            heard.Sentence,
        };
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
