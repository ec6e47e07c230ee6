using System.Text.Json.Nodes;
using Bocca.Core.Judging;
using Bocca.Core.Teaching;
using Bocca.Web.Frame;
using Bocca.Web.Pages.Practice;
using Bocca.Web.Record;
using Bocca.Web.Record.Archive;
using Bocca.Web.Record.Requests;
using Bocca.Web.Record.Shapes;
using Microsoft.Extensions.DependencyInjection;

namespace Bocca.Web.Tests.Record;

/// <summary>
/// What stands in the record is written in types of the record's own: a payload of every kind and version, as it was once written, is read
/// for ever; nothing stored is a type of the core.
/// </summary>
public sealed class ShapesTests
{
    private const string Later = "ofALaterVersion";

    private static readonly Lazy<Stops> Registered = new(() =>
    {
        using var room = new Room();
        return room.Services.GetRequiredService<Stops>();
    });

    private static IEnumerable<EntryKind> Kinds => Registered.Value.Kinds;

    private static string Folder => Path.Combine(AppContext.BaseDirectory, "Record", "Golden");

    /// <summary>The payloads that were once written: kind, version.</summary>
    public static TheoryData<string, int> Golden =>
        [
            .. Directory
                .GetFiles(Folder, "*.json")
                .Select(file => Path.GetFileNameWithoutExtension(file).Split('-'))
                .Select(parts => (parts[0], int.Parse(parts[1]))),
        ];

    private static Entry EntryOf(string kind, int version, string? body = null) =>
        new()
        {
            Id = 42,
            Kind = kind,
            At = new DateTime(2026, 12, 1, 15, 50, 0, DateTimeKind.Utc),
            DrillId = "sound4-rest4",
            Payload = new EntryPayload
            {
                Version = version,
                Body = body ?? File.ReadAllText(Path.Combine(Folder, $"{kind}-{version}.json")),
            },
        };

    private static EntryKind KindOf(string id) => Kinds.Single(kind => kind.Id == id);

    [Fact]
    public void Every_kind_with_a_payload_has_one_of_the_version_of_today()
    {
        var written = Golden.Select(row => row.Data.Item1).ToHashSet();
        Assert.Equal(Kinds.Where(kind => kind.Shaped is not null).Select(kind => kind.Id).Order(), written.Order());
    }

    [Theory]
    [MemberData(nameof(Golden))]
    public void A_payload_that_was_once_written_is_read_whole(string kind, int version)
    {
        var entry = EntryOf(kind, version);
        var stood = JsonNode.Parse(entry.Payload!.Body)!;
        Assert.True(JsonNode.DeepEquals(stood, JsonNode.Parse(KindOf(kind).Checked(entry.Payload)!.Body)));
        var verdict = KindOf(kind).VerdictOf(entry);
        Assert.Equal((string?)stood["verdict"]?["outcome"], verdict is null ? null : StoredNames.Outcomes[verdict.Outcome]);
        Assert.Equal(
            stood["verdict"]?["findings"]?.AsArray().Select(finding => (string?)finding!["symptom"]!["id"]),
            verdict?.Findings.Select(finding => finding.Symptom.Id)
        );
    }

    [Theory]
    [MemberData(nameof(Golden))]
    public void A_member_that_is_missing_is_told_with_the_entry_and_its_kind(string kind, int version)
    {
        var refused = 0;
        foreach (var (owner, name) in Members(JsonNode.Parse(EntryOf(kind, version).Payload!.Body)!))
        {
            var value = owner[name];
            owner.Remove(name);
            var entry = EntryOf(kind, version, owner.Root.ToJsonString());
            try
            {
                _ = KindOf(kind).VerdictOf(entry);
                _ = KindOf(kind).Checked(entry.Payload);
            }
            catch (InvalidDataException)
            {
                refused++;
                var problem = Assert.Throws<InvalidDataException>(() => KindOf(kind).Complete(entry));
                Assert.Contains("Entry 42", problem.Message, StringComparison.Ordinal);
                Assert.Contains($"'{kind}'", problem.Message, StringComparison.Ordinal);
                Assert.Contains(name, problem.Message, StringComparison.Ordinal);
            }

            owner[name] = value;
        }

        Assert.NotEqual(0, refused);
    }

    [Theory]
    [MemberData(nameof(Golden))]
    public void What_this_version_does_not_know_stays(string kind, int version)
    {
        var body = JsonNode.Parse(EntryOf(kind, version).Payload!.Body)!;
        foreach (var owner in Members(body).Select(member => member.Owner).Distinct().Where(owner => IsShape(kind, owner)).ToList())
            owner[Later] = new JsonObject { ["of"] = 7 };
        var entry = EntryOf(kind, version, body.ToJsonString());
        Assert.True(JsonNode.DeepEquals(body, JsonNode.Parse(KindOf(kind).Checked(entry.Payload)!.Body)));
    }

    [Fact]
    public void What_this_version_does_not_know_stays_where_a_payload_is_written_again()
    {
        var body = JsonNode.Parse(EntryOf("lesson", 1).Payload!.Body)!;
        body[Later] = 7;
        body["parts"]![0]![Later] = "seven";
        var entry = EntryOf("lesson", 1, body.ToJsonString());
        var lesson = PracticeStop.Lessons.Read(entry);
        PracticeStop.Lessons.Rewrite(entry, lesson with { Task = "Another.", Parts = [.. lesson.Parts.Take(1)] });
        var written = JsonNode.Parse(entry.Payload!.Body)!;
        Assert.Equal((7, "seven"), ((int)written[Later]!, (string)written["parts"]![0]![Later]!));
        Assert.Equal(("Another.", 1), ((string)written["task"]!, written["parts"]!.AsArray().Count));
    }

