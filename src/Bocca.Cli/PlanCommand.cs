using System.CommandLine;
using System.Globalization;
using Bocca.Core.Breath;
using Bocca.Core.Fingering;
using Bocca.Core.Fingering.Passage;
using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Pieces;
using Bocca.Core.Pieces.Breathing;
using Bocca.Core.Pieces.Lines;
using Bocca.Core.Teaching;

namespace Bocca.Cli;

/// <summary><c>bocca plan</c>: a piece read, fingered, breathed and studied.</summary>
public static class PlanCommand
{
    /// <summary>The command.</summary>
    public static Command Create()
    {
        var piece = new Argument<FileInfo>("piece") { Description = "A MusicXML file (.musicxml, .xml, .mxl), or a typed piece (.txt)." };
        var instrument = CommandLine.InstrumentOption();
        var reading = CommandLine.ReadingOption();
        var part = new Option<string?>("--part") { Description = "The part by its number or name; 2.1 for a line of the second." };
        var concert = new Option<bool>("--from-concert")
        {
            Description = "Take the part at its concert pitch and write it for this player.",
        };
        var octaves = new Option<int>("--octaves") { Description = "Octaves by which the part is moved, up positive." };
        var tempo = new Option<double?>("--tempo") { Description = "Beats of the first metre a minute; the piece's own by default." };
        var breath = new Option<double>("--breath")
        {
            Description = "Seconds of a medium note that one breath carries.",
            DefaultValueFactory = _ => NoteBreath.UsualSeconds,
        };
        var reach = CommandLine.ReachOption();
        var valve = new Option<int?>("--highest-valve") { Description = "The highest valve in use." };
        var position = new Option<int?>("--furthest-position") { Description = "The furthest slide position taught." };
        var approach = new Option<string>("--approach")
        {
            Description = "The approach, such as \"MouthpieceFirst valve4=b\".",
            DefaultValueFactory = _ => $"{ApproachPreset.MouthpieceFirst}",
        };
        var pin = new Option<string[]>("--pin") { Description = "INDEX=SETTING, may be given again." };
        var breathe = new Option<int[]>("--breathe") { Description = "A breath after note INDEX, may be given again." };
        var noBreath = new Option<int[]>("--no-breath") { Description = "No breath after note INDEX, may be given again." };
        var file = new Option<string?>("--out") { Description = "A file to write: .musicxml, .mxl or .csv." };
        var json = CommandLine.JsonOption();
        var command = new Command("plan", "Read a piece and plan its fingering, its breaths and what to look at first.")
        {
            piece,
            instrument,
            reading,
            part,
            concert,
            octaves,
            tempo,
            breath,
            reach,
            valve,
            position,
            approach,
            pin,
            breathe,
            noBreath,
            file,
            json,
        };
        command.SetAction(parsed =>
        {
            var who = CommandLine.Player(parsed.GetValue(instrument)!, parsed.GetValue(reading));
            var source = Read(parsed.GetValue(piece)!, who.Reading);
            var choice = LineChoice.Choose(source.Score, parsed.GetValue(part));
            var line = PieceLine.Of(
                source.Score,
                choice,
                who.Reading,
                parsed.GetValue(tempo),
                parsed.GetValue(concert),
                Between(parsed.GetValue(octaves), -4, 4, "--octaves")
            );
            var taught = Approach.Parse(parsed.GetValue(approach)!);
            var hand = new Hand
            {
                ReachCm = parsed.GetValue(reach),
                HighestValve = parsed.GetValue(valve),
                FurthestPosition = parsed.GetValue(position),
            };
            var player = PiecePlayer.Of(who.Instrument, taught, LearningStage.Pieces, hand);
            var breather = PiecePlayer.Breather(parsed.GetValue(breath), taught);
            var choices = new PieceChoices
            {
                Pins = PinsOf(parsed.GetValue(pin) ?? [], who.Instrument),
                Breaths = (parsed.GetValue(breathe) ?? []).ToHashSet(),
                NoBreaths = (parsed.GetValue(noBreath) ?? []).ToHashSet(),
            };
            var plan = PiecePlan.Of(line, player, breather, choices);
            if (parsed.GetValue(file) is { } path)
                Write(path, source, plan, parsed.GetValue(concert) ? who.Reading : null, parsed.GetValue(octaves));
            if (parsed.GetValue(json))
                CommandLine.PrintJson(PlanShape.Of(plan, who.Instrument));
            else
                Print(plan);
            return CommandLine.Done;
        });
        return command;
    }

