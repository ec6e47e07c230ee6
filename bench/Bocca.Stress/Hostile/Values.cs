using AngleSharp.Html.Dom;
using AngleSharp.Html.Parser;
using Bocca.Core.Sound;
using Microsoft.AspNetCore.WebUtilities;

namespace Bocca.Stress.Hostile;

/// <summary>What can be sent: values that the application's own pages hold, read there, and values that nobody should send.</summary>
public sealed class Values
{
    /// <summary>Stands in an answer as it was sent only where it was not escaped.</summary>
    public const string Mark = "<i data-hostile";

    /// <summary>Breaks out of an element, of an attribute in either kind of quotes and of a script, where it is not escaped.</summary>
    public const string Every = "\"' data-hostile=\"1\" data-x='1'></script><i data-hostile>";

    /// <summary>What a spreadsheet works out, wherever a table does not escape it.</summary>
    public const string Formula = "=1+1";

    private const int MostPages = 240;

    /// <summary>The forms of the pages.</summary>
    public PageForms Forms { get; } = new();

    private readonly Dictionary<string, HashSet<string>> _read = new(StringComparer.OrdinalIgnoreCase);

    /// <summary>Values of any type that no page sends.</summary>
    public static IReadOnlyList<string> Bad { get; } =
    [
        "",
        " ",
        "0",
        "-1",
        "77",
        "2147483647",
        "-2147483648",
        "9223372036854775808",
        "NaN",
        "Infinity",
        "-Infinity",
        "1e999",
        "1e308",
        "-1e308",
        "1e-320",
        "0.0000001",
        "1,5",
        "null",
        "true",
        "[]",
        "{}",
        "9999-12-31",
        "0001-01-01",
        $"\">{Mark}>",
        "\" data-hostile=\"1",
        "' data-hostile='1",
        "=HYPERLINK(\"http://x/\",1)",
        "@SUM(1+1)",
        $"'{Mark}>",
        $"</script>{Mark}>",
        "'; DROP TABLE Pupils; --",
        "../../../../etc/passwd",
        "%00%n%s{0}",
        "\0",
        "\u0001\u000b\u001f",
        "\u202e\u200f\ufeff",
        "\ud800",
        "\U0001F3BA\U0001F3BA",
        "C#b4",
        "H99",
        "1-2-3-4-5-6",
        "T-",
        "steady steady steady",
        new string('a', 300),
        new string('9', 400),
        new string('b', 200_000),
    ];

    /// <summary>Files that are not what they say.</summary>
    public static IReadOnlyList<(string Name, byte[] Bytes)> BadFiles { get; } = MakeBadFiles();

    /// <summary>Those of them that nothing may take, wherever a file is wanted.</summary>
    public static IReadOnlySet<string> NoFiles { get; } =
        new HashSet<string>
        {
            "empty.wav",
            "noise.wav",
            "cut.wav",
            "bomb.musicxml",
            "entity.musicxml",
            "deep.musicxml",
            "open.musicxml",
            "high.musicxml",
            "packed.mxl",
            "large.musicxml",
        };

    /// <summary>A recording and a score as they should be.</summary>
    public static IReadOnlyList<(string Name, byte[] Bytes)> GoodFiles { get; } =
    [("take.wav", Tone(3)), ("slurs.musicxml", Text(Score(Slurred("C", "start"), Slurred("G", "stop"))))];

    /// <summary>A file as a field wants one: a recording, a calendar, a score packed or not.</summary>
    public static (string Name, byte[] Bytes) GoodFile(Target target, Field field, Random random) =>
        field.Name.ToLowerInvariant() switch
        {
            "sound" when target.Handler == "Clicks" => ("clicks.wav", Clicks()),
            "sound" => GoodFiles[0],
            "calendar" => ("times.ics", Text(Calendar)),
            "archive" => ("pupil.zip", Pupil()),
            _ => random.Next(3) == 0 ? ("slurs.mxl", Packed(GoodFiles[1].Bytes)) : GoodFiles[1],
        };

