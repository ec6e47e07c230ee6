using System.Text.Json;
using Bocca.Core.Score;

namespace Bocca.Core.Tests.Cli;

/// <summary>What <c>bocca plan</c> prints is a contract; what it cannot plan it says in one line.</summary>
[Collection("console")]
public sealed class PlanCommandTests : IDisposable
{
    private readonly string _folder = Directory.CreateTempSubdirectory("bocca-plan").FullName;

    public void Dispose() => Directory.Delete(_folder, recursive: true);

    private string Piece(string text)
    {
        var path = Path.Combine(_folder, "piece.txt");
        File.WriteAllText(path, text);
        return path;
    }

    private static (int Code, string Output, string Errors) Run(params string[] args) => CommandRun.Of(["plan", .. args]);

    private static JsonElement Plan(params string[] args)
    {
        var (code, output, errors) = Run([.. args, "--json"]);
        Assert.Equal((0, ""), (code, errors));
        return JsonDocument.Parse(output).RootElement;
    }

    [Fact]
    public void A_plan_has_its_notes_breaths_spans_and_proofs()
    {
        var plan = Plan(
            Piece("8/4 =80 q C4 D4 E4 F4 G4 A4 h G4 , | 6/4 q F4 E4 D4 C4 h C4 |"),
            "--instrument",
            "trumpet-bb",
            "--breath",
            "9"
        );
        Assert.Equal(
            ("trumpet-bb", "treble", 80.0),
            (Text(plan, "instrument"), Text(plan, "reading"), plan.GetProperty("tempo").GetDouble())
        );
        var note = plan.GetProperty("notes")[6];
        Assert.Equal(
            (6, 1, 7.0, 4.5),
            (Number(note, "index"), Number(note, "measure"), note.GetProperty("beat").GetDouble(), note.GetProperty("seconds").GetDouble())
        );
        Assert.Equal(("G4", "F4", "0", "0"), (Text(note, "written"), Text(note, "sounding"), Text(note, "setting"), Text(note, "plain")));
        Assert.False(note.GetProperty("pinned").GetBoolean());
        var breath = plan.GetProperty("breaths")[0];
        Assert.Equal((6, "comma", 0.375), (Number(breath, "after"), Text(breath, "kind"), breath.GetProperty("seconds").GetDouble()));
        Assert.Equal(0.5, breath.GetProperty("shortens").GetProperty("byBeats").GetDouble());
        Assert.Equal([5.625, 4.5], plan.GetProperty("spans").EnumerateArray().Select(span => span.GetProperty("seconds").GetDouble()));
        Assert.True(plan.GetProperty("possible").GetBoolean() && plan.GetProperty("proven").GetBoolean());
        Assert.Equal(plan.GetProperty("cost").GetDouble(), plan.GetProperty("lowerBound").GetDouble());
        foreach (var name in (string[])["plainCost", "breathCost", "phrases", "repeats", "runs", "articulation", "hard"])
            Assert.True(plan.TryGetProperty(name, out _), name);
        Assert.Equal("TTTTTTT", Text(plan.GetProperty("articulation")[0], "pattern"));
    }

    [Fact]
    public void Pins_and_breaths_are_kept_and_the_file_is_written()
    {
        var marked = Path.Combine(_folder, "marked.musicxml");
        var plan = Plan(
            Piece("4/4 =160 e D4 E4 D4 E4 D4 E4 D4 E4 | h C4 C4 | w C4 |"),
            "--instrument",
            "trumpet-bb",
            "--pin",
            "1=1-2",
            "--breathe",
            "8",
            "--no-breath",
            "9",
            "--out",
            marked
        );
        Assert.Equal("1-2", Text(plan.GetProperty("notes")[1], "setting"));
        Assert.True(plan.GetProperty("notes")[1].GetProperty("pinned").GetBoolean());
        Assert.Equal([8], plan.GetProperty("breaths").EnumerateArray().Select(breath => Number(breath, "after")));
        Assert.Contains("<fingering placement=\"below\">1-2</fingering>", File.ReadAllText(marked));
        Assert.Contains(MusicXmlReader.Read(File.ReadAllBytes(marked)).Parts[0].Measures[1].Notes, each => each.BreathAfter);
        Assert.Contains("ends in none of", Run(Piece("4/4 w C4 |"), "--instrument", "trumpet-bb", "--out", "x.pdf").Errors);
    }

