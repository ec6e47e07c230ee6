using ArchUnitNET.Domain;
using ArchUnitNET.Loader;
using Bocca.Core.Music;

namespace Bocca.Core.Tests.Architecture;

/// <summary>The house: chapters from lower to higher, and nothing that points up.</summary>
public sealed class ArrowTests
{
    private const string Root = "Bocca.Core.";

    private static readonly ArchUnitNET.Domain.Architecture Core = new ArchLoader().LoadAssembly(typeof(Pitch).Assembly).Build();

    /// <summary>Chapters of one line may stand beside each other; each may use those of the lines before it.</summary>
    private static readonly string[][] Lines =
    [
        ["Music", "Sound"],
        ["Score", "Instruments"],
        ["Teaching"],
        ["Fingering"],
        ["Judging", "Health"],
        ["Breath", "Embouchure", "Buzz"],
        ["Tone"],
        ["Slurs", "Ear", "Counting"],
        ["Pieces"],
        ["Practice"],
        ["Simulation"],
    ];

    /// <summary>Score stands on Music and Instruments alone, whatever lies between.</summary>
    private static readonly string[] Within = ["Score->Instruments"];

    [Fact]
    public void No_chapter_uses_one_that_stands_higher_or_beside_it()
    {
        var wrong = Uses(Chapter)
            .Where(use => use.From != use.To && LineOf(use.To) >= LineOf(use.From) && !Within.Contains($"{use.From}->{use.To}"))
            .Select(use => $"{use.From} -> {use.To}: {use.Origin} uses {use.Target}");
        Nothing(wrong);
    }

    [Fact]
    public void Every_chapter_has_its_place() =>
        Assert.DoesNotContain(Core.Types.Where(IsOurs).Select(Chapter), chapter => chapter != "" && LineOf(chapter) < 0);

    /// <summary>A folder and its sub-folders are chapters too: the arrows between them make no circle, however long.</summary>
    [Fact]
    public void No_folders_stand_in_a_circle()
    {
        var uses = Uses(type => type.Namespace.FullName).Where(use => use.From != use.To).ToList();
        var left = uses.Select(use => (use.From, use.To)).ToHashSet();
        // What nobody in the rest uses, or what uses nobody in it, is in no circle: take it away until nothing more goes.
        while (left.RemoveWhere(arrow => left.All(other => other.To != arrow.From) || left.All(other => other.From != arrow.To)) > 0) { }

        Nothing(
            uses.Where(use => left.Contains((use.From, use.To)))
                .Select(use => $"{use.From} -> {use.To}: {use.Origin} uses " + $"{use.Target}")
        );
    }

    [Fact]
    public void The_core_knows_no_web_and_no_database() =>
        Assert.DoesNotContain(
            typeof(Pitch).Assembly.GetReferencedAssemblies(),
            used => used.Name!.StartsWith("Microsoft.AspNetCore", StringComparison.Ordinal) || used.Name.Contains("EntityFramework")
        );

    /// <summary>Fails with the whole list, so that it can be worked through.</summary>
    private static void Nothing(IEnumerable<string> wrong)
    {
        var all = wrong.Distinct().Order().ToList();
        Assert.True(all.Count == 0, string.Join('\n', all));
    }

    private static bool IsOurs(IType type) => type.FullName.StartsWith(Root, StringComparison.Ordinal);

    private static string Chapter(IType type) =>
        type.Namespace.FullName.Length > Root.Length ? type.Namespace.FullName[Root.Length..].Split('.')[0] : "";

    private static int LineOf(string chapter) => Array.FindIndex(Lines, line => line.Contains(chapter));

    private static IEnumerable<(string From, string To, string Origin, string Target)> Uses(Func<IType, string> of) =>
        Core
            .Types.Where(type => IsOurs(type) && Chapter(type) != "")
            .SelectMany(type =>
                type.Dependencies.Where(use => IsOurs(use.Target) && Chapter(use.Target) != "")
                    .Select(use => (of(type), of(use.Target), type.Name, use.Target.Name))
            )
            .Distinct();
}