    /// <summary>Reads the application's own pages from its first on, and takes down what may be sent.</summary>
    public async Task ReadAsync(HttpClient client, IEnumerable<string> from)
    {
        var parser = new HtmlParser();
        var (waiting, seen) = (new Queue<string>(from), new HashSet<string>());
        for (var pages = 0; pages < MostPages && waiting.TryDequeue(out var address); )
        {
            if (!seen.Add(Shape(address)))
                continue;
            using var answer = await client.GetAsync(address);
            if (!answer.IsSuccessStatusCode || answer.Content.Headers.ContentType?.MediaType != "text/html")
                continue;
            pages++;
            using var page = parser.ParseDocument(await answer.Content.ReadAsStringAsync());
            foreach (var link in page.QuerySelectorAll("a[href^='/']"))
                if (link.GetAttribute("href") is { } to && !to.StartsWith("//", StringComparison.Ordinal))
                {
                    waiting.Enqueue(to);
                    TakeDown(to);
                }

            TakeDown(page, Stop(address));
            Forms.TakeDown(page, address);
        }
    }

    /// <summary>Opens the pages anew that show a handler's forms: what was done since may have changed them.</summary>
    public async Task OpenAnewAsync(HttpClient client, Target target, Random random)
    {
        var pages = Forms.For(target).Select(form => form.From).Distinct().ToList();
        if (pages.Count == 0)
            return;
        var address = pages[random.Next(pages.Count)];
        using var answer = await client.GetAsync(address);
        using var page = new HtmlParser().ParseDocument(answer.IsSuccessStatusCode ? await answer.Content.ReadAsStringAsync() : "");
        Forms.TakeDown(page, address);
    }

    /// <summary>A value for a field that some page would send, of the same stop where one of it has the name.</summary>
    public string Good(Target target, Field field, Random random)
    {
        var type = Nullable.GetUnderlyingType(field.Type) ?? field.Type;
        if (type.IsEnum)
            return Enum.GetNames(type)[random.Next(Enum.GetNames(type).Length)];
        if (type == typeof(bool))
            return random.Next(2) == 0 ? "true" : "false";
        var name = field.Name[(field.Name.LastIndexOf('.') + 1)..];
        var known = _read.GetValueOrDefault(Stop(target.Path) + field.Name) ?? _read.GetValueOrDefault(Stop(target.Path) + name);
        if ((known ?? _read.GetValueOrDefault(field.Name) ?? _read.GetValueOrDefault(name)) is { Count: > 0 } read && random.Next(10) > 0)
            return read.ElementAt(random.Next(read.Count));
        return type switch
        {
            _ when type == typeof(DateOnly) => "2026-09-01",
            _ when type == typeof(DateTime) => "2026-09-01T10:00:00Z",
            _ when type == typeof(Guid) => $"{new Guid(random.Next(), 1, 2, 3, 4, 5, 6, 7, 8, 9, 10)}",
            _ when type == typeof(string) => "C4",
            _ when type == typeof(double) => $"{random.Next(40, 160)}",
            _ => $"{random.Next(1, 9)}",
        };
    }

    /// <summary>The address that one belongs to: without its last part.</summary>
    public static string Above(string path) => path.LastIndexOf('/') is > 0 and var at ? path[..at] : path;

    /// <summary>An address without the numbers in it: pages of one shape are read once.</summary>
    private static string Shape(string address) =>
        string.Concat(address.Where(sign => !char.IsAsciiDigit(sign))) is var shape && shape.Length > 80 ? shape[..80] : shape;

    /// <summary>The first part of an address.</summary>
    private static string Stop(string address) => address.Split('/', '?')[1] + "/";

    private void TakeDown(string address)
    {
        var query = address.IndexOf('?');
        if (query < 0)
            return;
        foreach (var (name, values) in QueryHelpers.ParseQuery(address[query..]))
        foreach (var value in values)
            Add(Stop(address), name, value);
    }