    [Fact]
    public void Stored_types_have_stored_types_inside_only()
    {
        var seen = new HashSet<Type>();
        foreach (
            var type in Kinds
                .Select(kind => kind.Shaped)
                .OfType<Type>()
                .Concat(Registered.Value.All.SelectMany(stop => stop.Requests).Select(Asked))
        )
            Walk(type, seen);
        Assert.True(seen.Count > 40, $"{seen.Count} types were walked");
        Assert.Contains(typeof(StoredVerdict), seen);
        Assert.Contains(typeof(StoredNote), seen);
    }

    /// <summary>A choice without a name of the record's own would be written as the code has it, or as a number.</summary>
    [Fact]
    public void Every_choice_in_a_pupils_file_has_its_name_from_the_record()
    {
        var named = Stored.FromElsewhere().Converters.Select(converter => converter.GetType().GetGenericArguments()[0]).ToHashSet();
        var (seen, choices) = (new HashSet<Type>(), new HashSet<Type>());
        void Look(Type type)
        {
            type = Nullable.GetUnderlyingType(type) ?? type;
            if (type.IsEnum)
                choices.Add(type);
            else if (type.IsGenericType)
                Array.ForEach(type.GetGenericArguments(), Look);
            else if (type.Namespace == typeof(ArchivedPupil).Namespace && seen.Add(type))
                Array.ForEach(type.GetProperties(), property => Look(property.PropertyType));
        }

        Look(typeof(ArchivedPupil));
        Assert.True(choices.Count >= 6, $"{choices.Count} choices");
        Assert.Empty(choices.Except(named));
    }

    [Fact]
    public void A_name_that_the_record_does_not_have_is_refused()
    {
        Assert.Equal(Outcome.StepBack, StoredNames.Outcomes.Read("StepBack"));
        Assert.Throws<InvalidDataException>(() => StoredNames.Outcomes.Read("stepback"));
        Assert.Throws<InvalidDataException>(() => StoredNames.Outcomes.Read("2"));
        Assert.Throws<InvalidOperationException>(() => new Names<Pull>((Pull.Firm, "Firm")));
    }

    [Fact]
    public void What_a_teacher_has_set_otherwise_is_read_as_it_was_written()
    {
        OwnRung[] ladder = [new("own-1", "Think of the note above.", Pull.Ease), new("hum", "Hum it first.", Pull.Neutral, "sing-first")];
        var own = OwnSettings.None.With("bands.lips.steadyCents", "80").With(StoredOwn.OfLadder("oneLow"), StoredOwn.WriteLadder(ladder));
        Assert.Equal(own.Values, StoredOwn.Read(StoredOwn.Write(own)).Values);
        Assert.Equal(ladder, StoredOwn.ReadLadder(own["cues.oneLow"]!));
        Assert.Equal("Think of the note above.", own.Symptoms().Get("oneLow").Fixes[0].Cue);
        Assert.Equal("", StoredOwn.Write(OwnSettings.None));
        Assert.Empty(StoredOwn.ReadLadder("[{\"Id\":\"own-1\"}]"));
    }

    /// <summary>Ladders had the place of a pull for its name.</summary>
    [Fact]
    public void A_ladder_of_an_older_version_keeps_its_pulls() =>
        Assert.Equal(
            [new("own-1", "Think of the note above.", Pull.Ease), new("hum", "Hum it first.", Pull.Firm, "sing-first")],
            StoredOwn.ReadLadder(
                """
                [{"Id":"own-1","Cue":"Think of the note above.","Pull":2,"Drill":null},
                 {"Id":"hum","Cue":"Hum it first.","Pull":1,"Drill":"sing-first"}]
                """
            )
        );

    private static Type Asked(RequestKind kind) => kind.GetType().GetGenericArguments()[0];

    private static void Walk(Type type, HashSet<Type> seen)
    {
        if (Nullable.GetUnderlyingType(type) is { } some)
            Walk(some, seen);
        else if (type.IsGenericType)
            foreach (var argument in type.GetGenericArguments())
                Walk(argument, seen);
        else if (type.Namespace?.StartsWith("System", StringComparison.Ordinal) == true && !type.IsEnum)
            return;
        else if (seen.Add(type))
        {
            Assert.True(type.IsAssignableTo(typeof(StoredShape)), $"{type} is no stored type");
            foreach (
                var property in type.GetProperties().Where(property => property.CanWrite && property.Name != nameof(StoredShape.Unknown))
            )
                Walk(property.PropertyType, seen);
        }
    }

    /// <summary>Every member of every object of a tree.</summary>
    private static List<(JsonObject Owner, string Name)> Members(JsonNode tree) =>
        tree switch
        {
            JsonObject owner =>
            [
                .. owner.Select(member => (owner, member.Key)),
                .. owner.Select(member => member.Value).OfType<JsonNode>().SelectMany(Members),
            ],
            // A list that repeats itself says no more by its tenth element.
            JsonArray list => [.. list.Take(2).OfType<JsonNode>().SelectMany(Members)],
            _ => [],
        };

    /// <summary>Whether an object is a stored form, and not a table of numbers.</summary>
    private static bool IsShape(string kind, JsonObject owner) => kind != "measured" || owner.Parent is null;
}
