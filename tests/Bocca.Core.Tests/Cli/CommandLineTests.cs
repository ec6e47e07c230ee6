using System.Text.Json;
using Bocca.Core.Breath;
using Bocca.Core.Simulation;
using Bocca.Core.Sound;

namespace Bocca.Core.Tests.Cli;

/// <summary>The command line is driven in process; what it prints is a contract.</summary>
[Collection("console")]
public sealed class CommandLineTests : IDisposable
{
    private readonly string _folder = Directory.CreateTempSubdirectory("bocca-cli").FullName;

    public void Dispose() => Directory.Delete(_folder, recursive: true);

    [Fact]
    public void Note_prints_all_fingerings_best_first()
    {
        using var note = Json("note", "--instrument", "trumpet-bb", "--written", "E4");
        Assert.Equal("D4", note.RootElement.GetProperty("sounding").GetString());
        var first = note.RootElement.GetProperty("fingerings")[0];
        Assert.Equal("1-2", first.GetProperty("setting").GetString());
        Assert.Equal(3, first.GetProperty("partial").GetInt32());
        Assert.Equal(12.6, first.GetProperty("cents").GetDouble());
        Assert.Equal("3", note.RootElement.GetProperty("fingerings")[1].GetProperty("setting").GetString());
    }

    /// <summary>A card played on its notes: the last is another than the one that stands there, in its place.</summary>
    [Fact]
    public void Rhythm_tells_notes_from_their_moments()
    {
        var wav = Path.Combine(_folder, "row.wav");
        string[] played = ["--stage", "instrument", "--row", "C4 D4 E4 C4", "--tempo", "80", "--beats", "1", "--out", wav];
        Assert.Equal(0, CommandRun.Of(["simulate", "--instrument", "trumpet-bb", .. played]).Code);
        string[] asked = ["--tempo", "80", "--lead", "1", "--instrument", "trumpet-bb"];
        using var heard = Json(["rhythm", wav, "--card", "q:C4 q:D4 q:E4 q:D4", .. asked]);
        Assert.Equal(JsonValueKind.Null, heard.RootElement.GetProperty("said").ValueKind);
        Assert.Equal(4, heard.RootElement.GetProperty("clapped").GetArrayLength());
        Assert.Equal(
            ["Right", "Right", "Right", "OtherSetting"],
            heard.RootElement.GetProperty("notes").EnumerateArray().Select(note => note.GetProperty("outcome").GetString())
        );
        Assert.False(heard.RootElement.GetProperty("passed").GetBoolean());
        Assert.Contains(
            "'kazoo' is not an instrument",
            CommandRun.Of("rhythm", wav, "--card", "q q h", "--tempo", "80", "--instrument", "kazoo").Errors
        );
    }

    [Fact]
    public void Chart_prints_the_range_asked()
    {
        using var chart = Json("chart", "--instrument", "euphonium-4v-comp", "--reading", "treble-bb", "--from", "C4", "--to", "G4");
        var notes = chart.RootElement.GetProperty("notes").EnumerateArray().ToList();
        Assert.Equal(8, notes.Count);
        Assert.Equal("Bb2", notes[0].GetProperty("sounding").GetString());
        Assert.Equal("0", notes[0].GetProperty("fingering").GetProperty("setting").GetString());
    }