    private static PieceSource Read(FileInfo file, Reading reading)
    {
        if (!file.Exists)
            throw new FileNotFoundException($"There is no file '{file.FullName}'.");
        if (!file.Extension.Equals(".txt", StringComparison.OrdinalIgnoreCase))
            return PieceSource.OfFile(File.ReadAllBytes(file.FullName));
        try
        {
            return PieceSource.OfText(File.ReadAllText(file.FullName), Path.GetFileNameWithoutExtension(file.Name), reading);
        }
        catch (EntrySlip slip)
        {
            throw new InvalidDataException($"{file.Name}, letter {slip.At + 1}: {slip.Message}", slip);
        }
    }

    private static int Between(int value, int least, int most, string option) =>
        value >= least && value <= most ? value : throw new ArgumentException($"{option} goes from {least} to {most}, not {value}.");

    private static Dictionary<int, Setting> PinsOf(string[] pins, Instrument instrument)
    {
        var settled = new Dictionary<int, Setting>();
        foreach (var pin in pins)
        {
            if (
                pin.Split('=') is not [var place, var text]
                || !int.TryParse(place, NumberStyles.None, CultureInfo.InvariantCulture, out var index)
                || !Setting.TryParse(text, instrument.Slide is not null, out var setting)
            )
                throw new ArgumentException($"'{pin}' is no pin such as 12=1-3.");
            settled[index] = setting;
        }

        return settled;
    }

    private static void Write(string path, PieceSource source, PiecePlan plan, Reading? anew, int octaves)
    {
        var part = plan.Line.Choice.Part;
        var document = anew is not null || octaves != 0 ? source.Document.Transposed(part, anew, octaves) : source.Document;
        document = document.Annotated(part, PieceMarks.Of(plan));
        switch (Path.GetExtension(path).ToLowerInvariant())
        {
            case ".musicxml" or ".xml":
                File.WriteAllBytes(path, document.Write());
                break;
            case ".mxl":
                File.WriteAllBytes(path, document.WritePacked());
                break;
            case ".csv":
                File.WriteAllText(path, PieceMarks.Csv(plan));
                break;
            default:
                throw new ArgumentException($"'{path}' ends in none of .musicxml, .mxl and .csv.");
        }
    }

    private static void Print(PiecePlan plan)
    {
        foreach (var note in plan.Line.Notes)
        {
            var choice = plan.Fingered.Notes[note.Index];
            Console.WriteLine(
                $"{note.Index, 4}  bar {plan.Line.BarOf(note.Index), -4} beat {note.Beat, -6:0.##} {note.Written, -4} "
                    + $"{choice.Fingering.Setting, -9}"
                    + $" {choice.Reason}{Also(choice)}"
            );
        }

        foreach (var breath in plan.Breathed.Breaths)
            Console.WriteLine($"breath after {plan.Line.PlaceOf(breath.Place.After)}: {breath.Why}{Without(breath)}");
        foreach (var remark in plan.Breathed.Remarks.Concat(plan.Breathed.Why is { } why ? [why] : []))
            Console.WriteLine(remark);
        Console.WriteLine(
            $"fingering {plan.Fingered.Cost:0.0} points, by the chart {plan.Fingered.PlainCost:0.0}; "
                + (plan.Fingered.IsProven ? "no better way exists." : $"none is better than {plan.Fingered.LowerBound:0.0}.")
        );
    }

    private static string Also(PassageChoice choice) =>
        choice.Also.Count == 0
            ? ""
            : $" As good: {string.Join(", ", choice.Also.Select(way => $"{way.Setting} ({way.Cents:+0;-0;0} cents)"))}.";

    private static string Without(PlannedBreath breath) => breath.WithoutFrom is { } tempo ? $" At {tempo:0} or faster, leave it out." : "";
}