    // Computed: concert C4 is D4 for the trumpet, on 1-3; an octave down it lies under its range.
    [Fact]
    public void A_concert_part_is_written_for_the_player()
    {
        var piece = Path.Combine(AppContext.BaseDirectory, "scores", "plain.musicxml");
        Assert.Equal("C4", Text(Plan(piece, "--instrument", "trumpet-bb").GetProperty("notes")[0], "written"));
        var anew = Plan(piece, "--instrument", "trumpet-bb", "--from-concert").GetProperty("notes")[0];
        Assert.Equal(("D4", "C4", "1-3"), (Text(anew, "written"), Text(anew, "sounding"), Text(anew, "setting")));
        Assert.Contains(
            "Bar 1, D3: C3 (concert pitch) lies on no",
            Run(piece, "--instrument", "trumpet-bb", "--from-concert", "--octaves", "-1").Errors
        );
    }

    [Fact]
    public void Long_and_odd_pieces_are_planned()
    {
        var bars = string.Join(" | ", Enumerable.Range(0, 900).Select(bar => bar % 2 == 0 ? "q C4 D4 E4 F4" : "h G4 q r r"));
        var plan = Plan(Piece($"4/4 =100 {bars} |"), "--instrument", "trumpet-bb");
        Assert.Equal(900, plan.GetProperty("articulation").GetArrayLength());
        Assert.Equal(
            3.0,
            Plan(Piece("5/8 =400 e C4 D4 E4 F4 G4 |"), "--instrument", "trumpet-bb").GetProperty("notes")[2].GetProperty("beat").GetDouble()
        );
        var compound = Plan(Piece("12/8 =60 e C4 D4 E4 q. F4 q. G4 q. C4 |"), "--instrument", "trumpet-bb");
        // The second beat of twelve eighths is the fourth eighth.
        Assert.Equal(
            (2.0, 1.0),
            (
                compound.GetProperty("notes")[3].GetProperty("beat").GetDouble(),
                compound.GetProperty("notes")[3].GetProperty("seconds").GetDouble()
            )
        );
    }

    [Theory]
    [InlineData("4/4 w C4 |", "--tempo 500", "10 to 400 beats a minute")]
    [InlineData("4/4 w C4 |", "--pin 0=2", "Bar 1, C4: 2 does not give this note")]
    [InlineData("4/4 w C4 |", "--pin 7=0", "the notes go from 0 to 0")]
    [InlineData("4/4 w C4 |", "--pin x", "'x' is no pin")]
    [InlineData("4/4 h C4 D4 |", "--breathe 1", "after the last it is free")]
    [InlineData("4/4 h C4 D4 |", "--breathe 0 --no-breath 0", "asked for and forbidden at one place: bar 1, beat 1")]
    [InlineData("4/4 w C4 |", "--breath 0", "carries 1 to 60 s")]
    [InlineData("4/4 w C4 |", "--part Tuba", "'Tuba' is no part")]
    [InlineData("4/4 w C4 |", "--approach Nobody", "approach")]
    [InlineData("4/4 q C4 x |", "", "piece.txt, letter 10: 'x' is no note")]
    [InlineData("4/4 w C9 |", "", "anybody plays")]
    public void What_cannot_be_is_one_line(string text, string options, string says)
    {
        var (code, _, errors) = Run([
            Piece(text),
            "--instrument",
            "trumpet-bb",
            .. options.Split(' ', StringSplitOptions.RemoveEmptyEntries),
        ]);
        Assert.Equal(1, code);
        Assert.Contains(says, errors);
        Assert.Single(errors.Trim().Split('\n'));
    }

    [Fact]
    public void What_cannot_be_breathed_is_told_in_the_plan()
    {
        var plan = Plan(Piece("4/4 =60 (q C4 D4 E4 F4 | G4 A4 B4 C5 | w C4) |"), "--instrument", "trumpet-bb", "--breath", "6");
        Assert.False(plan.GetProperty("possible").GetBoolean());
        Assert.Contains("In bar 2 the air runs out", Text(plan, "why"));
        Assert.Equal(120, plan.GetProperty("mendingTempo").GetDouble());
    }

    private static string Text(JsonElement of, string name) => of.GetProperty(name).GetString()!;

    private static int Number(JsonElement of, string name) => of.GetProperty(name).GetInt32();
}