    private void TakeDown(IHtmlDocument page, string stop)
    {
        foreach (var input in page.QuerySelectorAll("input[name],button[name]"))
            Add(stop, input.GetAttribute("name")!, input.GetAttribute("value"));
        foreach (var select in page.QuerySelectorAll("select[name]"))
        foreach (var option in select.QuerySelectorAll("option"))
            Add(stop, select.GetAttribute("name")!, ((IHtmlOptionElement)option).Value);
    }

    private void Add(string stop, string name, string? value)
    {
        if (string.IsNullOrEmpty(value) || name is "__RequestVerificationToken" or "handler")
            return;
        foreach (var key in (string[])[name, stop + name])
            (_read.TryGetValue(key, out var values) ? values : _read[key] = []).Add(value);
    }

    private const string Calendar =
        "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//Somebody//Times//EN\r\nBEGIN:VEVENT\r\nUID:1@somebody\r\nSUMMARY:Pupil 2\r\n"
        + "DTSTART:20270105T170000\r\nDTEND:20270105T173000\r\nRRULE:FREQ=WEEKLY;COUNT=10\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n";

    /// <summary>Eight clicks, a second apart, as a loop of the machine's own sound hears them.</summary>
    private static byte[] Clicks()
    {
        var samples = new float[44100 * 10];
        for (var click = 1; click <= 8; click++)
        for (var i = 0; i < 400; i++)
            samples[(int)(44100 * (click + 0.05)) + i] = (float)(0.8 * Math.Exp(-i / 60.0) * Math.Sin(2 * Math.PI * 1000 * i / 44100));
        var wav = new MemoryStream();
        WavFile.Write(wav, new MonoSound(samples, 44100));
        return wav.ToArray();
    }

    /// <summary>A score in its package (MusicXML 4.0, compressed files).</summary>
    private static byte[] Packed(byte[] score) =>
        Zip(
            ("META-INF/container.xml", Text("<container><rootfiles><rootfile full-path=\"score.musicxml\"/></rootfiles></container>")),
            ("score.musicxml", score)
        );

    /// <summary>A pupil as another Bocca saved one.</summary>
    private static byte[] Pupil() =>
        Zip(
            (
                "pupil.json",
                Text(
                    "{\"form\":1,\"made\":\"2026-09-01T00:00:00Z\",\"entries\":[],\"pupil\":{\"name\":\"Pupil in\","
                        + "\"instrument\":\"trumpet-bb\",\"reading\":\"treble\",\"stage\":\"Second\",\"started\":\"2026-09-01\"}}"
                )
            )
        );

    private static byte[] Zip(params (string Name, byte[] Content)[] files)
    {
        var bytes = new MemoryStream();
        using (var package = new System.IO.Compression.ZipArchive(bytes, System.IO.Compression.ZipArchiveMode.Create, leaveOpen: true))
            foreach (var (name, content) in files)
            {
                using var entry = package.CreateEntry(name).Open();
                entry.Write(content);
            }

        return bytes.ToArray();
    }

    private static byte[] Text(string text) => System.Text.Encoding.UTF8.GetBytes(text);

    private static byte[] Tone(double seconds)
    {
        var samples = new float[(int)(44100 * seconds)];
        for (var i = 0; i < samples.Length; i++)
            samples[i] =
                i % 44100 < 30000
                    ? (float)(0.3 * Math.Sin(2 * Math.PI * 233 * i / 44100) + (0.1 * Math.Sin(4 * Math.PI * 233 * i / 44100)))
                    : 0;
        var wav = new MemoryStream();
        WavFile.Write(wav, new MonoSound(samples, 44100));
        return wav.ToArray();
    }

    /// <summary>The end of a declaration, with an entity defined after it.</summary>
    private const string Step = "?><!DOCTYPE score-partwise [<!ENTITY step \"G\">]><";

    private static string Slurred(string step, string end) =>
        $"<pitch><step>{step}</step><octave>4</octave></pitch>|<notations><slur type=\"{end}\" number=\"1\"/></notations>";

