using System.CommandLine;
using System.Globalization;
using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using Bocca.Core;
using Bocca.Core.Buzz.Drills;
using Bocca.Core.Buzz.Measures;
using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Teaching;

namespace Bocca.Cli;

/// <summary>What all commands share: exit codes, errors, JSON and the options that name an instrument.</summary>
public static class CommandLine
{
    /// <summary>Done.</summary>
    public const int Done = 0;

    /// <summary>The input was bad: one line on standard error says what and where.</summary>
    public const int BadInput = 1;

    /// <summary>The command was used wrongly.</summary>
    public const int WrongUsage = 2;

    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web)
    {
        WriteIndented = true,
        Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
        NumberHandling = JsonNumberHandling.AllowNamedFloatingPointLiterals,
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase) },
        TypeInfoResolver = new DefaultJsonTypeInfoResolver { Modifiers = { LeaveOutWhatFollows } },
    };

    /// <summary>The room's reference A, hertz.</summary>
    public static Option<double> A4Option() =>
        new("--a4") { Description = "The reference A in hertz; 440 by default.", DefaultValueFactory = _ => PlayingConditions.Usual.A4Hz };

    /// <summary>The room's temperature.</summary>
    public static Option<double> CelsiusOption() =>
        new("--celsius")
        {
            Description = "The room's temperature; 20 by default.",
            DefaultValueFactory = _ => PlayingConditions.Usual.Celsius,
        };

    /// <summary>The room as it was asked for.</summary>
    /// <exception cref="ArgumentException">No room is like that.</exception>
    public static PlayingConditions RoomOf(double a4, double celsius) =>
        PlayingConditions.Of(a4, celsius) is var room && room == new PlayingConditions(a4, celsius)
            ? room
            : throw new ArgumentException(
                $"A room's A is {PlayingConditions.A4Range.Least} to {PlayingConditions.A4Range.Most} Hz, its warmth "
                    + $"{PlayingConditions.CelsiusRange.Least} to {PlayingConditions.CelsiusRange.Most} degrees."
            );

    /// <summary>Parses and runs; returns the exit code.</summary>
    public static int Run(string[] args)
    {
        CultureInfo.DefaultThreadCurrentCulture = CultureInfo.CurrentCulture = CultureInfo.InvariantCulture;
        var root = new RootCommand("Bocca: hears a buzz, works out a fingering, plays a practice pupil.")
        {
            InstrumentsCommand.Create(),
            NoteCommand.Create(),
            ChartCommand.Create(),
            ClassCommand.Create(),
            SlursCommand.Create(),
            WeekCommand.Create(),
            RhythmCommand.Create(),
            EarCommand.Create(),
            PlanCommand.Create(),
            AnalyseCommand.Create(),
            BreathCommand.Create(),
            SimulateCommand.Create(),
        };
        var parsed = root.Parse(args);
        if (parsed.Errors.Count > 0 && parsed.Action is not System.CommandLine.Help.HelpAction)
        {
            Console.Error.WriteLine(OneLine.Of(parsed.Errors[0].Message));
            return WrongUsage;
        }

        try
        {
            return parsed.Invoke(new InvocationConfiguration { EnableDefaultExceptionHandler = false });
        }
        catch (Exception problem)
            when (problem is ArgumentException or FormatException or InvalidDataException or IOException or UnauthorizedAccessException)
        {
            Console.Error.WriteLine(OneLine.Of(problem.Message));
            return BadInput;
        }
    }

    /// <summary>The option <c>--json</c>.</summary>
    public static Option<bool> JsonOption() => new("--json") { Description = "Print one JSON object." };

    /// <summary>The option <c>--instrument</c>.</summary>
    public static Option<string> InstrumentOption(bool required = true) =>
        new("--instrument") { Description = "Instrument id; see 'bocca instruments'.", Required = required };

    /// <summary>The option <c>--reading</c>.</summary>
    public static Option<string?> ReadingOption() =>
        new("--reading") { Description = "treble, bass, treble-bb or treble-eb; the instrument's usual one by default." };

    /// <summary>The option <c>--stage</c>.</summary>
    public static Option<string> StageOption(bool required)
    {
        var option = new Option<string>("--stage") { Description = "lips, mouthpiece or instrument.", Required = required };
        if (!required)
            option.DefaultValueFactory = _ => "mouthpiece";
        return option;
    }

    /// <summary>The option <c>--reach</c>.</summary>
    public static Option<double?> ReachOption() => new("--reach") { Description = "Centimetres of slide that the arm reaches." };

    /// <summary>The option <c>--drill</c>.</summary>
    public static Option<string> DrillOption() =>
        new("--drill")
        {
            Description = $"The drill: {string.Join(", ", BuzzDrill.All.Select(drill => drill.Id))}.",
            DefaultValueFactory = _ => BuzzDrill.All[0].Id,
        };

    /// <summary>The option <c>--tempo</c>.</summary>
    public static Option<double?> TempoOption() => new("--tempo") { Description = "Beats a minute; the drill's own by default." };

    /// <summary>A stage by its name.</summary>
    /// <exception cref="ArgumentException">There is no such stage.</exception>
    public static SoundStage StageOf(string text) =>
        Enum.GetValues<SoundStage>()
            .FirstOrDefault(stage => stage.ToString().Equals(text, StringComparison.OrdinalIgnoreCase), (SoundStage)(-1))
            is var stage
        && (int)stage >= 0
            ? stage
            : throw new ArgumentException($"'{text}' is not a stage; there are lips, mouthpiece and instrument.");

    /// <summary>A drill's plan at a tempo.</summary>
    /// <exception cref="ArgumentException">The tempo lies outside what drills are played at.</exception>
    public static CuePlan PlanOf(BuzzDrill drill, double? tempo) => drill.Plan.At(TempoOf(tempo ?? drill.Tempo));

    /// <summary>A tempo that drills are played at.</summary>
    /// <exception cref="ArgumentException">It lies outside.</exception>
    public static double TempoOf(double tempo)
    {
        var (slowest, fastest) = CuePlan.TempoRange;
        return tempo >= slowest && tempo <= fastest
            ? tempo
            : throw new ArgumentException($"A tempo of {tempo} is outside {slowest} to {fastest} beats a minute.");
    }

    /// <summary>Prints a value as one JSON object in camelCase.</summary>
    public static void PrintJson(object value) => Console.Out.WriteLine(ToJson(value));

    /// <summary>A result as JSON, as commands print it.</summary>
    public static string ToJson(object value) => JsonSerializer.Serialize(value, Json);

    /// <summary>Leaves out what of a try follows from the rest of it.</summary>
    private static void LeaveOutWhatFollows(JsonTypeInfo info)
    {
        if (info.Type != typeof(AttemptMeasures) && info.Type != typeof(Cue))
            return;
        foreach (var follows in info.Properties.Where(property => property.Set is null).ToList())
            info.Properties.Remove(follows);
    }

    /// <summary>An optional note option, read or refused by name.</summary>
    public static Pitch? PitchOrNull(string? text) => text is null ? null : Pitch.Parse(text);

    /// <summary>The instrument and the reading that two options name.</summary>
    public static (Instrument Instrument, Reading Reading) Player(string id, string? reading)
    {
        var instrument = Catalogue.Get(id);
        return (instrument, instrument.ReadingOf(reading));
    }
}
