using System.Text;
using Bocca.Core.Score;
using Bocca.Core.Tests.Cli;

namespace Bocca.Core.Tests.Score;

/// <summary>Files that are no scores, or only just: refused in one printable line, wherever they are read.</summary>
[Collection("console")]
public sealed class StrangeScoreTests : IDisposable
{
    private readonly string _folder = Directory.CreateTempSubdirectory("bocca-strange-").FullName;

    public void Dispose() => Directory.Delete(_folder, recursive: true);

    private static string Score(string notes, string head = "") =>
        $"<?xml version=\"1.0\" encoding=\"UTF-8\"?><score-partwise{head}><part-list><score-part id=\"P1\">"
        + "<part-name>Ferry Bell</part-name></score-part></part-list><part id=\"P1\"><measure number=\"1\"><attributes>"
        + "<divisions>1</divisions><time><beats>4</beats><beat-type>4</beat-type></time></attributes>"
        + $"{notes}</measure></part></score-partwise>";

    private static string Note(string step, int voice = 1, string octave = "4") =>
        $"<note><pitch><step>{step}</step><octave>{octave}</octave></pitch><duration>1</duration><voice>{voice}</voice></note>";

    private static string Many(int count, Func<int, string> each) => string.Concat(Enumerable.Range(1, count).Select(each));

    private static byte[] Bytes(string what) =>
        what switch
        {
            "voices" => Encoding.UTF8.GetBytes(Score(Many(10_000, i => Note("C", i) + "<backup><duration>1</duration></backup>"))),
            "namespaces" => Encoding.UTF8.GetBytes(Score(Note("C"), Many(20_000, i => $" xmlns:a{i}=\"urn:{i}\""))),
            "wide namespaces" => Encoding
                .Unicode.GetPreamble()
                .Concat(
                    Encoding.Unicode.GetBytes(Score(Note("C"), Many(20_000, i => $" xmlns:a{i}=\"urn:{i}\"")).Replace("UTF-8", "UTF-16"))
                )
                .ToArray(),
            "cut" => [.. Encoding.UTF8.GetBytes("<?xml version=\"1.0\"?><score-partwise><work><work-title>F\u00e9").SkipLast(1), (byte)'<'],
            "step" => Encoding.UTF8.GetBytes(Score(Note("4"))),
            "long step" => Encoding.UTF8.GetBytes(Score(Note(new string('x', 100_000)))),
            "control" => Encoding.UTF8.GetBytes(Score(Note("C\u009b[31m\u202e\u2028"))),
            "encrypted" => Encrypted(),
            _ => throw new ArgumentException(what),
        };

    /// <summary>A packed file whose flags say that its entries are encrypted (published: PKWARE APPNOTE 4.4.4, bit 0).</summary>
    private static byte[] Encrypted()
    {
        using var memory = new MemoryStream();
        using (var zip = new System.IO.Compression.ZipArchive(memory, System.IO.Compression.ZipArchiveMode.Create, leaveOpen: true))
            foreach (
                var (name, text) in new[]
                {
                    ("META-INF/container.xml", "<container><rootfiles><rootfile full-path=\"a.xml\"/></rootfiles></container>"),
                    ("a.xml", Score(Note("C"))),
                }
            )
            {
                using var entry = zip.CreateEntry(name, System.IO.Compression.CompressionLevel.NoCompression).Open();
                entry.Write(Encoding.UTF8.GetBytes(text));
            }

        var bytes = memory.ToArray();
        for (var i = 0; i + 10 < bytes.Length; i++)
            if (bytes.AsSpan(i).StartsWith("PK\u0003\u0004"u8))
                bytes[i + 6] |= 1;
            else if (bytes.AsSpan(i).StartsWith("PK\u0001\u0002"u8))
                bytes[i + 8] |= 1;
        return bytes;
    }

    [Theory]
    [InlineData("voices", "more than 64 voices")]
    [InlineData("namespaces", "more than 256 namespaces")]
    [InlineData("wide namespaces", "more than 256 namespaces")]
    [InlineData("cut", "no letter in UTF-8")]
    [InlineData("step", "has a pitch '4'")]
    [InlineData("long step", "has a pitch 'xxx")]
    [InlineData("control", "has a pitch 'C")]
    [InlineData("encrypted", "encrypted")]
    public void Is_refused_in_one_printable_line(string what, string says)
    {
        var file = Path.Combine(_folder, "strange.musicxml");
        File.WriteAllBytes(file, Bytes(what));
        Assert.Contains(
            says,
            Assert.Throws<InvalidDataException>(() => MusicXmlReader.Read(Bytes(what))).Message,
            StringComparison.Ordinal
        );
        var (code, _, errors) = CommandRun.Of("plan", file, "--instrument", "trumpet-bb");
        Assert.Equal(1, code);
        IsOneLine(errors);
    }

    /// <summary>Every other reader of the command line quotes what it was given in one printable line as well.</summary>
    [Theory]
    [InlineData("note --instrument trumpet-bb --written {0}")]
    [InlineData("note --instrument {0} --written C4")]
    [InlineData("rhythm --card {0}")]
    [InlineData("class --concert {0} --player trumpet-bb")]
    [InlineData("week --instrument trumpet-bb --age 9 --weeks 2 --days 5 --minutes 9 --exam {0}")]
    [InlineData("plan {0} --instrument trumpet-bb")]
    [InlineData("plan tune.txt --instrument trumpet-bb")]
    [InlineData("analyse noise.wav")]
    [InlineData("{0}")]
    public void Whatever_is_quoted_stays_within_a_line(string command)
    {
        var nonsense = "\u001b[31mz\u202e\n" + new string('y', 20_000);
        File.WriteAllText(Path.Combine(_folder, "tune.txt"), $"4/4 q F4 {nonsense.Replace("\n", "")}");
        File.WriteAllText(Path.Combine(_folder, "noise.wav"), $"RIFF{nonsense}");
        string[] args =
        [
            .. command
                .Split(' ')
                .Select(part =>
                    part == "{0}" ? nonsense
                    : part.Contains('.') ? Path.Combine(_folder, part)
                    : part
                ),
        ];
        var (code, _, errors) = CommandRun.Of(args);
        Assert.NotEqual(0, code);
        IsOneLine(errors);
    }

    private static void IsOneLine(string errors)
    {
        var line = errors.TrimEnd('\r', '\n');
        Assert.InRange(line.Length, 5, OneLine.Most);
        Assert.DoesNotContain(line, letter => char.IsControl(letter) || letter is '\u2028' or '\u202e');
    }
}