    /// <summary>A week of the command line: near the best there can be, and every round's seconds are its counts at its tempo.</summary>
    [Fact]
    public void Week_plans_rounds_that_add_up()
    {
        using var week = Json("week", "--instrument", "horn-f", "--age", "10", "--weeks", "6", "--days", "5", "--minutes", "12");
        Assert.InRange(week.RootElement.GetProperty("worth").GetDouble() / week.RootElement.GetProperty("bound").GetDouble(), 0.93, 1);
        var days = week.RootElement.GetProperty("days").EnumerateArray().ToList();
        Assert.Equal(5, days.Count(day => day.GetProperty("rounds").GetArrayLength() > 0));
        var all = 0.0;
        foreach (var day in days)
        {
            var rounds = day.GetProperty("rounds").EnumerateArray().ToList();
            var minutes = rounds.Sum(round => round.GetProperty("minutes").GetDouble() + round.GetProperty("restMinutes").GetDouble());
            Assert.InRange(minutes, 0, 12);
            all += minutes;
            foreach (var round in rounds)
                Assert.Equal(
                    round.GetProperty("minutes").GetDouble(),
                    round.GetProperty("items").EnumerateArray().Sum(item => item.GetProperty("minutes").GetDouble()),
                    1e-9
                );
            foreach (var item in rounds.SelectMany(round => round.GetProperty("items").EnumerateArray()))
                Assert.Equal(
                    item.GetProperty("counts").GetDouble() / item.GetProperty("tempo").GetDouble(),
                    item.GetProperty("minutes").GetDouble(),
                    1e-9
                );
        }

        Assert.Equal(all, week.RootElement.GetProperty("minutes").GetDouble(), 1e-9);
        Assert.Matches(@"^\d{4}-\d\d-\d\d$", days[0].GetProperty("date").GetString());
    }

    [Theory]
    [InlineData("--minutes 0 --age 10", "nought minutes")]
    [InlineData("--minutes 10 --age 3", "age must be 4 to 100")]
    [InlineData("--minutes 10 --age 10 --exam 2026-11-01 --from 2026-11-02", "is over")]
    [InlineData("--minutes 10 --age 10 --exam soon", "is no day for --exam")]
    public void What_is_no_week_is_refused_in_a_line(string options, string sentence)
    {
        string[] args = ["week", "--instrument", "trumpet-bb", "--weeks", "2", "--days", "5", .. options.Split(' ')];
        Assert.Equal(1, Run(out _, out var errors, args));
        Assert.Contains(sentence, errors);
    }

    /// <summary>The exam is on the day after the week: its last day is the eve.</summary>
    [Theory]
    [InlineData("2026-12-06", 5)]
    [InlineData("2026-12-07", 6)]
    public void Nothing_new_stands_on_the_eve_of_an_exam(string exam, int eve)
    {
        string[] asked = ["week", "--instrument", "trumpet-bb", "--age", "11", "--weeks", "3", "--days", "7", "--minutes", "30"];
        using var week = Json([.. asked, "--from", "2026-11-30", "--exam", exam]);
        var days = week.RootElement.GetProperty("days").EnumerateArray().ToList();
        bool HasNew(System.Text.Json.JsonElement day) =>
            day.GetProperty("rounds")
                .EnumerateArray()
                .SelectMany(round => round.GetProperty("items").EnumerateArray())
                .Any(item => item.GetProperty("new").GetBoolean());
        Assert.Contains(days, HasNew);
        Assert.False(HasNew(days[eve]));
        Assert.Equal("The day before the exam: nothing new.", days[eve].GetProperty("why").GetString());
    }

    [Fact]
    public void Instruments_prints_all_of_them()
    {
        using var list = Json("instruments");
        Assert.Equal(23, list.RootElement.GetProperty("instruments").GetArrayLength());
    }

    [Fact]
    public void Simulate_then_analyse_hears_the_fault_and_writes_frames()
    {
        var wav = Path.Combine(_folder, "take.wav");
        var csv = Path.Combine(_folder, "take.csv");
        Assert.Equal(
            0,
            Run(
                out _,
                out _,
                "simulate",
                "--instrument",
                "trumpet-bb",
                "--stage",
                "mouthpiece",
                "--fault",
                "air-first=700@2,3",
                "--seed",
                "5",
                "--out",
                wav
            )
        );
        using var heard = Json("analyse", wav, "--frames", csv);
        Assert.Equal("repeat", heard.RootElement.GetProperty("verdict").GetProperty("outcome").GetString());
        Assert.Equal("airFirst", heard.RootElement.GetProperty("verdict").GetProperty("findings")[0].GetProperty("symptom").GetString());
        Assert.Equal(4, heard.RootElement.GetProperty("attempts").GetArrayLength());
        var lines = File.ReadAllLines(csv);
        Assert.Equal("time_s,f0_hz,voiced,level_db", lines[0]);
        Assert.Equal(3201, lines.Length);
        Assert.StartsWith("0.005,", lines[1]);
    }