    /// <summary>A score of four quarters.</summary>
    /// <param name="notes">What stands in its notes, in turn; after a bar what stands at their end.</param>
    private static string Score(params string[] notes) =>
        "<?xml version=\"1.0\"?><score-partwise version=\"4.0\"><part-list><score-part id=\"P1\"><part-name>A</part-name></score-part>"
        + "</part-list><part id=\"P1\"><measure number=\"1\"><attributes><divisions>1</divisions></attributes>"
        + string.Concat(
            Enumerable
                .Range(0, 4)
                .Select(i => notes[i % notes.Length].Split('|'))
                .Select(note =>
                    $"<note>{note[0]}<duration>1</duration><voice>1</voice><type>quarter</type>{note.ElementAtOrDefault(1)}</note>"
                )
        )
        + "</measure></part></score-partwise>";

    private static List<(string, byte[])> MakeBadFiles()
    {
        var wav = Tone(1);
        // A head that promises four gigabytes, a rate of nothing, more channels than there are, a block that ends in the middle.
        byte[] Changed(int at, params byte[] with)
        {
            var copy = wav.ToArray();
            with.CopyTo(copy, at);
            return copy;
        }

        var bomb =
            "<?xml version=\"1.0\"?><!DOCTYPE a [<!ENTITY a \"aaaaaaaaaa\">"
            + string.Concat(
                Enumerable
                    .Range(1, 9)
                    .Select(i => $"<!ENTITY a{i} \"{string.Concat(Enumerable.Repeat(i == 1 ? "&a;" : $"&a{i - 1};", 10))}\">")
            )
            + "]><score-partwise>&a9;</score-partwise>";
        return
        [
            ("empty.wav", []),
            ("noise.wav", [.. Enumerable.Range(0, 5000).Select(i => (byte)(i * 7919))]),
            ("zeros.wav", new byte[400_000]),
            ("cut.wav", wav[..30]),
            ("half.wav", wav[..(wav.Length / 2)]),
            ("long.wav", Changed(40, 255, 255, 255, 255)),
            ("rate.wav", Changed(24, 0, 0, 0, 0)),
            ("fast.wav", Changed(24, 255, 255, 255, 127)),
            ("channels.wav", Changed(22, 255, 255)),
            ("bits.wav", Changed(34, 3, 0)),
            ("loud.wav", Loud()),
            ("../../take.wav", wav),
            ($"{Mark}>.wav", wav),
            ("bomb.musicxml", Text(bomb)),
            ("entity.musicxml", Text(Score("<pitch><step>&step;</step><octave>4</octave></pitch>").Replace("?><", Step))),
            ("deep.musicxml", Text(string.Concat(Enumerable.Repeat("<a>", 20_000)))),
            ("open.musicxml", Text("<score-partwise>")),
            ("high.musicxml", Text(Score("<pitch><step>C</step><octave>99999999999</octave></pitch>"))),
            ("nothing.musicxml", Text(Score(""))),
            ("packed.mxl", [0x50, 0x4B, 3, 4, .. new byte[2000]]),
            ("large.musicxml", new byte[1_500_000]),
        ];
    }

    /// <summary>Samples of 32 bits that are no numbers.</summary>
    private static byte[] Loud()
    {
        var head = new BinaryWriter(new MemoryStream());
        head.Write("RIFF"u8);
        head.Write(36 + 40_000);
        head.Write("WAVEfmt "u8);
        head.Write(16);
        head.Write((short)3);
        head.Write((short)1);
        head.Write(44100);
        head.Write(176400);
        head.Write((short)4);
        head.Write((short)32);
        head.Write("data"u8);
        head.Write(40_000);
        for (var i = 0; i < 10_000; i++)
            head.Write(
                i % 3 == 0 ? float.NaN
                : i % 3 == 1 ? float.PositiveInfinity
                : 1e38f
            );
        return ((MemoryStream)head.BaseStream).ToArray();
    }
}
