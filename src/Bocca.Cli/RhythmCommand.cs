using System.CommandLine;
using Bocca.Core.Counting;
using Bocca.Core.Instruments;
using Bocca.Core.Score;
using Bocca.Core.Sound;
using Bocca.Core.Teaching;
using Bocca.Core.Tone.Notes;

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
        var card = new Option<string?>("--card")
        {
            Description = "A card of your own, such as \"q. e q q\", or with its notes \"q.:C4 e:D4 h:E4\".",
        };
        var metre = new Option<string>("--metre") { Description = "The metre; 4/4 by default.", DefaultValueFactory = _ => "4/4" };
        var values = new Option<string>("--values")
        {
            Description = "The values it may have, such as \"q e h qd\".",
            DefaultValueFactory = _ => "q h e",
        };
        var bars = new Option<int>("--bars") { Description = "How many bars; 1 by default.", DefaultValueFactory = _ => 1 };
        var seed = new Option<int>("--seed") { Description = "Another seed, another card." };
        var instrument = CommandLine.InstrumentOption(required: false);
        instrument.Description = "The take is played on this instrument, not said and clapped; see 'bocca instruments'.";
        var reading = CommandLine.ReadingOption();
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
            instrument,
            reading,
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
            {
                var player = parsed.GetValue(instrument) is { } id ? CommandLine.Player(id, parsed.GetValue(reading)) : default;
                Hear(
                    file,
                    new Asked(made, parsed.GetValue(tempo), parsed.GetValue(lead), parsed.GetValue(stage)),
                    player.Instrument is null
                        ? null
                        : new PlayerSituation(player.Instrument, player.Reading, PlayingConditions.Usual.Tuning),
                    parsed.GetValue(json)
                );
            }
            else if (parsed.GetValue(json))
                CommandLine.PrintJson(Shape(made));
            else
                Print(made);
            return CommandLine.Done;
        });
        return command;
    }

    private sealed record Asked(RhythmCard Card, double? Tempo, double Lead, LearningStage Stage);

    private static void Hear(FileInfo file, Asked of, PlayerSituation? player, bool json)
    {
        var (card, tempo, lead, stage) = of;
        if (tempo is not (>= 20 and <= 400))
            throw new ArgumentException("Say the tempo of the take, 20 to 400 beats a minute: --tempo 80.");
        if (!(lead is >= 0 and <= 64))
            throw new ArgumentException("0 to 64 beats may lead to the card.");
        using var stream = file.OpenRead();
        var sound = WavFile.Read(stream, file.Name);
        var ways =
            player is null ? CountWays.Said | CountWays.Clapped
            : card.Written.Count > 0 ? CountWays.Played | CountWays.OnNotes
            : CountWays.Played;
        var asked = new CountAsked([card], tempo.Value, 0, ways);
        var heard = CountListener.Hear(sound, asked, lead * asked.BeatSeconds, CountJudge.ToleranceMs(stage), null, player);
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
        foreach (var (name, track) in new[] { ("said", card.Said), (card.Said is null ? "played" : "clapped", card.Clapped) })
            if (track is not null)
                Console.WriteLine($"{name, -8}{string.Join("  ", track.Beats.Select(Told))}");
        foreach (var note in heard.Notes)
            Console.WriteLine(note?.Sentence ?? "-");
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
            Said = track.Said?.Beats.Select(
                (beat, i) =>
                    new
                    {
                        At = beat.At.Value,
                        Syllable = counts[i],
                        beat.ErrorMs,
                    }
            ),
            Clapped = track.Clapped!.Beats.Select(beat => new { At = beat.At.Value, beat.ErrorMs }),
            Extras = (track.Said?.ExtraSeconds ?? [])
                .Select(at => new { At = InBeats(at), Kind = "said" })
                .Concat(
                    track.Clapped.ExtraSeconds.Select(at => new { At = InBeats(at), Kind = track.Said is null ? "played" : "clapped" })
                ),
            CountedBetween = (track.Said?.BetweenSeconds ?? []).Select(InBeats),
            Notes = heard.Notes.Select(note =>
                note is null
                    ? null
                    : new
                    {
                        Written = $"{note.Meant.Written}",
                        Outcome = $"{note.Outcome}",
                        note.Sentence,
                    }
            ),
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
