using System.Text.RegularExpressions;
using Bocca.Core.Embouchure;
using Bocca.Core.Instruments;
using Bocca.Web.Frame;

namespace Bocca.Web.Tests;

/// <summary>One table of keys: read by pages and by the help, and no key twice in a place.</summary>
public sealed class KeysTests : IDisposable
{
    private readonly Room _room = new();

    public void Dispose() => _room.Dispose();

    [Fact]
    public void No_key_stands_twice_in_a_place()
    {
        // While a silent drill runs, its keys are the only ones.
        foreach (var place in Keys.All.Select(key => key.Place).Distinct().Where(place => place != "hand-drill"))
        {
            var labels = Keys
                .All.Where(key => key.Place == place || key.Place is Keys.Everywhere or Keys.InLesson)
                .SelectMany(key => key.Labels)
                .ToList();
            Assert.Equal(labels.Distinct(StringComparer.OrdinalIgnoreCase), labels);
        }
    }

    [Fact]
    public void What_is_seen_has_no_key_of_a_lesson_and_none_twice()
    {
        var taken = Keys.All.Where(key => key.Place is Keys.Everywhere or Keys.InLesson).SelectMany(key => key.Labels).ToList();
        foreach (var instrument in Catalogue.All)
        {
            var keys = Observation.Of(instrument).Select(seen => $"{seen.Key}").Where(key => key != "").ToList();
            Assert.Equal(keys.Distinct(), keys);
            Assert.Empty(keys.Intersect(taken, StringComparer.OrdinalIgnoreCase));
        }
    }

    [Theory]
    [InlineData("/notes/1", "valves 1 2 3 4")]
    [InlineData("/practice/1/week", "take the last move back")]
    [InlineData("/ear/count/1", "other cards")]
    public async Task The_help_and_the_page_read_the_same_table(string path, string words)
    {
        await _room.AddAsync("Ada");
        var page = (await new Tab(_room.CreateClient()).OpenAsync(path)).Page;
        Assert.Contains(words, page.QuerySelector("#keys")!.TextContent);
        var stop = Stop(path);
        Assert.Equal(
            Keys.Of(stop).Count(),
            System.Text.Json.JsonDocument.Parse(page.QuerySelector("#keys-table")!.TextContent).RootElement.GetArrayLength()
        );
    }

    /// <summary>
    /// No script knows a key by its name but the one that reads the table; what is typed into a field, marks moved on a picture, a list
    /// chosen from and a sheet closed have keys of their own, as browsers have them.
    /// </summary>
    [Fact]
    public void No_page_has_keys_of_its_own()
    {
        string[] others = ["keys.js", "frame.js", "placement.js", "watch.js"];
        var folder = Path.Combine(Top(), "src", "Bocca.Web", "wwwroot", "js");
        var own = Directory
            .GetFiles(folder, "*.js", SearchOption.AllDirectories)
            .Where(file => !others.Contains(Path.GetFileName(file)))
            .Where(file => Regex.IsMatch(File.ReadAllText(file), @"event\.(key|code)\b"))
            .Select(Path.GetFileName);
        Assert.Empty(own);
    }

    private Stop Stop(string path) => ((Stops)_room.Services.GetService(typeof(Stops))!).Of(path);

    private static string Top()
    {
        var at = new DirectoryInfo(AppContext.BaseDirectory);
        while (!File.Exists(Path.Combine(at.FullName, "Bocca.slnx")))
            at = at.Parent!;
        return at.FullName;
    }
}