    [Fact]
    public void Several_files_make_an_array_and_a_folder_of_frames()
    {
        string[] wavs = [Path.Combine(_folder, "a.wav"), Path.Combine(_folder, "b.wav")];
        foreach (var wav in wavs)
            Run(out _, out _, "simulate", "--instrument", "tuba-bb-3v", "--stage", "instrument", "--drill", "steady-line", "--out", wav);
        using var heard = Json(
            "analyse",
            wavs[0],
            wavs[1],
            "--drill",
            "steady-line",
            "--stage",
            "instrument",
            "--frames",
            Path.Combine(_folder, "frames")
        );
        Assert.Equal(2, heard.RootElement.GetArrayLength());
        Assert.Equal(["a.csv", "b.csv"], Directory.GetFiles(Path.Combine(_folder, "frames")).Select(Path.GetFileName).Order());
    }

    [Fact]
    public void Breath_measures_a_stream()
    {
        var wav = Path.Combine(_folder, "stream.wav");
        var drill = BreathDrill.Get("even-stream");
        var plan = BreathPlan.Make(drill, drill.Rungs[0], 80, new BreathingPupil(14, BreathHealth.None, false), BreathDay.Fresh).Plan!;
        using (var file = File.Create(wav))
            WavFile.Write(file, SimulatedBreath.Play(plan, [], 3));
        using var heard = Json("breath", wav);
        Assert.InRange(heard.RootElement.GetProperty("startSeconds").GetDouble(), 2.9, 3.2);
        Assert.InRange(heard.RootElement.GetProperty("unbrokenSeconds").GetDouble(), 2.8, 3.1);
        Assert.InRange(heard.RootElement.GetProperty("variationPercent").GetDouble(), 0, 8);
    }

    [Theory]
    [InlineData(1, "D2", "note", "--instrument", "trumpet-bb", "--written", "D2")]
    [InlineData(1, "'H4'", "note", "--instrument", "trumpet-bb", "--written", "H4")]
    [InlineData(1, "'kazoo'", "note", "--instrument", "kazoo", "--written", "C4")]
    [InlineData(1, "'alto'", "chart", "--instrument", "trombone", "--reading", "alto")]
    [InlineData(1, "missing.wav", "analyse", "missing.wav")]
    [InlineData(1, "missing.wav", "breath", "missing.wav")]
    [InlineData(1, "'nose'", "simulate", "--instrument", "trumpet-bb", "--stage", "nose", "--out", "x.wav")]
    [InlineData(1, "'sneeze'", "simulate", "--instrument", "trumpet-bb", "--stage", "lips", "--fault", "sneeze=1", "--out", "x.wav")]
    [InlineData(1, "5000", "simulate", "--instrument", "trumpet-bb", "--stage", "lips", "--tempo", "5000", "--out", "x.wav")]
    [InlineData(2, "--wrtten", "note", "--instrument", "trumpet-bb", "--wrtten", "C4")]
    [InlineData(2, "--written", "note", "--instrument", "trumpet-bb")]
    [InlineData(2, "", "blow")]
    public void Bad_input_and_wrong_usage_get_one_line_and_their_code(int code, string named, params string[] args)
    {
        Assert.Equal(code, Run(out var output, out var errors, args));
        Assert.Empty(output);
        Assert.Contains(named, errors);
        Assert.Single(errors.Split('\n', StringSplitOptions.RemoveEmptyEntries));
    }

    private static JsonDocument Json(params string[] args)
    {
        Assert.Equal(0, Run(out var output, out var errors, [.. args, "--json"]));
        Assert.Empty(errors);
        return JsonDocument.Parse(output);
    }

    private static int Run(out string output, out string errors, params string[] args)
    {
        (var code, output, errors) = CommandRun.Of(args);
        return code;
    }
}
