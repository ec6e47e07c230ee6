using System.Net.Http.Json;
using System.Text.Json;
using Bocca.Core.Simulation;
using Bocca.Stress.Hostile;

namespace Bocca.Stress.Kills;

/// <summary>A writer for every kind of thing that the record holds.</summary>
public static class Writers
{
    private const string BuzzTake = "drill=sound4-rest4&tempo=120&on=Mouthpiece",
        ToneTake = "drill=what-came&tempo=120&notes=D4&A4=440&Celsius=20&target=80&rhythm=false";

    private const string Kept = "SELECT count(*) FROM Entries WHERE PupilId = $pupil AND Kept = 1",
        Gone = "SELECT count(DeletedAt) FROM Entries WHERE PupilId = $pupil",
        RowsAndGone = "SELECT count(*) + count(DeletedAt) FROM Entries WHERE PupilId = $pupil";

    private const string Rows = "SELECT count(*) FROM Entries WHERE PupilId = $pupil";

    public static IReadOnlyList<Writer> All { get; } =
    [
        new("pupil", (_, _) => Form("/pupils/new", NewPupil("Writer")), "SELECT count(*) FROM Pupils WHERE Name = 'Writer'"),
        new(
            "room",
            (pupil, n) => Form($"/notes/{pupil}/instrument?handler=Room", [new("a4", $"{430 + (n / 1000.0)}"), new("celsius", "20")]),
            "SELECT coalesce((SELECT round((A4Hz - 430) * 1000) FROM Rooms), 0)"
        ),
        Takes("buzz", BuzzTake),
        Takes("tone", ToneTake),
        Takes("slurs", "drill=pair:0:3&tempo=90&times=1"),
        // What is done with an entry: whatever take is the newest is kept, or gone and back.
        new("kept", (pupil, id) => Form($"/buzz/{pupil}?handler=Keep&id={id}", []), Kept) { Before = ("buzz", BuzzTake) },
        new("deleted", (pupil, id) => Form($"/tone/{pupil}?handler=Delete&id={id}", []), Gone) { Before = ("tone", ToneTake) },
        new(
            "breath",
            (pupil, n) =>
                Form(
                    $"/breath/{pupil}?handler=Keep",
                    [
                        new("drill", "even-stream"),
                        new("rung", "0"),
                        new("tempo", "80"),
                        // The same key once more after a kill: kept once.
                        new("key", $"{new Guid(n, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10)}"),
                        new("stopped", "true"),
                        new("seconds", "1"),
                    ]
                ),
            Rows
        ),
        new(
            "placement",
            (pupil, _) =>
                new HttpRequestMessage(HttpMethod.Post, $"/set-up/{pupil}?handler=Keep")
                {
                    Content = JsonContent.Create(
                        new
                        {
                            front = new DrawnFace(0.66, 2, 0, 25).Marks(),
                            rimMm = 25,
                            source = 2,
                        },
                        options: JsonSerializerOptions.Web
                    ),
                },
            Rows
        ),
        // Each press writes a row or takes one back.
        new("remark", (pupil, _) => Form($"/set-up/{pupil}/watch?handler=Notice", [new("signal", "seen.cheeks")]), RowsAndGone),
        new("tick", (pupil, _) => Form($"/set-up/{pupil}/checks", [new("check", "seat")]), RowsAndGone),
        new("note", (pupil, _) => Form($"/notes/{pupil}?handler=Save", [new("note", "D4"), new("setting", "1-3")]), Rows),
        new(
            "instrument",
            (pupil, n) => Form($"/notes/{pupil}/instrument", [new("valve", "1"), new("third", "false"), new("remark", $"{n}")]),
            Rows
        ),
        new("hand", Hand, Rows),
        // What was said stands as it was said, each once.
        new(
            "said",
            (pupil, n) => Form($"/practice/{pupil}/lesson?handler=Remark", [new("words", $"word {n}"), new("alone", "false")]),
            "SELECT count(DISTINCT Summary) FROM Entries WHERE PupilId = $pupil AND Summary LIKE 'word %'"
        ),
        new(
            "week",
            (pupil, n) => Form($"/practice/{pupil}/week", [new("from", $"{new DateOnly(2027, 1, 4).AddDays(7 * (n % 5000)):yyyy-MM-dd}")]),
            "SELECT count(DISTINCT Subject) FROM Entries WHERE PupilId = $pupil AND Kind = 'week' AND DeletedAt IS NULL"
        ),
        new(
            "setting",
            (pupil, n) => Form($"/approach/drills/{pupil}", [new("drills.buzz.sound4-rest4.tempo", $"{61 + (n % 90)}")]),
            "SELECT count(*) FROM SettingChanges WHERE PupilId = $pupil"
        ),
        new(
            "paper",
            (_, n) =>
                Form(
                    "/practice/paper",
                    [
                        new("Book", $"Killed book {n}"),
                        new("Words", "long notes"),
                        new("From", "Lips"),
                        new("On", "16"),
                        new("Off", "8"),
                        new("Times", "4"),
                        new("Tempo", "72"),
                    ]
                ),
            "SELECT count(DISTINCT Book) FROM PaperItems WHERE Book LIKE 'Killed book %'"
        ),
        new(
            "piece",
            (pupil, n) =>
                Form(
                    $"/pieces/{pupil}/write",
                    [new("title", $"Killed piece {n}"), new("text", $"4/4 q D4 E4 F4 {"DEFGA"[n % 5]}4 h G4 E4")]
                ),
            "SELECT count(DISTINCT Title) FROM Pieces WHERE Title LIKE 'Killed piece %'"
        ),
        // A copy is there or not, and whole: what stands of it is looked at by itself.
        new("copy", (_, _) => Form("/?handler=Copy", []), "SELECT -1"),
    ];

    /// <summary>What the form of a pupil sends.</summary>
    public static List<KeyValuePair<string, string>> NewPupil(string name) =>
        [
            new("Form.Name", name),
            new("Form.Instrument", "trumpet-bb"),
            new("Form.Reading", "treble"),
            new("Form.Stage", "Second"),
            new("Form.Started", "2026-09-01"),
            new("Form.SameName", "true"),
        ];

    public static HttpRequestMessage Form(string address, List<KeyValuePair<string, string>> fields) =>
        new(HttpMethod.Post, address) { Content = new FormUrlEncodedContent(fields) };

    private static Writer Takes(string stop, string asked) => new(stop, (pupil, _) => Hear(stop, pupil, asked), Rows);

    /// <summary>A recording sent to be heard.</summary>
    public static HttpRequestMessage Hear(string stop, int pupil, string asked)
    {
        var form = new MultipartFormDataContent { { new ByteArrayContent(Values.GoodFiles[0].Bytes), "sound", "take.wav" } };
        foreach (var field in $"{asked}&source=File&missing=0&tense=false".Split('&'))
            form.Add(new StringContent(field.Split('=')[1]), field.Split('=')[0]);
        return new HttpRequestMessage(HttpMethod.Post, $"/{stop}/{pupil}?handler=Hear") { Content = form };
    }

    private static HttpRequestMessage Hand(int pupil, int number) =>
        new(HttpMethod.Post, $"/notes/{pupil}/hand")
        {
            Content = JsonContent.Create(
                new
                {
                    drill = "by-note",
                    answers = Enumerable
                        .Range(0, 4)
                        .Select(i => new
                        {
                            item = "D4",
                            answer = "1-3",
                            from = i == 0 ? "" : "1-3",
                            given = "1-3",
                            seconds = 1.0 + (number % 3),
                        }),
                }
            ),
        };
}
